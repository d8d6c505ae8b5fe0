module universal_shift(input clk, rst, input [1:0] mode, input left, right, input [3:0] d, output reg [3:0] q);
  initial q = 4'b0;
  always @(posedge clk or posedge rst)
    if (rst) q <= 4'b0;
    else case (mode)
      2'b01: q <= {left, q[3:1]};
      2'b10: q <= {q[2:0], right};
      2'b11: q <= d;
      default: q <= q;
    endcase
endmodule
