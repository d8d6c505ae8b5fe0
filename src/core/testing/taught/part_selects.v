module part_selects(input [15:0] word, input [1:0] which, output [3:0] nibble, output reg [15:0] put, output msb);
  assign nibble = word[which*4 +: 4];
  always @* begin
    put = 16'h0000;
    put[{which, 2'b11} -: 4] = word[3:0];
  end
  assign msb = word[15 -: 1];
endmodule
