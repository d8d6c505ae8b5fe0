import fc from 'fast-check';
import { apply, type Edit } from '@/core/circuit/edit';
import { nearestOnCourse } from '@/core/circuit/geometry';
import { isPinEnd, sheetOf } from '@/core/circuit/lesson';
import { paste } from '@/core/drawing/editing/clipboard';
import { move } from '@/core/drawing/editing/gestures';
import { courseOf, endPoint, pinsOf } from '@/core/drawing/geometry/placement';
import { wiresOnParts } from '@/core/drawing/routing/reroute';
import { writeLesson } from '@/core/formats/write-lesson';
import { PLACEABLE } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import { interlock } from '@/core/testing/sketch';
import {
  alignSelected,
  distributeSelected,
  mirrorSelected,
  numberSelected,
  spreadFromSelected,
  tidySheet,
} from './changes/arrange';
import { duplicateSelected, repeatSelected } from './changes/clipboard';
import { letGo, moveParts, relabel, removeSelected, setParam, turnSelected } from './changes/parts';
import { place, placeFrom } from './changes/place';
import { colourWires, pinProbe, rerouteSelected, straightenSelected, wire } from './changes/wires';
import { selectNet } from './select';
import { Session } from './session';

/** Numbers from a seed in [0, 1), so that a run of gestures can be played again. */
function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** One random gesture. */
function anything(session: Session, roll: () => number): void {
  const parts = [...session.sheet.parts.values()];
  const wires = [...session.sheet.wires.keys()];
  const any = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!;
  const whole = (least: number, most: number) => least + Math.floor(roll() * (most - least + 1));
  const some = new Set(parts.filter(() => roll() < 0.3).map((p) => p.id));
  session.select({ parts: some, wires: new Set(wires.filter(() => roll() < 0.2)) });
  const point = () => ({ x: whole(-20, 50), y: whole(-20, 50) });
  const pin = () => {
    const part = any(parts);
    const port = any(pinsOf(part))?.port.name;
    return port ? { part: part.id, port } : null;
  };
  const gestures: (() => unknown)[] = [
    () => parts.length < 30 && place(session, any(PLACEABLE), {}, [''], point()),
    () => parts.length < 30 && place(session, any(PLACEABLE), {}, ['', 'Bars'], point()),
    () => {
      const [a, b] = [pin(), pin()];
      if (a && b) wire(session, a, b);
    },
    () => {
      const a = pin();
      const kind = any(PLACEABLE);
      if (a && parts.length < 30) placeFrom(session, [a], kind, defaultParams(kind), '', point());
    },
    () => moveParts(session, some, { x: whole(-4, 4), y: whole(-4, 4) }),
    () => {
      const id = any(parts).id;
      session.select({ parts: new Set([id]), wires: new Set() });
      const by = { x: whole(-9, 9), y: whole(-9, 9) };
      letGo(session, move(session.state.lesson, session.state.sheetId, new Set([id]), by), false);
    },
    () => turnSelected(session, whole(-1, 2)),
    () => mirrorSelected(session, any(['across', 'down'])),
    () => parts.length < 20 && duplicateSelected(session),
    () => parts.length < 12 && repeatSelected(session, 2, { x: 0, y: 9 }),
    () => removeSelected(session, roll() < 0.5),
    () => alignSelected(session, any(['left', 'centre', 'right', 'top', 'middle', 'bottom'])),
    () => distributeSelected(session, any(['across', 'down'])),
    () => straightenSelected(session),
    () => spreadFromSelected(session, any(['across', 'down']), whole(-4, 6)),
    () => rerouteSelected(session),
    () => colourWires(session, any(['rose', 'teal', undefined])),
    () => selectNet(session),
    () => numberSelected(session, 'A0'),
    () => relabel(session, any(parts).id, any(['Key', 'Q_0', ''])),
    () => setParam(session, [any(parts).id], any(['inputs', 'width', 'caption']), whole(1, 5)),
    () => {
      const id = any(wires);
      const at = id && courseOf(session.sheet, session.sheet.wires.get(id)!)[0];
      if (at) pinProbe(session, id, at);
    },
    () => roll() < 0.2 && tidySheet(session),
    () => session.undo(),
    () => session.redo(),
  ];
  if (parts.length === 0) place(session, PLACEABLE[0]!, {}, [''], point());
  else any(gestures)();
}

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
      anything(session, roll);
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
