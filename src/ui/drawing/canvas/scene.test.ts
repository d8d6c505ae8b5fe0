import type { Part, Sheet, Wire } from '@/core/circuit/sheet';
import { interlock } from '@/core/testing/sketch';
import { commonMove, draggedObjects } from './scene';

const { lesson } = interlock();
const from = lesson.sheets[0]!;
const by = { x: 3, y: -2 };
const along = <P extends { x: number; y: number }>({ x, y }: P) => ({ x: x + by.x, y: y + by.y });

/** The sheet with some parts elsewhere, and with the courses of some wires. */
function moved(parts: readonly string[], wires: readonly string[], change: Partial<Part> = {}): Sheet {
  return {
    ...from,
    parts: new Map(
      [...from.parts].map(([id, part]): [string, Part] =>
        parts.includes(id) ? [id, { ...part, at: along(part.at), ...change }] : [id, part],
      ),
    ),
    wires: new Map(
      [...from.wires].map(([id, wire]): [string, Wire] =>
        wires.includes(id) ? [id, { ...wire, course: wire.course.map(along) }] : [id, wire],
      ),
    ),
  };
}

const all = [...from.parts.keys()];
const wires = [...from.wires.keys()];
const moveTo = (to: Sheet) => commonMove(draggedObjects(from, to, null), to);

test('all that is dragged together has one move', () => {
  expect(moveTo(moved(all, wires))).toEqual(by);
  // And the same again for the same sheet.
  const to = moved(all, wires);
  const of = draggedObjects(from, to, null);
  expect(commonMove(of, to)).toBe(commonMove(of, to));
});

test('wires whose other end stays, a part that is turned, and one that goes its own way have none', () => {
  const [first, ...others] = all;
  // Its wires are drawn out.
  const drawnOut = wires.filter((id) => {
    const { from: a, to: b } = from.wires.get(id)!;
    return [a, b].some((end) => 'part' in end && end.part === first);
  });
  expect(drawnOut.length).toBeGreaterThan(0);
  expect(moveTo(moved([first!], drawnOut))).toBeNull();
  expect(moveTo(moved(all, wires, { turn: 1 }))).toBeNull();
  const apart = moved(others, wires);
  const part = from.parts.get(first!)!;
  const to = {
    ...apart,
    parts: new Map(apart.parts).set(first!, { ...part, at: { x: part.at.x + 9, y: part.at.y } }),
  };
  expect(moveTo(to)).toBeNull();
  // A wire that became another.
  const rerouted = moved(all, wires);
  const wire = rerouted.wires.get(wires[0]!)!;
  const other = { ...wire, course: [...wire.course, { x: 1, y: 1 }] };
  expect(moveTo({ ...rerouted, wires: new Map(rerouted.wires).set(wire.id, other) })).toBeNull();
});

test('a part without wires moves by itself', () => {
  const lone: Sheet = { ...from, wires: new Map() };
  const to: Sheet = { ...moved([all[0]!], []), wires: new Map() };
  expect(commonMove(draggedObjects(lone, to, null), to)).toEqual(by);
});
