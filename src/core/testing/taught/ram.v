module ram(input clk, we, input [3:0] addr, input [7:0] din, output reg [7:0] dout);
  reg [7:0] mem [0:15];
  integer i;
  initial begin
    for (i = 0; i < 16; i = i + 1) mem[i] = 8'h00;
    dout = 0;
  end
  always @(posedge clk) begin
    if (we) mem[addr] <= din;
    dout <= mem[addr];
  end
endmodule
