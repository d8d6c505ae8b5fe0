`define LIMIT 3
module debounce(input clk, rst, noisy, output reg clean);
  reg [1:0] count;
  initial {clean, count} = 0;
  always @(posedge clk)
    if (rst) begin count <= 0; clean <= 0; end
    else if (noisy == clean) count <= 0;
    else if (count == `LIMIT) begin clean <= noisy; count <= 0; end
    else count <= count + 1;
endmodule
