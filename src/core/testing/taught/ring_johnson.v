module ring_johnson(input clk, rst, output reg [3:0] ring, johnson);
  initial begin
    ring = 4'b0001;
    johnson = 4'b0000;
  end
  always @(posedge clk) begin
    if (rst) begin
      ring <= 4'b0001;
      johnson <= 4'b0000;
    end else begin
      ring <= {ring[2:0], ring[3]};
      johnson <= {johnson[2:0], ~johnson[3]};
    end
  end
endmodule
