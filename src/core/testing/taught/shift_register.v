module shift_register(input clk, rst, si, output reg [7:0] q, output so);
  initial q = 8'h00;
  always @(posedge clk)
    if (rst) q <= 8'h00;
    else q <= {q[6:0], si};
  assign so = q[7];
endmodule
