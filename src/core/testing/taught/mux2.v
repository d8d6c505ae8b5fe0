// Which queue goes on: North while turn is 0, South while it is 1.
module mux2(input wire north, input wire south, input wire turn, output wire platform);
  assign platform = turn ? south : north;
endmodule
