module sequence_mealy(input clk, rst, x, output reg z);
  localparam [1:0] IDLE = 2'b00, GOT1 = 2'b01, GOT11 = 2'b10;
  reg [1:0] state, next;
  initial state = IDLE;
  always @(posedge clk)
    if (rst) state <= IDLE; else state <= next;
  always @* begin
    next = state;
    z = 1'b0;
    case (state)
      IDLE: if (x) next = GOT1;
      GOT1: if (x) next = GOT11; else next = IDLE;
      GOT11: begin
        z = ~x;
        if (!x) next = IDLE;
      end
      default: next = IDLE;
    endcase
  end
endmodule
