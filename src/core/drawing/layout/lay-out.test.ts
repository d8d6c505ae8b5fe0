import fc from 'fast-check';
import { overlap } from '../../circuit/geometry';
import type { Params, Sheet } from '../../circuit/sheet';
import { compile } from '../../netlist/compile';
import { randomSheet } from '../../testing/random-circuit';
import { randomDesign } from '../../testing/random-design';
import { partOf, sheetOfParts } from '../../testing/rig';
import { expectTidy, looksJoined } from '../../testing/tidy-sheet';
import { courseOf, footprintOf, pinOf } from '../geometry/placement';
import { layOut } from './lay-out';

const preferred = { storage: true, loops: true, blocks: true };

test('no part covers another, and the circuit stays the same', () => {
  fc.assert(
    fc.property(randomDesign(preferred, 14), (lesson) => {
      const [before, inner] = lesson.sheets as [Sheet, Sheet];
      const after = layOut(before);
      const boxes = [...after.parts.values()].map(footprintOf);
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) expect(overlap(a, b)).toBe(false);
      const compiled = (s: Sheet) => {
        const n = compile(s, [inner]);
        return [
          n.op.length,
          n.nets,
          n.inputs.map((t) => t.name),
          n.outputs.map((t) => t.name),
          n.diagnostics,
        ];
      };
      expect(compiled(after)).toEqual(compiled(before));
    }),
    { numRuns: 12 },
  );
});

test('wires go round the parts, and none looks joined to another', () => {
  fc.assert(
    fc.property(randomDesign({ storage: true, loops: false, blocks: true }, 10), (lesson) => {
      const sheet = layOut(lesson.sheets[0]!);
      expectTidy(sheet);
      expect(looksJoined(sheet)).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('where all runs from left to right, each wire is laid without a search, however many there are', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 6, gates: 60 }), (given) => {
      const sheet = layOut(given);
      expectTidy(sheet);
      expect(looksJoined(sheet)).toEqual([]);
    }),
    { numRuns: 60 },
  );
});

test('a wire that the others shut in is given a way: they are taken up and laid again after it', () => {
  const port = (id: string, width: number, rank: number, direction = 'in') =>
    partOf('port', id, { direction, width }, rank);
  const unnamed = (kind: string, id: string, params: Params = {}) => partOf(kind, id, params, 0, '');
  const block = { sheet: 'inner', title: 'inner', inputs: 'P, Q[3:0]', outputs: 'Y, Z[3:0]' };
  const parts = [
    ...[port('clk', 1, 0), port('a', 1, 1), port('b', 1, 2), port('m', 4, 3), port('n', 4, 4)],
    unnamed('mux', 'u5', { width: 4 }),
    unnamed('counter', 'u6', { width: 4, modulo: 11 }),
    unnamed('mux', 'u7', { width: 4 }),
    unnamed('slice', 'u8', { width: 4, high: 2, low: 2 }),
    unnamed('dff', 'u9'),
    unnamed('register', 'u10', { width: 4, enable: 'yes' }),
    unnamed('block', 'u11', block),
    unnamed('mux', 'u12', { width: 4 }),
    unnamed('nor', 'u13', { inputs: 3, inverted: [1] }),
    unnamed('block', 'u14', block),
    ...[port('y', 1, 100, 'out'), port('z', 1, 101, 'out'), port('w', 4, 102, 'out')],
  ];
  const joins =
    "n.Y-u5.D0 m.Y-u5.D1 b.Y-u5.S clk.Y-u6.C m.Y-u7.D0 n.Y-u7.D1 a.Y-u7.S n.Y-u8.A u6.CO-u9.D clk.Y-u9.C n.Y-u10.D u9.Q'-u10.EN clk.Y-u10.C b.Y-u11.P u7.Y-u11.Q n.Y-u12.D0 n.Y-u12.D1 a.Y-u12.S u9.Q'-u13.A u6.CO-u13.B u6.CO-u13.C u9.Q'-u14.P n.Y-u14.Q u14.Y-y.A u13.Y-z.A u11.Z-w.A";
  const sheet = layOut(sheetOfParts(parts, joins.split(' ')));
  expectTidy(sheet);
  expect(looksJoined(sheet)).toEqual([]);
});

