import fc from 'fast-check';
import { apply, type Edit } from '../../circuit/edit';
import { emptyLesson } from '../../circuit/lesson';
import type { Sheet } from '../../circuit/sheet';
import { randomSheet } from '../../testing/random-circuit';
import { bodyOf, courseOf } from './placement';
import { SpatialIndex } from './spatial-index';

interface Change {
  readonly what: number;
  readonly which: number;
  readonly x: number;
  readonly y: number;
}
const change: fc.Arbitrary<Change> = fc.record({
  what: fc.nat(4),
  which: fc.nat(),
  x: fc.integer({ min: -60, max: 60 }),
  y: fc.integer({ min: -60, max: 60 }),
});

/** An edit of the sheet that moves, removes, adds or bends something. */
function editOf(s: Sheet, { what, which, x, y }: Change): Edit {
  const sheet = s.id;
  const part = [...s.parts.values()][which % s.parts.size]!;
  const wire = [...s.wires.values()][which % Math.max(1, s.wires.size)];
  const move: Edit = { type: 'changePart', sheet, id: part.id, change: { at: { x, y } } };
  if (what === 0 || !wire) return move;
  if (what === 1) return { type: 'removeWire', sheet, id: wire.id };
  if (what === 2) return { type: 'changeWire', sheet, id: wire.id, change: { course: [{ x, y }] } };
  if (what === 3) {
    const branch = { ...wire, id: `b${which}`, from: { wire: wire.id, at: courseOf(s, wire)[0]! } };
    return s.wires.has(branch.id) ? move : { type: 'addWire', sheet, wire: branch };
  }
  const hung = [...s.wires.values()].filter((w) =>
    [w.from, w.to].some((e) => 'part' in e && e.part === part.id),
  );
  if (s.parts.size < 2) return move;
  return {
    type: 'group',
    edits: [
      ...hung.map((w): Edit => ({ type: 'removeWire', sheet, id: w.id })),
      { type: 'removePart', sheet, id: part.id },
    ],
  };
}

/** A box so small that the tiles are asked, and one so large that all parts are. */
const SMALL = { x0: 30, y0: 1, x1: 40, y1: 18 };
const BOX = { x0: -30, y0: -20, x1: 50, y1: 60 };
const EVERYTHING = { x0: -1e4, y0: -1e4, x1: 1e4, y1: 1e4 };

/** All that a survey says, in an order of its own. */
function told(index: SpatialIndex) {
  const ids = (strokes: { wire?: string; pin?: object; points: object }[]) =>
    strokes.map((s) => JSON.stringify([s.wire, s.pin, s.points])).sort();
  return {
    parts: index
      .partsIn(BOX)
      .map((p) => JSON.stringify(p))
      .sort(),
    near: ids(index.wiresIn(SMALL)),
    nearParts: index
      .partsIn(SMALL)
      .map((p) => p.id)
      .sort(),
    wires: ids(index.wiresIn(BOX)),
    free: ids(index.freeIn(EVERYTHING)),
    all: ids(index.all()),
    joints: [...index.joints().values()]
      .flat()
      .map((j) => JSON.stringify(j.at))
      .sort(),
  };
}

test('a survey that goes along from version to version says what a new one says', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 4, gates: 12 }),
      fc.array(change, { maxLength: 12 }),
      (sheet, changes) => {
        let lesson = { ...emptyLesson('random', 'Random'), sheets: [sheet] };
        const index = new SpatialIndex().to(sheet);
        const versions = [sheet];
        for (const one of changes) {
          const applied = apply(lesson, editOf(lesson.sheets[0]!, one));
          if (!applied.ok) continue;
          lesson = applied.value as typeof lesson;
          versions.push(lesson.sheets[0]!);
          if (one.which % 2)
            expect(told(index.to(lesson.sheets[0]!))).toEqual(told(new SpatialIndex().to(lesson.sheets[0]!)));
        }
        // It goes back as well.
        const before = versions[Math.floor(versions.length / 2)]!;
        expect(told(index.to(before))).toEqual(told(new SpatialIndex().to(before)));
      },
    ),
    { numRuns: 150 },
  );
});

test('a survey that was left undone half-way says what a new one says, of any version', () => {
  fc.assert(
    fc.property(
      randomSheet({ inputs: 4, gates: 12 }),
      fc.array(fc.record({ change, steps: fc.integer({ min: 1, max: 12 }), back: fc.boolean() }), {
        minLength: 1,
        maxLength: 8,
      }),
      (sheet, changes) => {
        let lesson = { ...emptyLesson('random', 'Random'), sheets: [sheet] };
        const index = new SpatialIndex(1).to(sheet);
        let last = sheet;
        for (const { change: one, steps, back } of changes) {
          const applied = apply(lesson, editOf(lesson.sheets[0]!, one));
          if (!applied.ok) continue;
          const before = lesson.sheets[0]!;
          lesson = applied.value as typeof lesson;
          const survey = index.steps(lesson.sheets[0]!);
          for (let i = 0; i < steps; i++) survey.next();
          if (back) {
            expect(told(index.to(before))).toEqual(told(new SpatialIndex().to(before)));
            // The interrupted run ends without changing anything.
            while (!survey.next().done);
            expect(index.isOf(before)).toBe(true);
          }
          last = lesson.sheets[0]!;
        }
        expect(told(index.to(last))).toEqual(told(new SpatialIndex().to(last)));
      },
    ),
    { numRuns: 150 },
  );
});

test('what is in a box is found, and only once, however many tiles it touches', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 5, gates: 20 }), fc.constantFrom(SMALL, BOX), (sheet, box) => {
      const index = new SpatialIndex().to(sheet);
      const found = index.partsIn(box).map((p) => p.id);
      expect(new Set(found).size).toBe(found.length);
      for (const part of sheet.parts.values()) {
        const b = bodyOf(part);
        if (b.x0 <= box.x1 && b.x1 >= box.x0 && b.y0 <= box.y1 && b.y1 >= box.y0)
          expect(found).toContain(part.id);
      }
      const wires = index.wiresIn(box).map((s) => s.wire);
      for (const wire of sheet.wires.values())
        if (
          courseOf(sheet, wire).some((p) => p.x >= box.x0 && p.x <= box.x1 && p.y >= box.y0 && p.y <= box.y1)
        )
          expect(wires).toContain(wire.id);
    }),
  );
});
