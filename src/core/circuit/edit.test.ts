import fc from 'fast-check';
import { writeLesson } from '../formats/write-lesson';
import { interlock, inverseOf } from '../testing/sketch';
import { apply, type Edit, isCosmetic, type PartChange, type WireChange } from './edit';
import type { Lesson } from './lesson';
import { MOST_CORNERS, MOST_PARTS, MOST_SHEETS } from './limits';
import { emptySheet } from './sheet';

const lesson = interlock().lesson;
const SHEET = 'sheet1';

function applied(to: Lesson, edit: Edit): Lesson {
  const result = apply(to, edit);
  if (!result.ok) throw new Error(result.problem.message);
  return result.value;
}

const point = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) });
const partId = fc.constantFrom('switch1', 'switch2', 'and1', 'and2', 'not1', 'lamp1', 'gone');
const wireId = fc.constantFrom('w1', 'w2', 'w3', 'w4', 'w5', 'w9');
const simple: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .record({ id: partId, at: point })
    .map(({ id, at }) => ({ type: 'changePart', sheet: SHEET, id, change: { at } }) as const),
  fc
    .record({ id: partId, label: fc.string({ maxLength: 5 }) })
    .map(({ id, label }) => ({ type: 'changePart', sheet: SHEET, id, change: { label } }) as const),
  partId.map((id) => ({ type: 'removePart', sheet: SHEET, id }) as const),
  wireId.map((id) => ({ type: 'removeWire', sheet: SHEET, id }) as const),
  fc
    .record({ id: wireId, course: fc.array(point, { maxLength: 3 }) })
    .map(({ id, course }) => ({ type: 'changeWire', sheet: SHEET, id, change: { course } }) as const),
  fc
    .record({ parts: fc.uniqueArray(partId), wires: fc.uniqueArray(wireId), by: point })
    .map((shift) => ({ type: 'shift', sheet: SHEET, ...shift }) as const),
  fc.string({ maxLength: 8 }).map((name) => ({ type: 'changeSheet', id: SHEET, change: { name } }) as const),
  fc
    .constantFrom('sheet2', 'sheet3')
    .map((id) => ({ type: 'addSheet', sheet: emptySheet(id, id), at: 1 }) as const),
  fc.constantFrom('sheet1', 'sheet2').map((id) => ({ type: 'removeSheet', id }) as const),
);
const edit: fc.Arbitrary<Edit> = fc.oneof(
  simple,
  fc.array(simple, { maxLength: 6 }).map((edits) => ({ type: 'group', edits }) as const),
);

test('an edit and its inverse come back to the same document, byte for byte', () => {
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 25 }), (edits) => {
      const undo: Edit[] = [];
      let now = lesson;
      for (const e of edits) {
        const result = apply(now, e);
        if (!result.ok) continue;
        undo.push(inverseOf(now, e));
        now = result.value;
      }
      for (const e of undo.reverse()) now = applied(now, e);
      expect(writeLesson(now)).toBe(writeLesson(lesson));
    }),
    { numRuns: 300 },
  );
});

test('a refused group leaves the lesson as it was', () => {
  const before = writeLesson(lesson);
  const result = apply(lesson, {
    type: 'group',
    edits: [
      { type: 'changePart', sheet: SHEET, id: 'and1', change: { label: 'changed' } },
      { type: 'removePart', sheet: SHEET, id: 'switch1' },
    ],
  });
  expect(result).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('still hangs on switch1') },
  });
  expect(writeLesson(lesson)).toBe(before);
});

test.each<[string, Edit]>([
  ['there is no part', { type: 'changePart', sheet: SHEET, id: 'nobody', change: { label: 'x' } }],
  ['there is no sheet', { type: 'changeSheet', id: 'nowhere', change: { name: 'x' } }],
  ['is there already', { type: 'addSheet', sheet: emptySheet(SHEET, 'again'), at: 0 }],
  ['at least one sheet', { type: 'removeSheet', id: SHEET }],
  [
    'which is not there',
    {
      type: 'addWire',
      sheet: SHEET,
      wire: { id: 'w99', from: { part: 'nobody', port: 'Y' }, to: { part: 'and1', port: 'A' }, course: [] },
    },
  ],
])('is refused with a reason: %s', (reason, e) => {
  expect(apply(lesson, e)).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining(reason) },
  });
});

