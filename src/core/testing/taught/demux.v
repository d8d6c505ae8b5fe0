module demux(input in, input [1:0] gate, output reg [3:0] out);
  always @* begin
    out = 4'b0000;
    out[gate] = in;
  end
endmodule
