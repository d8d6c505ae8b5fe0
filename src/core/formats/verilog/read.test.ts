import { compile } from '../../netlist/compile';
import type { RunOptions } from '../../simulate/run-options';
import { Rig } from '../../testing/rig';
import { readVerilog } from './read';

function read(source: string, module?: string) {
  const found = readVerilog(source, 'Test', { module });
  if (!found.ok) throw new Error(found.problem.message);
  return found.value;
}

function rig(source: string, options: RunOptions = {}): Rig {
  const { sheets } = read(source);
  const made = new Rig(sheets[0]!, options, sheets);
  expect(made.netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
  return made;
}

test('gates with both styles of ports, vectors and any number of inputs', () => {
  const r = rig(`
    // Drive only while the key is turned, the bars are shut and the platform is clear.
    module interlock(key, bars, drive, warn);
      input key; input [2:0] bars;
      output drive, warn;
      wire shut, open;
      and  all (shut, bars[0], bars[1], bars[2]);
      and #(10, 8) g1 (drive, key, shut);
      not (open, shut);
      nand n1 (w, key, open);   // w is declared by its use
      not  n2 (warn, w);
    endmodule`);
  for (let bars = 0; bars < 8; bars++)
    for (let key = 0; key < 2; key++) {
      r.set({ key, bars });
      expect([r.number('drive'), r.number('warn')]).toEqual([+(key && bars === 7), +(key && bars !== 7)]);
    }
  const g1 = read('module t(input a, b, output y); and #(10, 8) g1(y, a, b); endmodule').sheets[0]!.parts.get(
    'g1',
  )!;
  expect(g1.params).toMatchObject({ delayRise: 10_000, delayFall: 8000 });
});

const expression = (text: string, width = 4) =>
  rig(`module t(input [3:0] a, b, input s, output [${width - 1}:0] y); assign y = ${text}; endmodule`);

test.each<[string, number, (a: number, b: number, s: number) => number]>([
  ['a & b | ~a & ~b', 4, (a, b) => ~(a ^ b) & 15],
  ['~(a ^ b)', 4, (a, b) => ~(a ^ b) & 15],
  ['a ~^ b', 4, (a, b) => ~(a ^ b) & 15],
  ['s ? a : b', 4, (a, b, s) => (s ? a : b)],
  ['{a[1:0], b[3:2]}', 4, (a, b) => ((a & 3) << 2) | (b >> 2)],
  ['{2{a[3], s}}', 4, (a, _, s) => (((a >> 3) << 1) | s) * 5],
  ['&a | ^b', 1, (a, b) => +(a === 15) | ((0x6996 >> b) & 1)],
  ['!a && (b || s)', 1, (a, b, s) => +(!a && (b > 0 || s > 0))],
  ['a == b', 1, (a, b) => +(a === b)],
  ["~|a ? 4'hA : 4'd3", 4, (a) => (a === 0 ? 10 : 3)],
  ['a[b[1:0]]', 1, (a, b) => (a >> (b & 3)) & 1],
  ['~a', 6, (a) => ~a & 63],
  ["{1'b1, a} ^ b", 5, (a, b) => (16 | a) ^ b],
])('assign y = %s', (text, width, expected) => {
  const r = expression(text, width);
  for (let row = 0; row < 512; row++) {
    const [a, b, s] = [row & 15, (row >> 4) & 15, row >> 8];
    expect(r.set({ a, b, s }).number('y')).toBe(expected(a, b, s));
  }
});

test.each<[string, number, (a: number, b: number, s: number) => number]>([
  ['a + b', 4, (a, b) => (a + b) & 15],
  ['a + b', 6, (a, b) => a + b],
  ['a - b', 4, (a, b) => (a - b) & 15],
  ['a - b', 6, (a, b) => (a - b) & 63],
  ['a + 1', 4, (a) => (a + 1) & 15],
  ['-a', 4, (a) => -a & 15],
  ['a + b - s', 5, (a, b, s) => (a + b - s) & 31],
  ['{3{a < b}} ^ {2{a >= b}}', 3, (a, b) => (a < b ? 7 : 0) ^ (a >= b ? 3 : 0)],
  ['(a > b) + (a <= b) + (a <= 3)', 2, (a) => 1 + +(a <= 3)],
  ['a << 2', 6, (a) => a << 2],
  ['(a + b) >> 1', 4, (a, b) => ((a + b) & 15) >> 1],
])('assign y = %s, of %i bits', (text, width, expected) => {
  const r = expression(text, width);
  for (let row = 0; row < 512; row++) {
    const [a, b, s] = [row & 15, (row >> 4) & 15, row >> 8];
    expect(r.set({ a, b, s }).number('y')).toBe(expected(a, b, s));
  }
});

test('a case chooses by its labels, several of them too, and else by its default', () => {
  const r = rig(`
    module desk(input [1:0] op, input [3:0] a, b, output reg [3:0] y, output reg twice);
      always @* begin
        twice = 1'b0;
        case (op)
          2'b00: y = a + b;
          2'b01: y = a - b;
          2'b10, 2'b11: begin y = a & b; twice = 1'b1; end
        endcase
      end
    endmodule`);
  expect(r.netlist.storage).toHaveLength(0);
  expect(r.set({ a: 9, b: 5, op: 0 }).number('y')).toBe(14);
  expect(r.set({ op: 1 }).number('y')).toBe(4);
  expect([r.set({ op: 2 }).number('y'), r.number('twice')]).toEqual([1, 1]);
  expect(r.set({ op: 3 }).number('y')).toBe(1);
  const detector = rig(`
    module found(input clk, rst, d, output hit);
      reg [1:0] s;
      always @(posedge clk or posedge rst)
        if (rst) s <= 2'd0;
        else case (s)
          2'd0: s <= d ? 2'd1 : 2'd0;
          2'd1: s <= d ? 2'd1 : 2'd2;
          2'd2: s <= d ? 2'd3 : 2'd0;
          default: s <= d ? 2'd1 : 2'd2;
        endcase
      assign hit = s == 2'd3;
    endmodule`);
  detector.set({ rst: 1 }).set({ rst: 0 });
  const hits = [...'1011010110'].map((d) => detector.pulse('clk', { d: Number(d) }).word('hit')).join('');
  // It finds 101, also where two of them share a 1.
  expect(hits).toBe('0010010100');
});

test('instances by name and by position, with parameters, copies for each set of them', () => {
  const lesson = read(`
    module full(input a, b, ci, output s, co);
      assign s = a ^ b ^ ci;
      assign co = a & b | ci & (a ^ b);
    endmodule
    module stage #(parameter W = 2) (input [W-1:0] a, b, input ci, output [W-1:0] s, output co);
      localparam TOP = W - 1;
      wire [W:0] c;
      assign c[0] = ci;
      full f0 (a[0], b[0], c[0], s[0], c[1]);
      full f1 (.a(a[TOP]), .b(b[TOP]), .ci(c[1]), .s(s[TOP]), .co(c[2]));
      assign co = c[2];
    endmodule
    module adder(input [3:0] x, y, output [4:0] sum);
      wire mid;
      stage low (.a(x[1:0]), .b(y[1:0]), .ci(1'b0), .s(sum[1:0]), .co(mid));
      stage #(.W(2)) high (x[3:2], y[3:2], mid, sum[3:2], sum[4]);
    endmodule`);
  expect(lesson.sheets.map((s) => s.name)).toEqual(['adder', 'stage', 'full', 'stage 2']);
  const r = new Rig(lesson.sheets[0]!, {}, lesson.sheets);
  for (let x = 0; x < 16; x++) for (let y = 0; y < 16; y++) expect(r.set({ x, y }).number('sum')).toBe(x + y);
});

test('registers with enable and asynchronous clear or set', () => {
  const r = rig(
    `
    module counter(input clk, rst_n, en, output reg [3:0] q, output reg odd);
      initial q = 4'd5;
      always @(posedge clk or negedge rst_n)
        if (!rst_n) begin
          q <= 4'b0000;
          odd <= 1'b1;
        end else if (en) begin
          q <= {q[2:0], ~q[3]};
          odd <= ~odd;
        end
    endmodule`,
    { inputs: new Map([['p_rst_n', 1]]) },
  );
  expect(r.number('q')).toBe(5);
  expect(r.set({ rst_n: 0 }).word('q') + r.word('odd')).toBe('00001');
  r.set({ rst_n: 1, en: 1 });
  const seen = Array.from({ length: 5 }, () => r.pulse('clk').word('q'));
  expect(seen).toEqual(['0001', '0011', '0111', '1111', '1110']);
  expect(r.word('odd')).toBe('0');
  expect(r.pulse('clk', { en: 0 }).word('q')).toBe('1110');
});

test('set before clear, both asynchronous, on a falling edge', () => {
  const r = rig(`
    module f(input c, s, r, d, output reg q);
      always @(negedge c, posedge s, posedge r)
        if (s) q <= 1; else if (r) q <= 0; else q <= d;
    endmodule`);
  expect(r.set({ s: 1, r: 1 }).word('q')).toBe('1');
  expect(r.set({ s: 0 }).word('q')).toBe('0');
  r.set({ r: 0, d: 1, c: 1 });
  expect(r.set({ c: 0 }).word('q')).toBe('1');
});

test('level-sensitive blocks: a latch where something keeps its value, else plain logic', () => {
  const latch = rig('module l(input g, d, output reg q); always @* if (g) q = d; endmodule');
  expect(latch.set({ g: 1, d: 1 }).word('q')).toBe('1');
  expect(latch.set({ g: 0 }).set({ d: 0 }).word('q')).toBe('1');
  const logic = rig(
    "module m(input a, b, output reg y, output reg [1:0] z); always @(a or b) begin y = a & b; z = {y, a}; if (b) z = 2'b11; end endmodule",
  );
  for (let row = 0; row < 4; row++) {
    const [a, b] = [row >> 1, row & 1];
    logic.set({ a, b });
    expect(logic.number('z')).toBe(b ? 3 : a);
  }
});

test('three-state gates and floating branches share a wire', () => {
  const r = rig(`
    module bus(input [1:0] a, b, input sel, output [1:0] y, output z);
      assign y = sel ? a : 2'bzz;
      assign y = sel ? {2{1'bz}} : b;
      bufif1 (z, a[0], sel);
      notif0 (z, b[0], sel);
      pullup (z);
    endmodule`);
  expect(r.set({ a: 2, b: 1, sel: 1 }).number('y')).toBe(2);
  expect(r.set({ sel: 0 }).number('y')).toBe(1);
  expect(r.word('z')).toBe('0');
});

test('choices within choices float where the last branch does', () => {
  const r = rig(`
    module nest(input e1, e2, a, b, output y, w);
      assign y = e1 ? a : e2 ? b : 1'bz;
      assign w = e1 ? 1'bz : e2 ? a : b;
    endmodule`);
  for (let row = 0; row < 16; row++) {
    const [e1, e2, a, b] = [row >> 3, (row >> 2) & 1, (row >> 1) & 1, row & 1] as const;
    r.set({ e1, e2, a, b });
    expect([row, r.word('y'), r.word('w')]).toEqual([
      row,
      e1 ? `${a}` : e2 ? `${b}` : 'Z',
      e1 ? 'Z' : e2 ? `${a}` : `${b}`,
    ]);
  }
  // Two of them share a wire.
  const shared = rig(`
    module two(input [1:0] s, input a, b, c, output y);
      assign y = s == 0 ? a : s == 1 ? b : 1'bz;
      assign y = s[1] ? c : 1'bz;
    endmodule`);
  for (const [s, y] of [
    [0, '1'],
    [1, '0'],
    [2, '1'],
    [3, '1'],
  ] as const)
    expect(shared.set({ s, a: 1, b: 0, c: 1 }).word('y')).toBe(y);
});

test('delays: none is 0, the unit is 1 ns or what the file says', () => {
  const params = (source: string) =>
    [...read(source).sheets[0]!.parts.values()].find((p) => p.kind === 'and')!.params;
  expect(params('module t(input a, b, output y); and (y, a, b); endmodule').delayRise).toBe(0);
  expect(
    params('`timescale 10ps/1ps\nmodule t(input a, b, output y); and #3 (y, a, b); endmodule').delayRise,
  ).toBe(30);
  expect(params('module t(input a, b, output y); assign #(1:2:3, 4) y = a & b; endmodule')).toMatchObject({
    delayRise: 2000,
    delayFall: 4000,
  });
});

test('descending and ascending ranges, part by part, and wide vectors', () => {
  const r = rig(`
    module t(input [0:3] a, output [3:0] y, output [39:0] w);
      assign y[3:2] = a[0:1];
      assign {y[1], y[0]} = a[2:3];
      assign w = {10{~a}};
    endmodule`);
  expect(r.set({ a: '1001' }).word('y')).toBe('1001');
  expect(r.word('w')).toBe('0110'.repeat(10));
});

test('a root is found, or asked for', () => {
  const two =
    'module a(input x, output y); assign y = x; endmodule module b(input x, output y); not (y, x); endmodule';
  expect(readVerilog(two, 'T')).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('a, b') },
  });
  expect(read(two, 'b').sheets[0]!.name).toBe('b');
  expect(compile(read(two, 'a').sheets[0]!).inputs.map((t) => t.name)).toEqual(['x']);
});

