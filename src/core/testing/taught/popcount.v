module popcount(input [6:0] bars, output reg [2:0] shut);
  integer k;
  always @* begin
    shut = 0;
    for (k = 0; k < 7; k = k + 1) shut = shut + bars[k];
  end
endmodule
