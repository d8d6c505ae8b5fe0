import fc from 'fast-check';
import { overlap } from '../../circuit/geometry';
import type { Part, PinEnd } from '../../circuit/sheet';
import { compile } from '../../netlist/compile';
import { roleOf } from '../../parts/catalogue';
import { randomDesign } from '../../testing/random-design';
import { courseOf, footprintOf, pinOf } from '../geometry/placement';
import { layOutLarge } from './large-sheet';

const designs = randomDesign({ storage: true, loops: true, blocks: true }, 60);

test('parts keep clear of each other, inputs stand first and outputs last in their order, and the circuit is the same', () => {
  fc.assert(
    fc.property(designs, (lesson) => {
      const [before, inner] = lesson.sheets as [(typeof lesson.sheets)[0], (typeof lesson.sheets)[0]];
      const after = layOutLarge(before);
      expect([...after.parts.keys()]).toEqual([...before.parts.keys()]);
      const boxes = [...after.parts.values()].map(footprintOf);
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) expect(overlap(a, b)).toBe(false);
      const declared = (role: string) =>
        [...after.parts.values()]
          .filter((part) => roleOf(part)?.role === role)
          .sort((a, b) => a.rank - b.rank);
      for (const role of ['input', 'output']) {
        const columns = new Map<number, Part[]>();
        for (const part of declared(role)) columns.set(part.at.x, [...(columns.get(part.at.x) ?? []), part]);
        for (const column of columns.values()) {
          const heights = column.map(({ at }) => at.y);
          expect(heights).toEqual([...heights].sort((a, b) => a - b));
        }
      }
      const lastColumn = Math.max(...[...after.parts.values()].map(({ at }) => at.x));
      for (const part of declared('output')) expect(lastColumn - part.at.x).toBeLessThan(20);
      const circuit = (sheet: typeof before) => {
        const { op, ins, nets, diagnostics } = compile(sheet, [inner]);
        return [op, ins, nets, diagnostics];
      };
      expect(circuit(after)).toEqual(circuit(before));
    }),
    { numRuns: 25 },
  );
});

test('each wire runs from pin to pin in straight lines, and leaves its driver to the right where it can', () => {
  fc.assert(
    fc.property(designs, (lesson) => {
      const sheet = layOutLarge(lesson.sheets[0]!);
      for (const wire of sheet.wires.values()) {
        const [from, to] = [wire.from, wire.to].map(
          (end) => pinOf(sheet, (end as PinEnd).part, (end as PinEnd).port)!,
        );
        const points = courseOf(sheet, wire);
        expect(points[0]).toEqual(from!.at);
        expect(points.at(-1)).toEqual(to!.at);
        for (const [i, p] of points.entries())
          if (i > 0) expect(p.x === points[i - 1]!.x || p.y === points[i - 1]!.y).toBe(true);
        if (to!.at.x > from!.at.x + 4) expect(wire.course[0]!.x).toBeGreaterThan(from!.at.x);
      }
    }),
    { numRuns: 25 },
  );
});
