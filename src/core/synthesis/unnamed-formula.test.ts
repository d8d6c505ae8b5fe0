import { emptyLesson } from '../circuit/lesson';
import { Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { readStatement } from './statement';
import { withName } from './unnamed-formula';

const lesson = emptyLesson('l', 'L');

test.each([
  ['A and B', 'Y = A and B'],
  ['~Key', 'Y = ~Key'],
  ['A + B', 'Y = A + B'],
  ['Horse and', null],
  ['frobnicator', null],
  ['Y = A and B', null],
])('%s is a formula without a name: %s', (text, named) => {
  expect(withName(lesson, 'sheet1', text)).toBe(named);
});

test('the name is one that the sheet does not have', () => {
  const s = new Sketch();
  s.place('lamp', 0, 0, 'Y');
  expect(withName(s.lesson, s.sheet.id, 'A and B')).toBe('Z = A and B');
});

test('a dot between spaces is AND', () => {
  const read = expectDone(readStatement(lesson, 'sheet1', 'y = A . B'));
  expect(read).toMatchObject({ targets: ['y'], expression: { op: 'and' } });
});
