import fc from 'fast-check';
import type { Mark } from './kinds/task-kind';
import {
  type Answered,
  ClassMarks,
  NO_MARKS,
  pointsFor,
  type Remark,
  remarksOn,
  remarksUsed,
  ruleOf,
  together,
  withoutRemark,
  withoutRemarkOnAll,
  withPoints,
  withRemark,
  withRemarkOnAll,
  withRule,
} from './teacher-marks';

const mark = (right: number, of: number, complaints: readonly string[] = []): Mark => ({
  right,
  of,
  word: 'row',
  complaints,
  solved: right === of && complaints.length === 0,
  wrong: null,
  gist: '',
  detail: null,
});
const answered = (handIn: string, found: Mark, said: string | null = 'or'): Answered => ({
  task: { id: 'task1', points: 4 },
  mark: found,
  handIn,
  said,
});
const ada = answered('ada', mark(3, 4));
const ben = answered('ben', mark(3, 4));
const cleo = answered('cleo', mark(4, 4), 'and');
const remark = (id: string, points = -0.5, text = 'Look at the carry.'): Remark => ({
  id,
  text,
  points,
  at: null,
});

test('points follow the rule, are never below none or above all, and wait for a person where only one can tell', () => {
  expect([ada, cleo].map((one) => pointsFor(NO_MARKS, one))).toEqual([0, 4]);
  const share = withRule(NO_MARKS, 'task1', { points: 'a share of what is right', less: 0.5 });
  expect([ada, cleo].map((one) => pointsFor(share, one))).toEqual([3, 4]);
  expect(pointsFor(share, answered('x', mark(4, 4, ['Too many gates.', 'Too slow.'])))).toBe(3);
  expect(pointsFor(share, answered('x', mark(1, 3)))).toBe(1.25);
  // Seven of eight rows are not all of one point.
  const one = { ...answered('x', mark(7, 8)), task: { id: 'task1', points: 1 } };
  expect(pointsFor(share, one)).toBe(0.75);
  const strict = withRule(NO_MARKS, 'task1', { points: 'all or nothing', less: 1 });
  expect(pointsFor(strict, answered('x', mark(4, 4, ['Too many gates.'])))).toBe(3);
  expect(pointsFor(NO_MARKS, answered('x', mark(4, 4, ['Too many gates.'])))).toBe(0);
  expect(pointsFor(share, answered('x', mark(0, 4, ['a', 'b'])))).toBe(0);
  expect(pointsFor(share, answered('x', { ...mark(0, 1), solved: null }))).toBeNull();
  expect(ruleOf(NO_MARKS, 'task9').points).toBe('all or nothing');
});

test('points by hand stand in place of the rule, and go again', () => {
  const given = withPoints(NO_MARKS, ada, 2.5);
  expect([ada, ben].map((one) => pointsFor(given, one))).toEqual([2.5, 0]);
  expect(pointsFor(withPoints(given, ada, null), ada)).toBe(0);
});

test('a remark on all that say the same counts for each of them, and can be taken off one', () => {
  const share = withRule(NO_MARKS, 'task1', { points: 'a share of what is right', less: 0 });
  const all = withRemarkOnAll(share, ada, remark('r1'));
  expect([ada, ben, cleo].map((one) => pointsFor(all, one))).toEqual([2.5, 2.5, 4]);
  const spared = withoutRemark(all, ben, 'r1');
  expect([ada, ben].map((one) => remarksOn(spared, one).length)).toEqual([1, 0]);
  expect([ada, ben].map((one) => pointsFor(spared, one))).toEqual([2.5, 3]);
  const own = withRemark(spared, ben, remark('r2', 0.25, 'Neat.'));
  expect(pointsFor(own, ben)).toBe(3.25);
  expect(remarksUsed(own, 'task1').map(({ text }) => text)).toEqual(['Neat.', 'Look at the carry.']);
  expect(remarksOn(withoutRemark(own, ben, 'r2'), ben)).toEqual([]);
  expect([ada, ben].map((one) => remarksOn(withoutRemarkOnAll(own, ada, 'r1'), one).length)).toEqual([0, 1]);
  // Of an empty answer nothing says the same.
  expect(withRemarkOnAll(share, answered('x', mark(0, 4), null), remark('r'))).toBe(share);
});

test('marks come back from a file as they were, and two markers’ marks go together', () => {
  const anyRemark = fc
    .record({ id: fc.constantFrom('a', 'b', 'c'), points: fc.constantFrom(-1, 0, 1) })
    .map(({ id, points }) => remark(id, points));
  const step = fc.oneof(
    anyRemark.map((r) => (m: ClassMarks) => withRemark(m, ada, r)),
    anyRemark.map((r) => (m: ClassMarks) => withRemarkOnAll(m, cleo, r)),
    fc.constantFrom(1, 2).map((p) => (m: ClassMarks) => withPoints(m, ben, p)),
    fc.constantFrom('a', 'b').map((id) => (m: ClassMarks) => withoutRemark(m, ada, id)),
  );
  const made = fc.array(step, { maxLength: 6 }).map((steps) => steps.reduce((m, f) => f(m), NO_MARKS));
  fc.assert(
    fc.property(made, made, (one, other) => {
      expect(ClassMarks.parse(JSON.parse(JSON.stringify(one)))).toEqual(one);
      const both = together(one, other);
      expect(together(both, other)).toEqual(both);
      const remarks = (m: ClassMarks) => remarksOn({ ...m, handIns: m.handIns }, cleo).map(({ id }) => id);
      for (const id of [...remarks(one), ...remarks(other)])
        expect(both.alike.task1?.and?.some((r) => r.id === id)).toBe(true);
      expect(pointsFor(both, ben)).toBe(pointsFor(other.handIns.ben ? other : one, ben));
    }),
    { numRuns: 100 },
  );
});