test('an edit makes nothing that could not be opened again', () => {
  const adds = Array.from({ length: MOST_PARTS }, (_, i) => {
    const part = { ...lesson.sheets[0]!.parts.get('and1')!, id: `more${i}` };
    return { type: 'addPart', sheet: SHEET, part } as const;
  });
  expect(apply(lesson, { type: 'group', edits: adds })).toMatchObject({
    ok: false,
    problem: { message: `a sheet holds ${MOST_PARTS} parts at most` },
  });
  expect(apply(lesson, { type: 'group', edits: adds.slice(lesson.sheets[0]!.parts.size) }).ok).toBe(true);
  const course = Array.from({ length: MOST_CORNERS + 1 }, (_, i) => ({ x: i, y: i % 2 }));
  expect(apply(lesson, { type: 'changeWire', sheet: SHEET, id: 'w1', change: { course } })).toMatchObject({
    ok: false,
    problem: { message: 'a wire has 200 corners at most, not 201' },
  });
  const sheets = Array.from({ length: MOST_SHEETS }, (_, i) => {
    return { type: 'addSheet', sheet: emptySheet(`new${i}`, `New ${i}`), at: 1 } as const;
  });
  expect(apply(lesson, { type: 'group', edits: sheets })).toMatchObject({
    ok: false,
    problem: { message: 'a lesson has 500 sheets at most' },
  });
});

test('the order within a group does not matter for what hangs on what', () => {
  const all = ['w1', 'w4'].map((id) => ({ type: 'removeWire', sheet: SHEET, id }) as const);
  const gone = applied(lesson, {
    type: 'group',
    edits: [{ type: 'removePart', sheet: SHEET, id: 'switch1' }, ...all],
  });
  expect(gone.sheets[0]!.parts.has('switch1')).toBe(false);
  expect(gone.sheets[0]!.wires.has('w1')).toBe(false);
});

test('looks and places are cosmetic; names, parameters and connections are not', () => {
  const part = (change: PartChange) =>
    isCosmetic(lesson, { type: 'changePart', sheet: SHEET, id: 'and1', change });
  expect(part({ at: { x: 1, y: 1 } })).toBe(true);
  expect(part({ label: 'U1' })).toBe(false);
  expect(part({ params: { inputs: 4 } })).toBe(false);
  const moved = { type: 'changePart', sheet: SHEET, id: 'and1', change: { turn: 1 } } as const;
  const removed = { type: 'removeWire', sheet: SHEET, id: 'w1' } as const;
  expect(isCosmetic(lesson, { type: 'group', edits: [moved] })).toBe(true);
  expect(isCosmetic(lesson, { type: 'group', edits: [moved, removed] })).toBe(false);
});

test('a wire laid anew, its branch slid along its host, is cosmetic; another end is not', () => {
  const w1 = lesson.sheets[0]!.wires.get('w1')!;
  const branched = applied(lesson, {
    type: 'changeWire',
    sheet: SHEET,
    id: 'w2',
    change: { from: { wire: 'w1', at: { x: 1, y: 1 } } },
  });
  const wire = (id: string, change: WireChange) =>
    isCosmetic(branched, { type: 'changeWire', sheet: SHEET, id, change });
  expect(wire('w1', { course: [{ x: 9, y: 9 }], from: w1.from })).toBe(true);
  expect(wire('w2', { from: { wire: 'w1', at: { x: 2, y: 1 } } })).toBe(true);
  expect(wire('w2', { from: { wire: 'w3', at: { x: 1, y: 1 } } })).toBe(false);
  expect(wire('w2', { from: w1.from })).toBe(false);
  expect(wire('w1', { to: { part: 'and1', port: 'nowhere' } })).toBe(false);
});
