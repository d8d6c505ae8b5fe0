module task_swap(input [3:0] a, b, c, output reg [3:0] least, middle, most);
  task order(inout [3:0] x, inout [3:0] y);
    reg [3:0] t;
    if (x > y) begin
      t = x;
      x = y;
      y = t;
    end
  endtask
  always @* begin
    least = a; middle = b; most = c;
    order(least, middle);
    order(middle, most);
    order(least, middle);
  end
endmodule
