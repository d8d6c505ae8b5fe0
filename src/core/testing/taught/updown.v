module updown(input clk, rst, up, load, input [3:0] d, output reg [3:0] q = 4'd0);
  always @(posedge clk, posedge rst) begin
    if (rst) q <= 4'd0;
    else if (load) q <= d;
    else q <= up ? q + 4'd1 : q - 4'd1;
  end
endmodule