test('signals run from left to right: inputs first in their order, outputs last', () => {
  const port = (id: string, direction: 'in' | 'out', rank: number) => partOf('port', id, { direction }, rank);
  const sheet = layOut(
    sheetOfParts(
      [
        port('Q', 'out', 9),
        partOf('nand', 'n2'),
        port('B', 'in', 2),
        partOf('nand', 'n1'),
        port('A', 'in', 1),
      ],
      ['A.Y-n1.A', 'B.Y-n1.B', 'n1.Y-n2.A', 'B.Y-n2.B', 'n2.Y-Q.A'],
    ),
  );
  const at = (id: string) => sheet.parts.get(id)!.at;
  expect(at('A').x).toBe(at('B').x);
  expect(at('A').y).toBeLessThan(at('B').y);
  expect(
    [at('A').x, at('n1').x, at('n2').x, at('Q').x].every((x, i, all) => i === 0 || x > all[i - 1]!),
  ).toBe(true);
  expectTidy(sheet);
});

describe('rows', () => {
  const places = (sheet: ReturnType<typeof layOut>, ids: readonly string[]) =>
    ids.map((id) => sheet.parts.get(id)!.at);
  function expectRow(sheet: ReturnType<typeof layOut>, ids: readonly string[]): void {
    const at = places(sheet, ids);
    expect(new Set(at.map((p) => p.y)).size).toBe(1);
    expect(at.map((p) => p.x)).toEqual([...at.map((p) => p.x)].sort((a, b) => a - b));
    expect(new Set(at.map((p) => p.x)).size).toBe(ids.length);
    expectTidy(sheet);
    expect(looksJoined(sheet)).toEqual([]);
  }
  const flops = ['f0', 'f1', 'f2', 'f3'];

  test('a twisted ring stands in a row, its clock below it, its last output led back', () => {
    const sheet = layOut(
      sheetOfParts(
        [partOf('clock', 'c'), ...flops.map((id) => partOf('dff', id))],
        [...flops.map((id) => `c.Y-${id}.C`), 'f0.Q-f1.D', 'f1.Q-f2.D', 'f2.Q-f3.D', "f3.Q'-f0.D"],
      ),
    );
    expectRow(sheet, flops);
  });

  test('a ripple counter is in the order in which it ripples, what clears it behind it', () => {
    const sheet = layOut(
      sheetOfParts(
        [
          partOf('nand', 'n'),
          partOf('clock', 'c'),
          ...[...flops].reverse().map((id) => partOf('tff', id, { clear: 'low', edge: 'falling' })),
        ],
        [
          'c.Y-f0.C',
          'f0.Q-f1.C',
          'f1.Q-f2.C',
          'f2.Q-f3.C',
          'f1.Q-n.A',
          'f3.Q-n.B',
          ...flops.map((id) => `n.Y-${id}.CLR`),
        ],
      ),
    );
    expectRow(sheet, flops);
    expect(sheet.parts.get('n')!.at.x).toBeGreaterThan(sheet.parts.get('f3')!.at.x);
  });

  test('a gate that reads what is on its left and right stands before the flip-flop that it leads to', () => {
    const sheet = layOut(
      sheetOfParts(
        [partOf('clock', 'c'), partOf('and', 'g'), ...flops.map((id) => partOf('tff', id))],
        [...flops.map((id) => `c.Y-${id}.C`), 'f0.Q-g.A', "f3.Q'-g.B", 'g.Y-f1.T', 'f1.Q-f2.T', 'f2.Q-f3.T'],
      ),
    );
    expectRow(sheet, flops);
    const [before, gate, after] = places(sheet, ['f0', 'g', 'f1']).map((p) => p.x);
    expect(gate).toBeGreaterThan(before!);
    expect(gate).toBeLessThan(after!);
  });
});

test('a loop is broken at storage, and an empty sheet stays one', () => {
  const sheet = layOut(
    sheetOfParts(
      [partOf('dff', 'f'), partOf('not', 'n'), partOf('clock', 'c')],
      ['c.Y-f.C', 'f.Q-n.A', 'n.Y-f.D'],
    ),
  );
  expect(sheet.parts.get('f')!.at.x).toBeLessThan(sheet.parts.get('n')!.at.x);
  const empty = sheetOfParts([], []);
  expect(layOut(empty)).toBe(empty);
});

test('a large sheet gets plain corners, quickly enough to be done at all', () => {
  const parts = [partOf('port', 'A', { direction: 'in' })];
  const joins: string[] = [];
  for (let i = 0; i < 3100; i++) {
    parts.push(partOf('not', `n${i}`));
    joins.push(`${i === 0 ? 'A' : `n${(i * 7) % i}`}.Y-n${i}.A`);
  }
  const sheet = layOut(sheetOfParts(parts, joins));
  for (const wire of sheet.wires.values()) {
    const points = courseOf(sheet, wire);
    expect(points[0]).toEqual(pinOf(sheet, (wire.from as { part: string }).part, 'Y')!.at);
    for (let i = 1; i < points.length; i++)
      expect(points[i]!.x === points[i - 1]!.x || points[i]!.y === points[i - 1]!.y).toBe(true);
  }
});
