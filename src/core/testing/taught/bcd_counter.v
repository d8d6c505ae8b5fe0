module digit(input clk, rst, en, output reg [3:0] q, output co);
  initial q = 0;
  assign co = en & (q == 4'd9);
  always @(posedge clk) if (rst | co) q <= 0; else if (en) q <= q + 1;
endmodule
module bcd_counter(input clk, rst, output [3:0] ones, tens);
  wire c;
  digit d0(clk, rst, 1'b1, ones, c);
  digit d1(.clk(clk), .rst(rst), .en(c), .q(tens), .co());
endmodule
