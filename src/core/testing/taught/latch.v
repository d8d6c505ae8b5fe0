module latch(input enable, input [3:0] d, output reg [3:0] q);
  initial q = 0;
  always @(enable or d) if (enable) q <= d;
endmodule
