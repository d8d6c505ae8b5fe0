module traffic_light(input clk, rst, waiting, output reg [2:0] road, walk);
  localparam GREEN = 2'd0, YELLOW = 2'd1, RED = 2'd2, BACK = 2'd3;
  reg [1:0] s;
  reg [3:0] t;
  initial begin s = GREEN; t = 0; end
  always @(posedge clk or posedge rst) begin
    if (rst) begin
      s <= GREEN;
      t <= 4'd0;
    end else begin
      t <= t + 1;
      case (s)
        GREEN:  if (waiting && t >= 4) begin s <= YELLOW; t <= 0; end
        YELLOW: if (t == 1) begin s <= RED; t <= 0; end
        RED:    if (t == 5) begin s <= BACK; t <= 0; end
        BACK:   if (t == 1) begin s <= GREEN; t <= 0; end
      endcase
    end
  end
  always @* begin
    road = 3'b100;
    walk = 3'b100;
    case (s)
      GREEN:  road = 3'b001;
      YELLOW: road = 3'b010;
      RED:    walk = 3'b001;
      BACK:   road = 3'b110;
    endcase
  end
endmodule
