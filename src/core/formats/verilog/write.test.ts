import fc from 'fast-check';
import { emptyLesson, type Lesson } from '../../circuit/lesson';
import type { Params, Sheet } from '../../circuit/sheet';
import { prove } from '../../logic/equivalence/prove-sequences';
import { compile } from '../../netlist/compile';
import { CATALOGUE, findKind } from '../../parts/catalogue';
import { LOGIC_PACKAGES, PACKAGES } from '../../parts/packages';
import { partOf, Rig, sheetAround, sheetOfParts } from '../../testing/rig';
import { readVerilog } from './read';
import { verilogLines, writeVerilog } from './write';

const lessonOf = (...sheets: Sheet[]): Lesson => ({ ...emptyLesson('test-lesson', 'Test'), sheets });

function again(lesson: Lesson): Lesson {
  const text = writeVerilog(lesson, lesson.sheets[0]!);
  const read = readVerilog(text, 'Again');
  if (!read.ok) throw new Error(`${read.problem.message}\n${text}`);
  return read.value;
}

const rigOf = (lesson: Lesson) => new Rig(lesson.sheets[0]!, {}, lesson.sheets);

/** Puts the same words to both and holds that they answer the same, word by word. */
function same(lesson: Lesson, letters = '01'): void {
  const other = again(lesson);
  const names = rigOf(lesson).netlist.inputs.map((t) => [t.name, t.nets.length] as const);
  const word = (width: number) =>
    fc.array(fc.constantFrom(...letters), { minLength: width, maxLength: width }).map((w) => w.join(''));
  const step = fc.record(Object.fromEntries(names.map(([name, width]) => [name, word(width)])));
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 24 }), (steps) => {
      const [a, b] = [rigOf(lesson), rigOf(other)];
      // One after the other, so no two edges coincide.
      for (const words of steps)
        for (const [name, bits] of Object.entries(words)) {
          a.set({ [name]: bits });
          b.set({ [name]: bits });
          for (const { name: out } of a.netlist.outputs)
            expect([out, b.word(out)]).toEqual([out, a.word(out)]);
        }
    }),
    { numRuns: 12 },
  );
}

const VARIANTS: Record<string, readonly Params[]> = {
  and: [{ inputs: 3 }, { width: 3, inverted: [0] }],
  xor: [{ inputs: 4, inverted: [1, 2] }],
  nor: [{ inputs: 16 }],
  not: [{ width: 2 }],
  buffer: [{ width: 3 }],
  tri: [{ enable: 'low' }, { width: 4 }],
  slice: [
    { width: 8, high: 5, low: 2 },
    { width: 4, high: 1, low: 1 },
  ],
  join: [{ widths: [2, 1, 3] }],
  extend: [
    { from: 3, to: 7, by: 'sign' },
    { from: 1, to: 4 },
  ],
  dff: [
    { edge: 'falling', preset: 'low', clear: 'high' },
    { enable: 'yes', powerUp: '1' },
  ],
  tff: [{ clear: 'low' }],
  jkff: [{ preset: 'high', clear: 'high', enable: 'yes' }],
  srff: [{ edge: 'falling' }],
  dlatch: [
    { gate: 'low', clear: 'high' },
    { preset: 'low', clear: 'low' },
  ],
  srlatch: [{ enable: 'yes' }],
  register: [{ width: 8, enable: 'yes', clear: 'low' }],
  shift: [{ width: 4, direction: 'both', load: 'yes', clear: 'high' }],
  counter: [{ width: 4, modulo: 10, direction: 'both', load: 'yes', enable: 'yes', clear: 'high' }],
  rom: [{ address: 3, width: 5, content: [3, 1, 4, 1, 5, 9, 2, 6] }],
  ram: [{ address: 2, width: 3, content: [1, 2] }],
  adder: [{ width: 5 }],
  subtractor: [{ width: 3 }],
  comparator: [{ width: 3, numbers: 'signed' }],
  mux: [{ select: 2, width: 3 }],
  demux: [{ select: 2 }],
  decoder: [{ select: 3, enable: 'yes' }],
  encoder: [{ select: 3 }],
  package: [
    ...PACKAGES.map((type) => LOGIC_PACKAGES.find((one) => one.type === type)!)
      // What it pulls up and is pulled to 0 from outside has no counterpart in a module of gates.
      .filter(({ type }) => !type.pins.some(({ use }) => use === 'both'))
      .map(({ name }) => ({ type: name })),
    { type: '74HC08', unit: 'b' },
    { type: '4013', unit: 'a' },
  ],
};
/** Parts that only drive, only show, or only mean something beside others. */
const ELSEWHERE = [
  'switch',
  'button',
  'constant',
  'clock',
  'stimulus',
  'lamp',
  'number',
  'digit',
  'segments',
  'probe',
  'note',
  'table',
  'truth',
  'formula',
  'port',
  'label',
  'pull',
  'block',
];
const STATEFUL = new Set(
  CATALOGUE.filter(
    (k) => k.kind === 'package' || (['Storage', 'Registers'].includes(k.family) && k.kind !== 'rom'),
  ).map((k) => k.kind),
);

