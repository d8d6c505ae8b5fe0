module gray #(parameter W = 4) (input [W-1:0] binary, input [W-1:0] code, output [W-1:0] to_gray, output reg [W-1:0] to_binary);
  assign to_gray = binary ^ (binary >> 1);
  integer i;
  always @* begin
    to_binary[W-1] = code[W-1];
    for (i = W - 2; i >= 0; i = i - 1) to_binary[i] = to_binary[i+1] ^ code[i];
  end
endmodule
