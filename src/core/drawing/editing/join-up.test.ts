import fc from 'fast-check';
import { eachSegment } from '../../circuit/geometry';
import { sheetOf } from '../../circuit/lesson';
import { isPinEnd, type Sheet } from '../../circuit/sheet';
import { interlock, Sketch } from '../../testing/sketch';
import { along, expectTidy } from '../../testing/tidy-sheet';
import { courseOf, pinOf, pinsOf } from '../geometry/placement';
import { move } from './gestures';
import { joinUp, removeHealing, touching } from './join-up';

function keyAndLamp(): Sketch {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 30, 0, 'Drive');
  s.wire('switch1.Y', 'lamp1.A');
  return s;
}

test('a part that lies across a wire goes into it, and stands so that the wire runs straight', () => {
  const s = keyAndLamp();
  s.place('not', 14, 1);
  s.make(joinUp(s.lesson, 'sheet1', ['not1']));
  expect(s.sheet.parts.get('not1')!.at).toEqual({ x: 14, y: 0 });
  expect([...s.sheet.wires.values()].map((w) => w.course)).toEqual([[], []]);
  expect(s.columns()).toEqual(['10']);
  expectTidy(s.sheet);
});

test('branches before the part stay on the wire that leads to it, those behind go with the other', () => {
  const s = keyAndLamp();
  const [wire] = s.sheet.wires.keys();
  s.place('lamp', 30, 8, 'Before');
  s.place('lamp', 30, 14, 'Behind');
  s.branch(wire!, 6, 0, 'lamp2.A');
  s.branch(wire!, 24, 0, 'lamp3.A');
  s.place('not', 15, 0);
  s.make(joinUp(s.lesson, 'sheet1', ['not1']));
  expect(s.columns()).toEqual(['10', '01', '10']);
  expectTidy(s.sheet);
});

test('a wire drawn from its reader to its driver takes a part in the right way round', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 30, 0, 'Drive');
  s.wire('lamp1.A', 'switch1.Y');
  s.place('not', 15, 0);
  s.make(joinUp(s.lesson, 'sheet1', ['not1']));
  expect(s.columns()).toEqual(['10']);
  expectTidy(s.sheet);
});

test('a part that is wired already, or of another width, is left beside the wire', () => {
  const s = keyAndLamp();
  s.place('switch', 0, 12, 'Bars');
  s.place('not', 15, 12);
  s.wire('switch2.Y', 'not1.A');
  s.make(move(s.lesson, 'sheet1', new Set(['not1']), { x: 0, y: -12 }));
  expect(joinUp(s.lesson, 'sheet1', ['not1'])).toBeNull();
  const t = keyAndLamp();
  t.place('adder', 15, 0, '', { width: 4 });
  expect(joinUp(t.lesson, 'sheet1', ['adder1'])).toBeNull();
});

test('pins that touch are joined where one may drive the other', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  const [key] = s.sheet.parts.values();
  const lamp = s.place('lamp', key!.at.x + 4, 0, 'Drive');
  expect(touching(s.sheet, new Set([lamp]))).toHaveLength(1);
  s.make(joinUp(s.lesson, 'sheet1', [lamp]));
  expect(s.columns()).toEqual(['01']);
  // Moved apart, the wire grows.
  s.make(move(s.lesson, 'sheet1', new Set([lamp]), { x: 6, y: 3 }));
  expectTidy(s.sheet);
  expect(s.columns()).toEqual(['01']);
  const again = joinUp(s.lesson, 'sheet1', [lamp]);
  expect(again).toBeNull();
});

test('two outputs that touch are not joined, nor an output that touches a wire', () => {
  const s = new Sketch();
  s.place('switch', 0, 0);
  s.place('switch', 4, 0);
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'switch2', change: { turn: 2 } });
  expect(joinUp(s.lesson, 'sheet1', ['switch2'])).toBeNull();
  const t = keyAndLamp();
  t.place('switch', 10, 2);
  t.make({ type: 'changePart', sheet: 'sheet1', id: 'switch2', change: { turn: 3 } });
  expect(joinUp(t.lesson, 'sheet1', ['switch2'])).toBeNull();
});

