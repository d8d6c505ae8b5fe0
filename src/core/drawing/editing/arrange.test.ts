import fc from 'fast-check';
import { apply } from '../../circuit/edit';
import { overlap } from '../../circuit/geometry';
import { interlock, Sketch } from '../../testing/sketch';
import { expectTidy } from '../../testing/tidy-sheet';
import { bodyOf, courseOf, extentOf, pinOf } from '../geometry/placement';
import { align, distribute, snap, spread, straighten, tidy, tidySome } from './arrange';

const ids = (...names: string[]) => new Set(names);
const at = (s: Sketch, id: string) => s.sheet.parts.get(id)!.at;

test('parts are lined up by each edge of their bodies and by their middles', () => {
  for (const [edge, of] of [
    ['left', (s: Sketch, id: string) => bodyOf(s.sheet.parts.get(id)!).x0],
    ['right', (s: Sketch, id: string) => bodyOf(s.sheet.parts.get(id)!).x1],
    ['top', (s: Sketch, id: string) => bodyOf(s.sheet.parts.get(id)!).y0],
    ['bottom', (s: Sketch, id: string) => bodyOf(s.sheet.parts.get(id)!).y1],
    ['centre', (s: Sketch, id: string) => at(s, id).x],
    ['middle', (s: Sketch, id: string) => at(s, id).y],
  ] as const) {
    const s = new Sketch();
    s.place('and', 0, 0);
    s.place('and', 7, 12);
    s.place('and', 3, 25);
    s.make(align(s.lesson, 'sheet1', ids('and1', 'and2', 'and3'), edge));
    const places = ['and1', 'and2', 'and3'].map((id) => of(s, id));
    expect(Math.max(...places) - Math.min(...places)).toBeLessThanOrEqual(1);
  }
});

test('gaps are made alike, the outermost stay', () => {
  const s = new Sketch();
  s.place('not', 0, 0);
  s.place('not', 0, 8);
  s.place('not', 0, 30);
  s.make(distribute(s.lesson, 'sheet1', ids('not1', 'not2', 'not3'), 'down'));
  expect(['not1', 'not2', 'not3'].map((id) => at(s, id).y)).toEqual([0, 15, 30]);
});

test('a small jog is taken out by moving the part with fewer wires', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('switch', 0, 8, 'Bars');
  s.place('and', 15, 3);
  const lamp = s.place('lamp', 30, 5);
  s.wire('switch1.Y', 'and1.A');
  s.wire('switch2.Y', 'and1.B');
  const wire = s.wire('and1.Y', 'lamp1.A');
  s.make(straighten(s.lesson, 'sheet1', ids(wire)));
  expect(courseOf(s.sheet, s.sheet.wires.get(wire)!)).toHaveLength(2);
  expect(at(s, 'and1')).toEqual({ x: 15, y: 3 });
  expect(pinOf(s.sheet, lamp, 'A')!.at.y).toBe(pinOf(s.sheet, 'and1', 'Y')!.at.y);
});

test('room is made across and down, and the circuit stays what it was', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('across' as const, 'down' as const),
      fc.integer({ min: -5, max: 35 }),
      fc.integer({ min: -10, max: 20 }),
      (axis, from, by) => {
        const s = interlock();
        const before = s.columns();
        const parts = [...s.sheet.parts.values()];
        s.make(spread(s.lesson, 'sheet1', axis, from, by));
        expectTidy(s.sheet);
        expect(s.columns()).toEqual(before);
        for (const part of parts) {
          const d = axis === 'across' ? at(s, part.id).x - part.at.x : at(s, part.id).y - part.at.y;
          if (by >= 0) expect(d).toBe((axis === 'across' ? part.at.x : part.at.y) >= from ? by : 0);
          else expect(d).toBeLessThanOrEqual(0);
        }
        const boxes = [...s.sheet.parts.values()].map(extentOf);
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(i + 1)) expect(overlap(a, b)).toBe(false);
      },
    ),
    { numRuns: 80 },
  );
});

