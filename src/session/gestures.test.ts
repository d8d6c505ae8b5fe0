import fc from 'fast-check';
import { apply, type Edit } from '@/core/circuit/edit';
import { nearestOnCourse } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import { isPinEnd } from '@/core/circuit/sheet';
import { paste } from '@/core/drawing/editing/clipboard';
import { move } from '@/core/drawing/editing/gestures';
import { courseOf, endPoint } from '@/core/drawing/geometry/placement';
import { wiresOnParts } from '@/core/drawing/routing/reroute';
import { writeLesson } from '@/core/formats/write-lesson';
import { dice } from '@/core/testing/dice';
import { interlock } from '@/core/testing/sketch';
import { Session } from './session';
import { randomGesture } from './testing/random-gesture';

const text = (session: Session) => writeLesson(session.state.lesson);

test('1,000 random gestures are undone and redone to the letter, and the journal rebuilds them', () => {
  for (let run = 0; run < 5; run++) {
    const journal: Edit[] = [];
    const begun = interlock().lesson;
    const session = new Session(begun, {
      sink: { edit: (edit) => journal.push(edit), moment: () => {} },
    });
    const roll = dice(1000 + run);
    const texts = [text(session)];
    for (let i = 0; i < 200; i++) {
      randomGesture(session, roll);
      texts.push(text(session));
    }
    const end = text(session);
    let rebuilt = begun;
    for (const edit of journal) {
      const applied = apply(rebuilt, edit);
      if (!applied.ok) throw new Error(applied.problem.message);
      rebuilt = applied.value;
    }
    expect(writeLesson(rebuilt)).toBe(end);
    const steps = session.state.history.undo.length;
    for (let i = 0; i < steps; i++) session.undo();
    expect(text(session)).toBe(texts[0]);
    while (session.state.history.redo.length > 0 && text(session) !== end) session.redo();
    expect(text(session)).toBe(end);
  }
});

test('what lies elsewhere keeps its courses to the letter; a wire gives way only beside a pin that it shuts in', () => {
  const where = fc.record({ x: fc.integer({ min: -6, max: 6 }), y: fc.integer({ min: -6, max: 6 }) });
  const s = interlock();
  s.make(paste(s.sheet, s.sheet, { x: 90, y: 0 }).edit);
  const { lesson, sheet } = s;
  const here = new Set(interlock().sheet.parts.keys());
  fc.assert(
    fc.property(fc.constantFrom(...here), where, (id, by) => {
      const applied = apply(lesson, move(lesson, 'sheet1', new Set([id]), by));
      if (!applied.ok) throw new Error(applied.problem.message);
      const after = sheetOf(applied.value, 'sheet1')!;
      for (const [other, part] of sheet.parts) if (other !== id) expect(after.parts.get(other)).toBe(part);
      const touched = wiresOnParts(sheet, new Set([id]));
      const changed = [...sheet.wires.keys()].filter((w) => after.wires.get(w) !== sheet.wires.get(w));
      // One that gives way may itself have to be let through by a third.
      const ends = (but: string) =>
        [...touched, ...changed].flatMap((w) => {
          const { from, to } = after.wires.get(w)!;
          return w === but ? [] : [endPoint(after, from)!, endPoint(after, to)!];
        });
      for (const [w, wire] of sheet.wires) {
        if (after.wires.get(w) === wire || touched.includes(w)) continue;
        const points = courseOf(sheet, wire);
        const near = ends(w).some((e) => {
          const p = nearestOnCourse(points, e);
          return Math.abs(p.x - e.x) + Math.abs(p.y - e.y) <= 2;
        });
        const branches = [wire.from, wire.to].some((e) => !isPinEnd(e));
        expect(near || branches).toBe(true);
        expect(points.every((p) => p.x < 60)).toBe(true);
      }
    }),
    { numRuns: 100 },
  );
});
