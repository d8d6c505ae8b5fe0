import fc from 'fast-check';
import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { mutated } from '../testing/mutations';
import { sheetAround } from '../testing/rig';
import { interlock } from '../testing/sketch';
import type { Result } from '../values/result';
import { readStimulus } from './csv';
import { readLesson } from './lesson-file';
import { readVcd, signalsOf, writeVcd } from './vcd';
import { readVerilog } from './verilog/read';
import { writeLesson } from './write-lesson';

/** `npm run fuzz` feeds many more, with a watch on time and memory. */
const RUNS = 400;

const VERILOG = `
\`timescale 1ns / 1ps
module full(input a, b, ci, output s, co);
  xor #(14, 12) g1 (h, a, b);
  assign s = h ^ ci;
  assign co = a & b | ci & h ? 1'b1 : 1'b0;
endmodule
module top #(parameter W = 4, parameter T = W - 1) (input [T:0] x, y, input clk, rst_n, output reg [W:0] sum);
  wire [W:0] c; wire [T:0] s;
  assign c[0] = 1'b0; // carry
  full f0 (x[0], y[0], c[0], s[0], c[1]);
  full f1 (.a(x[1]), .b(y[1]), .ci(c[1]), .s(s[1]), .co(c[2]));
  full f2 (x[2], y[2], c[2], s[2], c[3]), f3 (x[3], y[3], c[3], s[3], c[4]);
  bufif1 (z, s[0], clk); pullup (z);
  always @(posedge clk or negedge rst_n)
    if (!rst_n) sum <= 5'd0; else if (x != y) sum <= #5 {c[W], s}; else sum <= {5{z}};
endmodule
`;
const lesson = interlock().lesson;
const counter = compile(sheetAround('counter', { width: 3 }));
const STIMULUS = 'time,C\n0,0\n10,1\n"20",0\n30.5,1\n40,x\n';

function dump(): string {
  const sheet = sheetAround('counter', { width: 3 });
  const netlist = compile(sheet);
  const run = new Run(netlist, { delays: 'parts' });
  const clock = netlist.inputs.find((t) => t.name === 'C')!.nets[0]!;
  for (let i = 1; i < 12; i++) {
    run.advance(i * 100_000);
    run.set([[clock, (i % 2) as 0 | 1]]);
  }
  return [...writeVcd(run.trace, signalsOf(netlist, sheet), run.time)].join('\n');
}

const READERS: readonly [
  name: string,
  text: string,
  words: readonly string[],
  read: (text: string) => unknown,
][] = [
  [
    'Verilog',
    VERILOG,
    [
      'module',
      'endmodule',
      'always',
      '[',
      ']',
      '{9{',
      '#(',
      "4'b",
      '(*',
      '/*',
      '"',
      '`x',
      '99999999',
      '\\',
      '<=',
      '__proto__',
      '-1',
      'W',
    ],
    (text) => {
      const read = readVerilog(text, 'Fuzz');
      if (read.ok) compile(read.value.sheets[0]!, read.value.sheets);
      return read;
    },
  ],
  [
    'dumps',
    dump(),
    ['$end', '$var', '#', 'b1', '$scope', '#-1', '#1e9', 'bx', '__proto__', '$dumpoff'],
    readVcd,
  ],
  [
    'stimuli',
    STIMULUS,
    [',', '"', '\n', '-5', '1e99', '0x', "4'b1", 'time', '__proto__', 'NaN'],
    (text) => readStimulus(text, counter),
  ],
  [
    'lessons',
    writeLesson(lesson),
    [
      '{',
      '}',
      '[',
      ']',
      '"__proto__":{"bad":1},',
      '"constructor":',
      'null',
      '1e999',
      '-1',
      '\\u0000',
      '"params":',
    ],
    readLesson,
  ],
];

describe.each(READERS)('mutated %s', (_, text, words, read) => {
  test('the text itself is read', () => {
    expect(read(text)).toMatchObject({ ok: true });
  });

  test('are read or refused with a reason: no crash, no hang, no prototype touched', () => {
    const before = JSON.stringify(Object.getOwnPropertyNames(Object.prototype));
    fc.assert(
      fc.property(mutated(text, words), (file) => {
        const found = read(file) as Result<unknown>;
        if (!found.ok) expect(found.problem.message).toMatch(/\S/);
      }),
      { numRuns: RUNS },
    );
    expect(JSON.stringify(Object.getOwnPropertyNames(Object.prototype))).toBe(before);
    expect(({} as { bad?: unknown }).bad).toBeUndefined();
  });
});