test.each<[string, string, RegExp]>([
  ['nothing', '', /line 1, column 1: a module is expected/],
  ['no semicolon', 'module t(input a)\nendmodule', /line 2, column 1: “;” is expected, not “endmodule”/],
  ['no end', 'module t(input a);', /line 1, column 19: “endmodule” is expected, not the end of the file/],
  ['an open comment', 'module t(); /* and so on', /column 13: a comment begins here and never ends/],
  ['a strange character', 'module t(); € endmodule', /the character “€” is not part of Verilog/],
  [
    'a case without end',
    'module t(input a, output reg y); always @* case (a) 1: y = 0; endmodule',
    /“endcase”|endmodule/,
  ],
  [
    'a primitive',
    'primitive p(y, a); endprimitive',
    /a primitive of one’s own is outside .*: write it as a module/,
  ],
  [
    'an unknown module',
    'module t(input a);\n  nothing n (a);\nendmodule',
    /line 2, column 3: there is no module called nothing/,
  ],
  [
    'an unknown port',
    'module u(input a); endmodule module t(input a); u x (.b(a)); endmodule',
    /u has no port b/,
  ],
  ['an unknown signal', 'module t(output y); assign y = q; endmodule', /column 32: q is not declared/],
  [
    'a bit past the end',
    'module t(input [3:0] a, output y); assign y = a[4]; endmodule',
    /a has no bit 4: it is \[3:0\]/,
  ],
  [
    'a module that holds itself',
    'module t(input a); u x(a); endmodule module u(input a); t x(a); endmodule',
    /used by each other: t, u/,
  ],
  [
    'both kinds of assignment in one block',
    'module t(input c, a, output reg q); always @(posedge c) begin q = a; q <= a; end endmodule',
    /assigned with “=” and with “<=” in one block/,
  ],
  ['two of one name', 'module t(); endmodule module t(); endmodule', /two modules called t/],
  ['too few terminals', 'module t(input a); and (a); endmodule', /and has 2 or more terminals, not 1/],
  ['a port without direction', 'module t(a); endmodule', /port a of t is neither input nor output/],
  [
    'an edge that disagrees',
    'module t(input c, r, output reg q); always @(posedge c or posedge r) if (!r) q <= 0; else q <= 1; endmodule',
    /do not agree on the level/,
  ],
  [
    'a directive',
    '`include "x.v"\nmodule t(); endmodule',
    /line 1, column 1: there is no file x.v beside this one/,
  ],
  [
    'a delay that is a signal',
    'module t(input a, output y); buf #a (y, a); endmodule',
    /a is not a parameter/,
  ],
  ['endless width', 'module t(output y); wire [99999:0] a; endmodule', /a has 100000 bits/],
])('refuses %s with line, column and what was expected', (_, source, problem) => {
  const found = readVerilog(source, 'Test');
  expect(found.ok ? '' : found.problem.message).toMatch(problem);
});

