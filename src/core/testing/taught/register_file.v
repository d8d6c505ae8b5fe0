module register_file(input clk, we, input [1:0] ra, rb, rw, input [3:0] d, output [3:0] a, b);
  reg [3:0] file [0:3];
  integer k;
  initial for (k = 0; k < 4; k = k + 1) file[k] = 0;
  always @(posedge clk) if (we) file[rw] <= d;
  assign a = file[ra];
  assign b = file[rb];
endmodule
