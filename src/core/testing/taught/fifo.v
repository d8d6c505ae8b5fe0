module fifo #(parameter DEPTH = 4, W = 4, A = $clog2(DEPTH)) (
  input clk, rst, push, pop, input [W-1:0] din, output [W-1:0] dout, output full, empty);
  reg [W-1:0] mem [0:DEPTH-1];
  reg [A-1:0] wp, rp;
  reg [A:0] n;
  integer k;
  initial begin
    wp = 0; rp = 0; n = 0;
    for (k = 0; k < DEPTH; k = k + 1) mem[k] = 0;
  end
  assign full = (n == DEPTH);
  assign empty = (n == 0);
  assign dout = mem[rp];
  wire do_push = push & ~full, do_pop = pop & ~empty;
  always @(posedge clk)
    if (rst) begin wp <= 0; rp <= 0; n <= 0; end
    else begin
      if (do_push) begin mem[wp] <= din; wp <= wp + 1; end
      if (do_pop) rp <= rp + 1;
      n <= n + do_push - do_pop;
    end
endmodule
