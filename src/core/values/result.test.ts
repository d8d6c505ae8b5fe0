import { problem, problemOf, refusal, sentence } from './result';

test('a message that quotes a whole file is shortened in its middle, and keeps both ends', () => {
  const { message } = problem('unknown-name', `there is no sheet “${'x'.repeat(10_000_000)}”; it has “Gate”`);
  expect(message.length).toBeLessThan(600);
  expect(message).toMatch(/^there is no sheet “x+ … x+”; it has “Gate”$/);
  expect(problemOf(new Error('y'.repeat(5000))).message.length).toBeLessThan(600);
});

test('a refusal is bounded however its problem was made, and keeps its place', () => {
  const place = { offset: 7 };
  const { message, ...rest } = refusal({ code: 'a', message: 'z'.repeat(9000), place }).problem;
  expect([message.length < 600, rest]).toEqual([true, { code: 'a', place }]);
});

test('a message of usual length stands as it is', () => {
  expect(problem('a', 'b'.repeat(600)).message).toHaveLength(600);
  expect(sentence(problem('a', 'the disk is full'))).toBe('The disk is full.');
});
