/** @jest-environment jsdom */
import { act, render } from '@testing-library/react';
import { usePainter } from './usePainter';

/** What the browser would do: the observers of sizes, the frames that are asked for, the clock. */
const observers: ResizeObserverCallback[] = [];
const frames: FrameRequestCallback[] = [];
let now = 0;

beforeEach(() => {
  observers.length = 0;
  Object.defineProperty(document, 'fonts', { configurable: true, value: { ready: new Promise(() => {}) } });
  globalThis.ResizeObserver = class {
    constructor(callback: ResizeObserverCallback) {
      observers.push(callback);
    }
    observe = () => {};
    unobserve = () => {};
    disconnect = () => {};
  };
  globalThis.requestAnimationFrame = (callback) => frames.push(callback);
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  HTMLCanvasElement.prototype.getContext = (() => ({ setTransform: () => {} })) as never;
});

afterEach(() => {
  for (const callback of frames.splice(0)) callback(now);
});

interface PictureProps {
  readonly name: string;
  readonly height?: number;
  readonly onPaint?: () => void;
}

/** A button that asks for its picture to be painted. */
function Picture({ name, height = 100, onPaint }: PictureProps) {
  const { canvas, repaint } = usePainter(
    () => onPaint?.(),
    () => ({ width: 300, height }),
  );
  return (
    <button type="button" onClick={repaint}>
      <canvas ref={canvas} title={name} />
    </button>
  );
}

test('a canvas has its height before its first paint, so that nothing moves under a hand', () => {
  const { getByTitle } = render(<Picture name="picture" height={240} />);
  expect(getByTitle('picture').style.height).toBe('240px');
  expect(observers).toHaveLength(1);
});

test('canvases that take long are painted in a frame each, and none is forgotten', () => {
  const painted: string[] = [];
  const takes = (name: string, ms: number) => () => {
    painted.push(name);
    now += ms;
  };
  const { getByTitle, unmount } = render(
    <>
      <Picture name="drawing" onPaint={takes('drawing', 9)} />
      <Picture name="diagram" onPaint={takes('diagram', 0.5)} />
      <Picture name="chart" onPaint={takes('chart', 0.5)} />
      <Picture name="board" onPaint={takes('board', 9)} />
    </>,
  );
  act(() => {
    for (const isResized of observers) isResized([], {} as ResizeObserver);
  });
  const nextFrame = () => {
    painted.length = 0;
    for (const callback of frames.splice(0)) callback(now);
    return [...painted];
  };
  while (frames.length > 0) nextFrame();
  const ask = (...names: string[]) => {
    for (const name of names) getByTitle(name).parentElement!.click();
  };
  ask('drawing', 'diagram', 'chart', 'board', 'diagram');
  expect(nextFrame()).toEqual(['drawing']);
  // One that asks again stands behind those that wait.
  ask('drawing');
  expect(nextFrame()).toEqual(['diagram', 'chart', 'board']);
  expect(nextFrame()).toEqual(['drawing']);
  expect(frames).toHaveLength(0);
  ask('board', 'drawing');
  expect(nextFrame()).toEqual(['board']);
  // What is gone is not painted any more.
  unmount();
  expect(nextFrame()).toEqual([]);
  expect(frames).toHaveLength(0);
});
