module comparator(input [4:0] visitors, limit, output more, same, less);
  assign more = visitors > limit;
  assign same = visitors == limit;
  assign less = !(more || same);
endmodule
