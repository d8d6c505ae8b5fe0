module multiplier(input [3:0] a, b, output [7:0] p);
  assign p = a * b;
endmodule