test('every kind of part is tried, here or below', () => {
  expect([...Object.keys(VARIANTS), ...ELSEWHERE, 'or', 'nand', 'xnor'].sort()).toEqual(
    CATALOGUE.map((k) => k.kind).sort(),
  );
});

describe.each([...Object.keys(VARIANTS), 'or', 'nand', 'xnor'])('%s', (kind) => {
  test.each([{}, ...(VARIANTS[kind] ?? [])].map((p) => [JSON.stringify(p), p] as const))(
    'behaves the same after a trip through Verilog: %s',
    (_, params) => same(lessonOf(sheetAround(kind, params)), STATEFUL.has(kind) ? '01' : '01X'),
  );
});

/*
 * The block that is written for a flip-flop with preset and clear, by the rules of IEEE Std 1364 for events: it wakes at an
 * edge of the clock, of the clear, or of `set`, and then looks at their levels.
 */
test('a preset that outlasts the clear acts, in the run and in the written block alike', () => {
  const lesson = lessonOf(sheetAround('dff', { preset: 'high', clear: 'high' }));
  const text = writeVerilog(lesson, lesson.sheets[0]!);
  expect(text).toMatch(/wire set = (\w+) & ~(\w+);\n\s+always @\(posedge \w+ or posedge \2 or posedge set\)/);
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('D', 'C', 'PRE', 'CLR'), { minLength: 1, maxLength: 60 }),
      (turned) => {
        const rig = rigOf(lesson);
        const is: Record<string, number> = { D: 0, C: 0, PRE: 0, CLR: 0 };
        let q = 0;
        for (const name of turned) {
          const was: Record<string, number> = { ...is, set: is.PRE! & ~is.CLR! };
          is[name] = 1 - is[name]!;
          const set = is.PRE! & ~is.CLR!;
          const isAwake = is.C! > was.C! || is.CLR! > was.CLR! || set > was.set!;
          if (isAwake) q = is.CLR ? 0 : set ? 1 : is.D!;
          rig.set({ [name]: is[name]! });
          expect([turned, rig.word('Q')]).toEqual([turned, String(q)]);
        }
      },
    ),
  );
});

test('sources, displays, labels and pulls', () => {
  const port = (id: string, direction: 'in' | 'out', width = 1, rank = 0) =>
    partOf('port', id, { direction, width }, rank);
  const sheet = sheetOfParts(
    [
      partOf('switch', 's', { width: 3 }, 0, 'Level'),
      partOf('button', 'b', {}, 1, 'and'),
      partOf('constant', 'c', { value: 5, unknown: 2, width: 3 }),
      partOf('clock', 'k', {}, 2, 'Clock'),
      partOf('label', 'l1', { width: 3 }, 0, 'Bus'),
      partOf('label', 'l2', { width: 3 }, 0, 'Bus'),
      partOf('xor', 'x', { width: 3 }),
      partOf('tri', 't'),
      partOf('pull', 'p', { to: 'down' }),
      partOf('lamp', 'm', { width: 3 }, 3, 'Lamps on top'),
      partOf('number', 'n', { width: 3 }, 4, 'N'),
      port('Q', 'out', 1, 5),
    ],
    ['s.Y-l1.A', 'l2.A-x.A', 'c.Y-x.B', 'x.Y-m.A', 's.Y-n.A', 'b.Y-t.A', 'k.Y-t.EN', 't.Y-Q.A', 'p.A-Q.A'],
  );
  const lesson = lessonOf(sheet);
  const [a, b] = [rigOf(lesson), rigOf(again(lesson))];
  for (let row = 0; row < 32; row++) {
    const values = { Level: row & 7, and: (row >> 3) & 1, Clock: row >> 4 };
    a.set(values);
    b.set(values);
    expect(['Lamps_on_top', 'N', 'Q'].map((n) => b.word(n))).toEqual(
      ['Lamps on top', 'N', 'Q'].map((n) => a.word(n)),
    );
  }
});

