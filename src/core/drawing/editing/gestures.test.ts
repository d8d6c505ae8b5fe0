import fc from 'fast-check';
import { apply } from '../../circuit/edit';
import { eachSegment } from '../../circuit/geometry';
import { writeLesson } from '../../formats/write-lesson';
import { truthTable } from '../../logic/table/truth-table';
import { compile } from '../../netlist/compile';
import { findKind } from '../../parts/catalogue';
import { defaultParams } from '../../parts/params';
import { interlock, inverseOf, pin, Sketch } from '../../testing/sketch';
import { expectTidy } from '../../testing/tidy-sheet';
import { courseOf, endPoint, pinsOf } from '../geometry/placement';
import { spatialIndexOf } from '../geometry/spatial-index';
import { excerpt, paste } from './clipboard';
import { changeKind, connect, move, remove, setParams, turn } from './gestures';

test('wires keep their ends, are orthogonal, and cross no body and no foreign pin', () => {
  expectTidy(interlock().sheet);
});

test('so they do after parts were moved about, and the function stays', () => {
  const ids = ['switch1', 'switch2', 'and1', 'and2', 'not1', 'lamp1', 'lamp2'];
  const by = fc.record({ x: fc.integer({ min: -3, max: 3 }), y: fc.integer({ min: -2, max: 2 }) });
  const start = interlock();
  const table = truthTable(compile(start.sheet));
  fc.assert(
    fc.property(fc.array(fc.record({ id: fc.constantFrom(...ids), by }), { maxLength: 5 }), (steps) => {
      let { lesson } = start;
      for (const { id, by: far } of steps) {
        const edit = move(lesson, 'sheet1', new Set([id]), far);
        const back = inverseOf(lesson, edit);
        const result = apply(lesson, edit);
        if (!result.ok) throw new Error(result.problem.message);
        const again = apply(result.value, back);
        expect(again.ok && writeLesson(again.value)).toBe(writeLesson(lesson));
        lesson = result.value;
      }
      const after = lesson.sheets[0]!;
      expect(truthTable(compile(after))).toEqual(table);
      for (const wire of after.wires.values()) {
        const points = courseOf(after, wire);
        expect([points[0], points.at(-1)]).toEqual([endPoint(after, wire.from), endPoint(after, wire.to)]);
      }
    }),
    { numRuns: 40 },
  );
});

test('what is not touched does not jump', () => {
  const s = interlock();
  const before = s.sheet;
  s.make(move(s.lesson, 'sheet1', new Set(['lamp2']), { x: 3, y: 4 }));
  for (const wire of before.wires.values())
    if (wire.id !== 'w8') expect(s.sheet.wires.get(wire.id)).toEqual(wire);
});

test('a wire between two parts that move together goes along unchanged', () => {
  const s = interlock();
  const w7 = courseOf(s.sheet, s.sheet.wires.get('w7')!);
  s.make(move(s.lesson, 'sheet1', new Set(['and1', 'lamp1']), { x: 2, y: 1 }));
  expect(courseOf(s.sheet, s.sheet.wires.get('w7')!)).toEqual(w7.map((p) => ({ x: p.x + 2, y: p.y + 1 })));
});

test('a dot stands where three ways of one net meet, none where two nets cross', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 10, -10, 'B');
  s.place('lamp', 30, 0);
  s.place('lamp', 30, 10);
  const w = s.wire('switch1.Y', 'lamp1.A');
  const dots = () => [...spatialIndexOf(s.sheet).joints().values()].flat().map(({ at }) => at);
  expect(dots()).toEqual([]);
  s.branch(w, 6, 0, 'lamp2.A');
  expect(dots()).toEqual([{ x: 6, y: 0 }]);
  // A wire straight down across the first one.
  s.place('lamp', 22, 20, 'Across');
  s.make({
    type: 'addWire',
    sheet: 'sheet1',
    wire: {
      id: 'cross',
      from: { part: 'switch2', port: 'Y' },
      to: { part: 'lamp3', port: 'A' },
      course: [
        { x: 14, y: -10 },
        { x: 14, y: 20 },
      ],
    },
  });
  expect(dots()).toEqual([{ x: 6, y: 0 }]);
});

