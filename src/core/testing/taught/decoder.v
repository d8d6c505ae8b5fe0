module decoder #(parameter N = 3) (input [N-1:0] seat, input enable, output [2**N-1:0] lamp);
  assign lamp = enable ? (1'b1 << seat) : {2**N{1'b0}};
endmodule