test('an input that is put onto a wire branches from it', () => {
  const s = keyAndLamp();
  s.place('lamp', 12, 2, 'Warn');
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'lamp2', change: { turn: 1 } });
  s.make(joinUp(s.lesson, 'sheet1', ['lamp2']));
  expect(s.columns()).toEqual(['01', '01']);
});

test('a part that is taken out leaves its wires whole', () => {
  const s = interlock();
  s.make(removeHealing(s.lesson, 'sheet1', new Set(['not1'])));
  expect(s.columns()[1]).toBe('00000011');
  expectTidy(s.sheet);
  // The first wired input of a gate leads on.
  s.make(removeHealing(s.lesson, 'sheet1', new Set(['and2'])));
  expect(s.columns()[1]).toBe('00001111');
  expectTidy(s.sheet);
});

test('several in a row are taken out together, and what led nowhere is gone', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('not', 10, 0);
  s.place('not', 20, 6);
  s.place('lamp', 30, 0, 'Drive');
  s.place('lamp', 30, 10, 'Warn');
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'not2.A');
  const w = s.wire('not2.Y', 'lamp1.A');
  s.branch(w, 24, 6, 'lamp2.A');
  s.make(removeHealing(s.lesson, 'sheet1', new Set(['not1', 'not2'])));
  expect(s.columns()).toEqual(['01', '01']);
  expectTidy(s.sheet);
  const lone = new Sketch();
  lone.place('not', 0, 0);
  lone.make(removeHealing(lone.lesson, 'sheet1', new Set(['not1'])));
  expect(sheetOf(lone.lesson, 'sheet1')!.parts.size).toBe(0);
});

/** Loose input pins of some parts that stand on a wire or on a pin of another part, by looking at every point of everything. */
function touchedPoints(sheet: Sheet, parts: ReadonlySet<string>): Set<string> {
  const wired = new Set<string>();
  for (const { from, to } of sheet.wires.values())
    for (const end of [from, to]) if (isPinEnd(end)) wired.add(`${end.part}.${end.port}`);
  const points = new Set<string>();
  for (const wire of sheet.wires.values())
    eachSegment(courseOf(sheet, wire), (a, b) => {
      for (const p of along(a, b)) points.add(`${p.x},${p.y}`);
    });
  for (const part of sheet.parts.values())
    if (!parts.has(part.id)) for (const pin of pinsOf(part)) points.add(`${pin.at.x},${pin.at.y}`);
  const found = new Set<string>();
  for (const id of parts)
    for (const pin of pinsOf(sheet.parts.get(id)!)) {
      const at = `${pin.at.x},${pin.at.y}`;
      if (!wired.has(`${id}.${pin.port.name}`) && pin.port.direction === 'in' && points.has(at))
        found.add(at);
    }
  return found;
}

test('wherever some parts lie, their loose inputs touch what lies there', () => {
  let met = 0;
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          x: fc.nat({ max: 24 }),
          y: fc.nat({ max: 12 }),
          kind: fc.constantFrom('lamp', 'and', 'switch'),
        }),
        {
          minLength: 2,
          maxLength: 10,
        },
      ),
      (places) => {
        const s = keyAndLamp();
        const moved = places.map(({ x, y, kind }) => {
          const before = new Set(s.sheet.parts.keys());
          s.place(kind, x, y);
          return [...s.sheet.parts.keys()].find((id) => !before.has(id))!;
        });
        // Half of them stand still.
        const parts = new Set(moved.filter((_, i) => i % 2 === 0));
        const right = touchedPoints(s.sheet, parts);
        const found = touching(s.sheet, parts).filter(
          ({ pin }) => pinOf(s.sheet, pin.part, pin.port)!.port.direction === 'in',
        );
        met += right.size;
        expect(new Set(found.map(({ at }) => `${at.x},${at.y}`))).toEqual(right);
      },
    ),
    { numRuns: 150 },
  );
  expect(met).toBeGreaterThan(20);
});

test('where all parts of a sheet have moved, nothing has come nearer to anything', () => {
  const s = keyAndLamp();
  s.place('lamp', 14, 0, 'On the wire');
  const all = new Set(s.sheet.parts.keys());
  expect(touching(s.sheet, new Set([...all].slice(-1)))).toHaveLength(1);
  expect(touching(s.sheet, all)).toEqual([]);
});
