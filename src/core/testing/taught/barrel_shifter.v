module barrel_shifter(input [7:0] d, input [2:0] n, input left, output [7:0] y);
  wire [15:0] twice = {d, d};
  assign y = left ? (d << n) | (d >> (4'd8 - n)) : twice >> n;
endmodule
