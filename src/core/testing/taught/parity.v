module parity #(parameter ODD = 0) (input [7:0] data, output p);
  function odd_parity;
    input [7:0] word;
    integer k;
    begin
      odd_parity = 1'b0;
      for (k = 0; k < 8; k = k + 1) odd_parity = odd_parity ^ word[k];
    end
  endfunction
  assign p = ODD ? ~odd_parity(data) : odd_parity(data);
endmodule
