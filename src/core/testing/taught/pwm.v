module pwm(input clk, rst, input [3:0] bright, output lamp);
  reg [3:0] t = 0;
  always @(posedge clk) t <= rst ? 4'd0 : t + 4'd1;
  assign lamp = t < bright;
endmodule
