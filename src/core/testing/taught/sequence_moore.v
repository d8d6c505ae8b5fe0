// Finds 101 in the stream of the turnstile.
module sequence_moore(input clk, rst, x, output z);
  parameter S0 = 2'd0, S1 = 2'd1, S10 = 2'd2, S101 = 2'd3;
  reg [1:0] state = S0, next;
  always @(posedge clk or posedge rst)
    if (rst) state <= S0;
    else state <= next;
  always @(state or x)
    case (state)
      S0:   next = x ? S1 : S0;
      S1:   next = x ? S1 : S10;
      S10:  next = x ? S101 : S0;
      S101: next = x ? S1 : S10;
      default: next = S0;
    endcase
  assign z = (state == S101);
endmodule
