module dff_reset(input clk, input rst, input d, output reg q, output qn);
  initial q = 1'b0;
  always @(posedge clk or posedge rst)
    if (rst) q <= 1'b0;
    else q <= d;
  assign qn = ~q;
endmodule