test('modules that do not use each other are read as sheets side by side where that is wanted', () => {
  const text =
    'module one(input a, output y); inv i(a, y); endmodule module two(input a, output y); buf(y, a); endmodule ' +
    'module inv(input a, output y); not(y, a); endmodule';
  const all = readVerilog(text, 'Two', { everyRoot: true });
  expect(all.ok && all.value.sheets.map((s) => s.name)).toEqual(['one', 'inv', 'two']);
  const one = readVerilog(text, 'Two', { everyRoot: true, module: 'two' });
  expect(one.ok && one.value.sheets.map((s) => s.name)).toEqual(['two']);
});

describe('input that is made to be slow or deep', () => {
  const said = (text: string) => {
    const read = readVerilog(text, 'Slow');
    return read.ok ? 'read' : read.problem.message;
  };
  const body = (items: string) => `module m(input a, output y);\n${items}\nendmodule\n`;

  test('a chain of an operator in which brackets change nothing may be long', () => {
    expect(said(body(`assign y = ${Array(9000).fill('a').join(' ^ ')};`))).toBe('read');
  });

  test('comments and lines may be as long as they like', () => {
    expect(said(body('assign y = a;') + '//x\n'.repeat(200_000))).toBe('read');
    expect(said(body(Array.from({ length: 20_000 }, (_, i) => `wire w${i} = a;`).join(' ')))).toBe('read');
  });

  test('many drivers of one net, many ports', () => {
    expect(said(body('not (y, a);\n'.repeat(5000)))).toBe('read');
    const ports = Array.from({ length: 5000 }, (_, i) => `input p${i}`).join(', ');
    expect(said(`module m(${ports}, output y); assign y = p0; endmodule`)).toBe('read');
  });

  test.each([
    [
      'cases',
      body(
        `reg q; always @(*) case (a) ${Array.from({ length: 9000 }, (_, i) => `${i}: q = a;`).join(' ')} endcase`,
      ),
      /a chain of more than 400/,
    ],
    ['apostrophes', body(`assign y = a${"'".repeat(100_000)};`), /a number such as/],
    ['attributes', '(* '.repeat(100_000), /“\*\)” is expected/],
    [
      'chains in brackets',
      body(`assign y = ${'('.repeat(300)}a${' + a)'.repeat(300)}${' - a'.repeat(300)};`),
      /a chain of more than 400/,
    ],
  ])('is refused with the limit: %s', (_, text, reason) => {
    expect(said(text)).toMatch(reason);
  });
});

test('a gate may be called as the constants beside it are', () => {
  const source = `module t(input a, output y, z);
      and constant1(y, a, 1'b1);
      xor constant2(z, a, 1'b1);
    endmodule`;
  const kinds = [...read(source).sheets[0]!.parts.values()].map((part) => part.kind).sort();
  expect(kinds).toEqual(['and', 'constant', 'constant', 'port', 'port', 'port', 'xor']);
  const r = rig(source);
  for (const a of [0, 1]) {
    r.set({ a });
    expect([r.number('y'), r.number('z')]).toEqual([a, 1 - a]);
  }
});