test('a lesson of blocks is a module for each sheet, and reads well', () => {
  const port = (id: string, direction: 'in' | 'out', rank = 0) => partOf('port', id, { direction }, rank);
  const half = sheetOfParts(
    [
      port('A', 'in'),
      port('B', 'in', 1),
      partOf('xor', 'x'),
      partOf('and', 'a', { delayRise: 3000, delayFall: 2000 }),
      port('S', 'out'),
      port('C', 'out', 1),
    ],
    ['A.Y-x.A', 'B.Y-x.B', 'A.Y-a.A', 'B.Y-a.B', 'x.Y-S.A', 'a.Y-C.A'],
    'half',
  );
  const block = (id: string) =>
    partOf('block', id, { sheet: 'half', title: 'half', inputs: 'A, B', outputs: 'S, C' });
  const full = sheetOfParts(
    [
      port('A', 'in'),
      port('B', 'in', 1),
      port('CI', 'in', 2),
      block('h1'),
      block('h2'),
      partOf('or', 'o'),
      port('S', 'out'),
      port('CO', 'out', 1),
    ],
    ['A.Y-h1.A', 'B.Y-h1.B', 'h1.S-h2.A', 'CI.Y-h2.B', 'h2.S-S.A', 'h1.C-o.A', 'h2.C-o.B', 'o.Y-CO.A'],
    'full',
  );
  const lesson = lessonOf(full, half);
  expect(writeVerilog(lesson, full)).toBe(`// Test
\`timescale 1ns / 1ps

module full (
  input wire A,
  input wire B,
  input wire CI,
  output wire S,
  output wire CO
);
  wire h1_S;
  wire h1_C;
  wire h2_C;
  half h1 (.A(A), .B(B), .S(h1_S), .C(h1_C));
  half h2 (.A(h1_S), .B(CI), .S(S), .C(h2_C));
  or #(10) o (CO, h1_C, h2_C);
endmodule

module half (
  input wire A,
  input wire B,
  output wire S,
  output wire C
);
  xor #(14) x (S, A, B);
  and #(3, 2) a (C, A, B);
endmodule
`);
  same(lesson);
  expect(again(lesson).sheets.map((s) => s.name)).toEqual(['full', 'half']);
  expect([...again(lesson).sheets[1]!.parts.values()].find((p) => p.id === 'a')!.params).toMatchObject({
    delayRise: 3000,
    delayFall: 2000,
  });
});

test('names that Verilog does not have are escaped and come back', () => {
  const sheet = sheetAround('dff');
  expect(writeVerilog(lessonOf(sheet), sheet)).toContain("output wire \\Q' ");
  expect(rigOf(again(lessonOf(sheet))).netlist.outputs.map((t) => t.name)).toEqual(['Q', "Q'"]);
  expect(findKind('dff')!.name).toBe('D flip-flop');
});

test('a sheet without labels is proved against its own Verilog', () => {
  const sheet = sheetOfParts(
    [
      partOf('switch', 'switch1', {}, 0, ''),
      partOf('switch', 'switch2', {}, 1, ''),
      partOf('nand', 'g'),
      partOf('lamp', 'l', {}, 2, ''),
      partOf('lamp', 'm', {}, 3, 'Bars down'),
    ],
    ['switch1.Y-g.A', 'switch2.Y-g.B', 'g.Y-l.A', 'switch1.Y-m.A'],
  );
  const lesson = lessonOf(sheet);
  const proof = prove(compile(sheet), compile(again(lesson).sheets[0]!));
  expect(proof).toMatchObject({ ok: true, value: { verdict: 'equivalent' } });
});

test('each line of the sheet’s own module says its part; those of a note, of heads and of blocks say none', () => {
  const parts = [partOf('switch', 'Key'), partOf('not', 'not1'), partOf('lamp', 'Lit'), partOf('note', 'n1')];
  const sheet = sheetOfParts(parts, ['Key.Y-not1.A', 'not1.Y-Lit.A']);
  const lines = verilogLines(lessonOf(sheet), sheet);
  expect(lines.map((l) => `${l.text}\n`).join('')).toBe(writeVerilog(lessonOf(sheet), sheet));
  const said = lines.filter((l) => l.part !== undefined).map((l) => `${l.part}: ${l.text.trim()}`);
  expect(said).toEqual([
    'Key: input wire Key,',
    'Lit: output wire Lit',
    expect.stringMatching(/^not1: not .*\(Lit, Key\);$/),
  ]);
});
