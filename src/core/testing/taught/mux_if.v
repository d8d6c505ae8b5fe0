module mux_if(a, b, c, sel, y);
  input [2:0] a, b, c;
  input [1:0] sel;
  output [2:0] y;
  reg [2:0] y;
  always @(a or b or c or sel)
    if (sel == 2'd0) y = a;
    else if (sel == 2'd1) y = b;
    else y = c;
endmodule
