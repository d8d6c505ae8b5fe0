module alu(input [7:0] a, b, input [2:0] op, output reg [7:0] y, output zero, output reg carry);
  localparam ADD = 3'b000, SUB = 3'b001, AND = 3'b010, OR = 3'b011, XOR = 3'b100, SLT = 3'b101, SHL = 3'b110;
  always @(*) begin
    carry = 1'b0;
    case (op)
      ADD: {carry, y} = a + b;
      SUB: {carry, y} = a - b;
      AND: y = a & b;
      OR:  y = a | b;
      XOR: y = a ^ b;
      SLT: y = ($signed(a) < $signed(b)) ? 8'd1 : 8'd0;
      SHL: y = a << b[2:0];
      default: y = ~a;
    endcase
  end
  assign zero = (y == 0);
endmodule
