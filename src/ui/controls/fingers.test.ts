import { Fingers, REST, TREMBLE } from './fingers';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

const finger = (id: number, x: number, y: number) => ({ id, x, y });

test('one finger that stays asks once, and one that moves or goes does not', () => {
  const asked: string[] = [];
  const fingers = new Fingers(() => {});
  fingers.down(finger(1, 10, 10), () => asked.push('stayed'));
  // It may tremble.
  expect(fingers.move(finger(1, 10 + TREMBLE - 1, 10))).toBe(false);
  jest.advanceTimersByTime(REST);
  expect(asked).toEqual(['stayed']);
  expect(fingers.up(1)).toBe(false);
  fingers.down(finger(1, 10, 10), () => asked.push('moved'));
  fingers.move(finger(1, 10 + 2 * TREMBLE, 10));
  fingers.up(1);
  fingers.down(finger(1, 10, 10), () => asked.push('gone'));
  fingers.up(1);
  jest.advanceTimersByTime(10 * REST);
  expect(asked).toEqual(['stayed']);
});

test('two fingers move the whole by the way of their middle, and mean nothing else until both are gone', () => {
  const by = { x: 0, y: 0 };
  const fingers = new Fingers(({ x, y }) => {
    by.x += x;
    by.y += y;
  });
  const rest = jest.fn();
  expect(fingers.down(finger(1, 0, 0), rest)).toBe(false);
  expect(fingers.down(finger(2, 100, 0), rest)).toBe(true);
  expect(fingers.move(finger(1, -30, 10))).toBe(true);
  expect(fingers.move(finger(2, 70, 10))).toBe(true);
  expect(by).toEqual({ x: -30, y: 10 });
  expect(fingers.up(1)).toBe(true);
  // The other one still moves it, and asks for nothing.
  expect(fingers.move(finger(2, 60, 10))).toBe(true);
  jest.advanceTimersByTime(10 * REST);
  expect(rest).not.toHaveBeenCalled();
  expect(fingers.up(2)).toBe(true);
  expect(fingers.down(finger(3, 0, 0), rest)).toBe(false);
});

test('a finger that never came down moves nothing', () => {
  const moved = jest.fn();
  expect(new Fingers(moved).move(finger(9, 5, 5))).toBe(false);
  expect(moved).not.toHaveBeenCalled();
});