test('removing a gate heals the wires that branched on the way to it', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('lamp', 30, 0);
  s.place('lamp', 30, 10);
  s.place('lamp', 30, 20);
  const w = s.wire('switch1.Y', 'lamp1.A');
  s.branch(w, 6, 0, 'lamp2.A');
  s.branch(w, 10, 0, 'lamp3.A');
  s.make(remove(s.sheet, new Set(['lamp1']), new Set()));
  const n = compile(s.sheet);
  const source = n.netsOfPin('switch1', 'Y')![0];
  expect(n.netsOfPin('lamp2', 'A')![0]).toBe(source);
  expect(n.netsOfPin('lamp3', 'A')![0]).toBe(source);
  expect(s.sheet.wires.size).toBe(2);
  for (const wire of s.sheet.wires.values())
    eachSegment(courseOf(s.sheet, wire), (a, b) => expect(a.x === b.x || a.y === b.y).toBe(true));
});

test('removing the switch leaves the other end’s branches together, and removing all leaves nothing', () => {
  const s = interlock();
  s.make(remove(s.sheet, new Set(['switch1']), new Set()));
  expect(compile(s.sheet).diagnostics.map((d) => d.code)).toEqual(['loose-input', 'loose-input']);
  s.make(remove(s.sheet, new Set(s.sheet.parts.keys()), new Set()));
  expect([s.sheet.parts.size, s.sheet.wires.size]).toEqual([0, 0]);
});

test('fewer inputs take the wires of the lost ones along', () => {
  const s = interlock();
  s.make(setParams(s.lesson, 'sheet1', 'and1', { ...s.sheet.parts.get('and1')!.params, inputs: 2 }));
  expect(s.sheet.wires.has('w3')).toBe(false);
  expect(s.sheet.wires.has('w1')).toBe(true);
  expectTidy(s.sheet);
});

test('four quarter turns come back to where a part was', () => {
  const s = interlock();
  const before = pinsOf(s.sheet.parts.get('and1')!);
  for (let i = 0; i < 4; i++) s.make(turn(s.lesson, 'sheet1', new Set(['and1'])));
  expect(pinsOf(s.sheet.parts.get('and1')!)).toEqual(before);
});

test('a copy has fresh ids, labels and ranks, and computes the same', () => {
  const s = interlock();
  const { edit, parts } = paste(s.sheet, excerpt(s.sheet, new Set(s.sheet.parts.keys())), { x: 0, y: 60 });
  s.make(edit);
  expect(parts).toHaveLength(8);
  expect(s.sheet.parts.size).toBe(16);
  const table = truthTable(compile(s.sheet));
  expect(table.inputs).toEqual(['Key', 'Bars', 'Clear', 'Key 2', 'Bars 2', 'Clear 2']);
  expect(table.ones[2]!.reduce((a, b) => a + b)).toBeGreaterThan(0);
});

test('a wire from a pin to itself is not made', () => {
  expect(connect(interlock().sheet, pin('and1.A'), pin('and1.A'))).toBeNull();
});

test('a part becomes one of another kind with its label, its settings and its wires', () => {
  const s = interlock();
  s.make({ type: 'changePart', sheet: 'sheet1', id: 'and1', change: { label: 'G1' } });
  const wires = s.sheet.wires.size;
  const nor = findKind('nor')!;
  s.make(changeKind(s.lesson, 'sheet1', 'and1', nor, defaultParams(nor)));
  expect(s.sheet.parts.get('and1')).toMatchObject({ kind: 'nor', label: 'G1', params: { inputs: 3 } });
  expect(s.sheet.wires.size).toBe(wires);
  expect(s.columns()[0]).toBe('10000000');
  expectTidy(s.sheet);
  // A part with fewer pins loses the wires of the others.
  const not = findKind('not')!;
  s.make(changeKind(s.lesson, 'sheet1', 'and1', not, defaultParams(not)));
  expect(s.sheet.wires.size).toBe(wires - 2);
  expect(s.columns()[0]).toBe('11110000');
});
