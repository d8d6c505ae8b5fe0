module uart_tx #(parameter DIVIDE = 2) (input clk, rst, send, input [7:0] data, output reg tx, output busy);
  reg [9:0] frame;
  reg [3:0] left;
  reg [1:0] tick;
  initial begin tx = 1'b1; frame = 10'h3ff; left = 0; tick = 0; end
  assign busy = left != 0;
  always @(posedge clk)
    if (rst) begin
      tx <= 1'b1;
      left <= 4'd0;
      tick <= 0;
    end else if (!busy) begin
      if (send) begin
        frame <= {1'b1, data, 1'b0};
        left <= 4'd10;
        tick <= 0;
      end
    end else if (tick == DIVIDE - 1) begin
      tick <= 0;
      tx <= frame[0];
      frame <= {1'b1, frame[9:1]};
      left <= left - 4'd1;
    end else tick <= tick + 1'b1;
endmodule
