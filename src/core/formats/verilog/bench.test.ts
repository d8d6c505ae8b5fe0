import { compile } from '../../netlist/compile';
import { drivenBy, drivingOf } from '../../simulate/drive';
import { Run } from '../../simulate/run';
import { type Logic, letterOf } from '../../values/logic';
import { readVerilog } from './read';

const COUNTER = `
  module counter #(parameter MAX = 9) (input clk, rst, en, output reg [3:0] count);
    initial count = 0;
    always @(posedge clk) if (rst) count <= 0; else if (en) count <= count == MAX ? 0 : count + 1;
  endmodule
`;
const BENCH = `
  \`timescale 1ns/1ns
  module bench;
    reg clk = 0, rst = 1, en = 0;
    wire [3:0] count;
    integer wrong = 0;
    counter #(.MAX(3)) dut (.clk(clk), .rst(rst), .en(en), .count(count));
    always #5 clk = ~clk;
    task wants(input [3:0] wanted);
      if (count !== wanted) begin
        wrong = wrong + 1;
        $display("%0t: count is %0d, not %0d", $time, count, wanted);
      end
    endtask
    initial begin
      @(negedge clk) rst = 0; en = 1;
      repeat (5) @(negedge clk);
      wants(4'd1);
      wants(4'd7);
      #2 en = 0;
      #20 $display("%0d wrong, count %b %h", wrong, count, count);
      $finish;
    end
  endmodule
`;

function lesson(text: string) {
  const notes: string[] = [];
  const read = readVerilog(text, 'Bench', { tell: (note) => notes.push(note) });
  if (!read.ok) throw new Error(read.problem.message);
  return { ...read.value, notes };
}

test('a test bench becomes a stimulus of the circuit in it, with what it printed', () => {
  const { sheets } = lesson(COUNTER + BENCH);
  expect(sheets.map((s) => s.name)).toEqual(['counter 3']);
  const stimulus = drivingOf(sheets[0]!.time)!;
  expect(stimulus.name).toBe('bench');
  expect(stimulus.printed).toEqual([
    { time: 60_000, text: '60: count is 1, not 7' },
    { time: 82_000, text: '1 wrong, count 0001 1' },
  ]);
  expect(stimulus.until).toBe(82_000);
  const waves = Object.fromEntries(
    stimulus.inputs.map(({ part, wave }) => [part, [wave.pattern, wave.data || wave.step]]),
  );
  expect(waves).toEqual({
    p_clk: ['periodic', 10_000],
    p_rst: ['levels', '0ns 0x1, 10ns 0x0'],
    p_en: ['levels', '0ns 0x0, 10ns 0x1, 62ns 0x0'],
  });
  const netlist = drivenBy(compile(sheets[0]!, sheets), stimulus);
  const run = new Run(netlist, { delays: 'zero' });
  run.advance(stimulus.until!);
  const count = netlist.outputs.find((o) => o.name === 'count')!;
  expect(count.nets.map((net) => letterOf(run.values[net] as Logic)).join('')).toBe('1000');
});

test('a bench that never ends is stopped and says so; one that only goes round is refused', () => {
  const forever = COUNTER + BENCH.replace('$finish;', '');
  expect(lesson(forever).notes.join()).toMatch(/bench never ends with \$finish: it was stopped/);
  const round = readVerilog(`${COUNTER}${BENCH.replace('always #5', 'always')}`, 'Round');
  expect(round.ok ? '' : round.problem.message).toMatch(
    /line \d+, column \d+: the design goes on for ever within one instant/,
  );
});

test('two circuits in a bench, and a name inside that is not there, are told with their place', () => {
  const two = BENCH.replace('always #5', 'counter other(clk, rst, en, ); always #5');
  const told = (text: string) => {
    const read = readVerilog(COUNTER + text, 'Told');
    return read.ok ? '' : read.problem.message;
  };
  expect(told(two)).toMatch(/the test bench bench holds 2 circuits/);
  expect(told(BENCH.replace("wants(4'd7)", 'wants(dut.total)'))).toMatch(
    /line \d+, column \d+: dut.total is not declared/,
  );
  expect(told(BENCH.replace("wants(4'd7)", 'wants(dut.count)'))).toBe('');
});

test('formats of what is printed', () => {
  const printed = (statements: string) =>
    drivingOf(
      lesson(`${COUNTER} module bench; reg clk; wire [3:0] q; counter c(clk, 1'b0, 1'b1, q);
        reg [7:0] a; reg signed [7:0] s; reg [11:0] w; initial begin #1 a = 8'd5; s = -3; w = 12'bx0z; ${statements} end endmodule`)
        .sheets[0]!.time,
    )!.printed!.map(({ text }) => text);
  expect(printed('$display("%d|%0d|%h|%o|%b", a, a, a, a, a);')).toEqual(['  5|5|05|005|00000101']);
  expect(printed('$display("%d|%0d", s, s); $display(a, , s);')).toEqual(['  -3|-3', '  5   -3']);
  expect(printed('$display("%h %b %0d", w, w, w);')).toEqual(['xxX xxxxxxxxxx0z X']);
  expect(printed('$write("a"); $write("b\\n"); $display("%s %c %% %m", "ring", 8\'d65);')).toEqual([
    'ab',
    'ring A % bench',
  ]);
  expect(printed('$strobe("%0d", a); a = 9;')).toEqual(['9']);
});

test('latches that nobody may have meant are told', () => {
  const { notes } = lesson('module m(input a, b, output reg q);\n always @*\n  if (a) q = b;\nendmodule');
  expect(notes).toEqual(['line 3: q keeps its value where no branch assigns it: it became a latch']);
});

test('files are put in, macros replaced, and memories filled from files that are given', () => {
  const includes = new Map([
    ['sizes.vh', '`define WIDTH 4\n`define TOP(w) ((w) - 1)\n'],
    ['tune.hex', '// eight notes\n1 3 @4 f 0a\n'],
    ['full.v', 'module inc(input [3:0] a, output [3:0] y); assign y = a + 1; endmodule'],
  ]);
  const text =
    '`include "sizes.vh"\nmodule top(input [2:0] n, output [`TOP(`WIDTH):0] y, z);\n' +
    '  reg [`WIDTH-1:0] tune [0:7];\n  initial $readmemh("tune.hex", tune);\n  assign y = tune[n];\n  inc i(tune[n], z);\nendmodule';
  const read = readVerilog(text, 'Files', { includes });
  if (!read.ok) throw new Error(read.problem.message);
  expect(read.value.sheets.map((s) => s.name)).toEqual(['top', 'inc']);
  const rom = [...read.value.sheets[0]!.parts.values()].find((p) => p.kind === 'rom')!;
  expect(rom.params.content).toEqual(
    [1, 3, 15, 15, 15, 10, 15, 15].map((v, i) =>
      i === 4 ? 15 : [0, 1, 4, 5].includes(i) ? v : expect.any(Number),
    ),
  );
  const alone = readVerilog(text, 'Alone');
  expect(alone.ok ? '' : alone.problem.message).toBe(
    'line 1, column 1: there is no file sizes.vh beside this one: open both together',
  );
});
