module divider(input [5:0] visitors, input [2:0] seats, output [5:0] rides, output [2:0] left);
  assign rides = visitors / seats;
  assign left = visitors % seats;
endmodule
