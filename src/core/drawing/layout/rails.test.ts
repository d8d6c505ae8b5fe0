import fc from 'fast-check';
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

test('many wires that lead back go over rails: none over a part, none along another, the circuit the same', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 4, max: 8 }),
      fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { minLength: 40, maxLength: 60 }),
      (flops, gates) => {
        const given = feedback(flops, gates);
        const sheet = layOut(given);
        expectTidy(sheet);
        expect(looksJoined(sheet)).toEqual([]);
        expect(compile(sheet).nets).toBe(compile(given).nets);
        const above = [...sheet.wires.values()].filter(({ course }) => course.some(({ y }) => y < 0));
        expect(above.length).toBeGreaterThan(0);
      },
    ),
    { numRuns: 3 },
  );
});