test('a moved part is drawn to the line of a pin nearby, with the line to show for it', () => {
  const s = new Sketch();
  s.place('switch', 0, 0);
  s.place('lamp', 20, 7);
  expect(snap(s.sheet, ids('lamp1'), { x: 0.2, y: -6.3 })).toEqual({
    by: { x: 0, y: -7 },
    guides: [{ axis: 'across', at: 0, from: 2, to: 18 }],
  });
  expect(snap(s.sheet, ids('lamp1'), { x: 0.2, y: -3.4 })).toEqual({ by: { x: 0, y: -3 }, guides: [] });
});

test('pins that look the same way are no line for a wire, but parts of one kind make a column', () => {
  const s = new Sketch();
  s.place('lamp', 20, 0);
  s.place('lamp', 27, 12);
  expect(snap(s.sheet, ids('lamp2'), { x: 0.1, y: -12.4 })).toEqual({ by: { x: 0, y: -12 }, guides: [] });
  expect(snap(s.sheet, ids('lamp2'), { x: -6.4, y: 0.2 })).toEqual({
    by: { x: -7, y: 0 },
    guides: [{ axis: 'down', at: 20, from: 0, to: 12 }],
  });
});

test('a sheet in disorder is tidied: nothing lies on another, wires are proper, the function stays', () => {
  const places = fc.array(
    fc.record({ x: fc.integer({ min: -20, max: 40 }), y: fc.integer({ min: -20, max: 40 }) }),
    {
      minLength: 8,
      maxLength: 8,
    },
  );
  fc.assert(
    fc.property(places, (spots) => {
      const s = interlock();
      const wanted = s.columns();
      for (const [i, id] of [...s.sheet.parts.keys()].entries())
        s.make({ type: 'changePart', sheet: 'sheet1', id, change: { at: spots[i]! } });
      const edit = tidy(s.lesson, 'sheet1');
      expect(apply(s.lesson, edit).ok).toBe(true);
      s.make(edit);
      expectTidy(s.sheet);
      const boxes = [...s.sheet.parts.values()].map(extentOf);
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) expect(overlap(a, b)).toBe(false);
      expect(s.columns()).toEqual(wanted);
      const [key, bars, clear] = ['switch1', 'switch2', 'switch3'].map((id) => at(s, id).y);
      expect(key! < bars! && bars! < clear!).toBe(true);
    }),
    { numRuns: 25 },
  );
});

test('branches become wires from the driver when a sheet is tidied', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 30, 0);
  s.place('lamp', 30, 9);
  const w = s.wire('switch1.Y', 'lamp1.A');
  s.branch(w, 10, 0, 'lamp2.A');
  s.make(tidy(s.lesson, 'sheet1'));
  expect([...s.sheet.wires.values()].map((wire) => wire.from)).toEqual([
    { part: 'switch1', port: 'Y' },
    { part: 'switch1', port: 'Y' },
  ]);
  expectTidy(s.sheet);
});

test('some parts are tidied among others, which stay; the circuit does too', () => {
  const s = interlock();
  const wanted = s.columns();
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'and2', change: { at: { x: 9, y: -9 } } });
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'not1', change: { at: { x: 30, y: 34 } } });
  const before = new Map(s.sheet.parts);
  s.make(tidySome(s.lesson, 'sheet1', new Set(['not1', 'and2', 'lamp2'])));
  for (const id of ['switch1', 'switch2', 'switch3', 'and1', 'lamp1'])
    expect(s.sheet.parts.get(id)).toBe(before.get(id));
  const [not, and, lamp] = ['not1', 'and2', 'lamp2'].map((id) => at(s, id).x);
  expect(not! < and! && and! < lamp!).toBe(true);
  expect(s.columns()).toEqual(wanted);
  expectTidy(s.sheet);
});
