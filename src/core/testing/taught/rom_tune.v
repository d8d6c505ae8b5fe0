// Eight notes of the organ.
module rom_tune(input [2:0] step, output [3:0] pipe);
  reg [3:0] tune [0:7];
  initial begin
    tune[0] = 4'd1; tune[1] = 4'd3; tune[2] = 4'd5; tune[3] = 4'd8;
    tune[4] = 4'd5; tune[5] = 4'd3; tune[6] = 4'd1; tune[7] = 4'd0;
  end
  assign pipe = tune[step];
endmodule
