module lfsr(input clk, input rst, output reg [7:0] r, output bit_out);
  initial r = 8'h01;
  wire feedback = r[7] ^ r[5] ^ r[4] ^ r[3];
  always @(posedge clk or posedge rst)
    if (rst) r <= 8'h01;
    else r <= {r[6:0], feedback};
  assign bit_out = r[7];
endmodule
