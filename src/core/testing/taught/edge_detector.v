module edge_detector(input clk, input key, output reg pressed);
  reg [1:0] past = 2'b00;
  initial pressed = 0;
  always @(posedge clk) begin
    past <= {past[0], key};
    pressed <= past[0] & ~past[1];
  end
endmodule
