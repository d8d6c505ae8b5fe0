module priority_encoder(input [7:0] call, output reg [2:0] car, output reg valid);
  integer i;
  always @(call) begin
    car = 3'd0;
    valid = 1'b0;
    for (i = 0; i < 8; i = i + 1)
      if (call[i]) begin
        car = i;
        valid = 1'b1;
      end
  end
endmodule
