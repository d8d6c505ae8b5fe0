import { paintSoon } from './picture-queue';

/** Frames that are asked for, and a clock that the pictures move. */
const frames: (() => void)[] = [];
let now = 0;

beforeEach(() => {
  Object.assign(globalThis, { requestAnimationFrame: (work: () => void) => frames.push(work) });
  jest.spyOn(performance, 'now').mockImplementation(() => now);
});
afterEach(() => jest.restoreAllMocks());

const nextFrame = () => frames.shift()!();

test('three hundred pictures take a few milliseconds of each frame, and all are painted', () => {
  let painted = 0;
  for (let i = 0; i < 300; i++)
    paintSoon(() => {
      painted++;
      now += 3;
    });
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
  paintSoon(() => painted.push('first'));
  paintSoon(() => painted.push('gone'))();
  nextFrame();
  expect(frames).toHaveLength(0);
  paintSoon(() => painted.push('later'));
  nextFrame();
  expect(painted).toEqual(['first', 'later']);
});
