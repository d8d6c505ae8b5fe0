module add_sub(input signed [3:0] a, b, input sub, output reg signed [3:0] y, output reg overflow);
  always @* begin
    if (sub) y = a - b; else y = a + b;
    overflow = (a[3] ^ y[3]) & ~(a[3] ^ b[3] ^ sub);
  end
endmodule
