module counter #(parameter WIDTH = 4, parameter MAX = 9) (input clk, input rst, input en, output reg [WIDTH-1:0] count, output carry);
  initial count = 0;
  always @(posedge clk)
    if (rst) count <= {WIDTH{1'b0}};
    else if (en) begin
      if (count == MAX) count <= 0;
      else count <= count + 1'b1;
    end
  assign carry = en && (count == MAX);
endmodule
