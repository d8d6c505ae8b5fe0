import type { Steps } from '@/core/values/steps';
import { paintSoon } from './picture-queue';

/** Frames that are asked for, and a clock that the pictures move. */
const frames: (() => void)[] = [];
let now = 0;

beforeEach(() => {
  Object.assign(globalThis, { requestAnimationFrame: (work: () => void) => frames.push(work) });
  jest.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => jest.restoreAllMocks());

/** Each of these works as a step of its own. */
function* steps(...works: (() => void)[]): Steps<void> {
  for (const [i, work] of works.entries()) {
    if (i > 0) yield;
    work();
  }
}

const nextFrame = () => frames.shift()!();

test('three hundred pictures take a few milliseconds of each frame, and all are painted', () => {
  let painted = 0;
  for (let i = 0; i < 300; i++)
    paintSoon(
      steps(() => {
        painted++;
        now += 3;
      }),
    );
  const perFrame: number[] = [];
  while (frames.length > 0) {
    const before = painted;
    nextFrame();
    perFrame.push(painted - before);
  }
  expect(painted).toBe(300);
  expect(Math.max(...perFrame)).toBe(3);
  expect(perFrame).toHaveLength(100);
});

test('a picture that is gone is not painted, and a later one begins anew', () => {
  const painted: string[] = [];
  paintSoon(steps(() => painted.push('first')));
  paintSoon(steps(() => painted.push('gone')))();
  nextFrame();
  expect(frames).toHaveLength(0);
  paintSoon(steps(() => painted.push('later')));
  nextFrame();
  expect(painted).toEqual(['first', 'later']);
});

test('one large picture is painted over several frames', () => {
  const work = () => {
    now += 5;
  };
  paintSoon(steps(work, work, work, work));
  const taken: number[] = [];
  while (frames.length > 0) {
    const before = now;
    nextFrame();
    taken.push(now - before);
  }
  expect(taken).toEqual([10, 10]);
});
