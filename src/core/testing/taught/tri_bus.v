module tri_bus(input [3:0] a, b, input ea, eb, output [3:0] bus);
  assign bus = ea ? a : 4'bz;
  assign bus = (eb && !ea) ? b : 4'bz;
  pullup p0(bus[0]);
endmodule
