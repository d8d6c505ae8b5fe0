module half(input a, b, output s, c);
  xor (s, a, b);
  and (c, a, b);
endmodule
module half_full_adder(input a, b, cin, output sum, cout);
  wire s0, c0, c1;
  half h0(.a(a), .b(b), .s(s0), .c(c0));
  half h1(.a(s0), .b(cin), .s(sum), .c(c1));
  or (cout, c0, c1);
endmodule
