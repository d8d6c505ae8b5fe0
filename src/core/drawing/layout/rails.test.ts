import fc from 'fast-check';
import type { Sheet } from '../../circuit/sheet';
import { compile } from '../../netlist/compile';
import { partOf, sheetOfParts } from '../../testing/rig';
import { expectTidy, looksJoined } from '../../testing/tidy-sheet';
import { layOut } from './lay-out';

/** Flip-flops that are led by gates, each of which reads a few of them: every output leads back. */
const feedback = (flops: number, gates: readonly (readonly [number, number])[]) => {
  const parts = [partOf('clock', 'c')];
  const joins: string[] = [];
  for (let i = 0; i < flops; i++) {
    parts.push(partOf('dff', `f${i}`), partOf('or', `d${i}`, { inputs: 8 }), partOf('lamp', `l${i}`));
    joins.push(`c.Y-f${i}.C`, `d${i}.Y-f${i}.D`, `f${i}.Q-l${i}.A`);
  }
  const used = new Map<number, number>();
  for (const [i, [a, b]] of gates.entries()) {
    const into = i % flops;
    const pin = used.get(into) ?? 0;
    used.set(into, pin + 1);
    parts.push(partOf('and', `g${i}`));
    joins.push(`f${a % flops}.Q-g${i}.A`, `f${b % flops}.Q'-g${i}.B`);
    if (pin < 8) joins.push(`g${i}.Y-d${into}.${'ABCDEFGH'[pin]}`);
  }
  return sheetOfParts(parts, joins);
};

/** A laid out sheet is tidy and is the circuit it was. @returns its wires that run above the drawing. */
const laidOut = (given: Sheet) => {
  const sheet = layOut(given);
  expectTidy(sheet);
  expect(looksJoined(sheet)).toEqual([]);
  expect(compile(sheet).nets).toBe(compile(given).nets);
  return [...sheet.wires.values()].filter(({ course }) => course.some(({ y }) => y < 0));
};

test('many wires that lead back go over rails: none over a part, none along another, the circuit the same', () => {
  const gates = Array.from({ length: 60 }, (_, i) => [(i * 5) % 8, (i * 3 + (i >> 3)) % 8] as const);
  expect(laidOut(feedback(8, gates)).length).toBeGreaterThan(8);
});

test('whichever wires lead back, with rails or without', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 4, max: 8 }),
      fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { minLength: 40, maxLength: 60 }),
      (flops, gates) => {
        laidOut(feedback(flops, gates));
      },
    ),
    { numRuns: 3, endOnFailure: true },
  );
});
