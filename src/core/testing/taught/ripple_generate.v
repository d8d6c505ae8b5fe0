module full(input a, b, ci, output s, co);
  assign {co, s} = a + b + ci;
endmodule
module ripple_generate #(parameter N = 6) (input [N-1:0] children, adults, input ci, output [N-1:0] tickets, output co);
  wire [N:0] c;
  assign c[0] = ci;
  genvar i;
  generate
    for (i = 0; i < N; i = i + 1) begin : stage
      full f(.a(children[i]), .b(adults[i]), .ci(c[i]), .s(tickets[i]), .co(c[i+1]));
    end
  endgenerate
  assign co = c[N];
endmodule
