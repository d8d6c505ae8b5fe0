import fc from 'fast-check';
import {
  fitted,
  isInSight,
  LARGEST,
  panned,
  SMALLEST,
  START_VIEW,
  STEP,
  toScreen,
  toSheet,
  zoomed,
} from './viewport';

const view = fc.record({
  x: fc.integer({ min: -500, max: 500 }),
  y: fc.integer({ min: -500, max: 500 }),
  scale: fc.constantFrom(0.2, 0.5, 1, 1.6, 3),
});
const pixel = fc.record({ x: fc.integer({ min: 0, max: 1280 }), y: fc.integer({ min: 0, max: 800 }) });

test('a pixel and its place on the sheet are each other’s inverse', () => {
  fc.assert(
    fc.property(view, pixel, (v, p) => {
      const back = toScreen(v, toSheet(v, p.x, p.y));
      expect(back.x).toBeCloseTo(p.x, 6);
      expect(back.y).toBeCloseTo(p.y, 6);
    }),
  );
});

test('zooming keeps what is under the pointer under the pointer, within limits', () => {
  fc.assert(
    fc.property(view, pixel, fc.constantFrom(0.01, 0.8, 1.25, 50), (v, p, factor) => {
      const next = zoomed(v, factor, p.x, p.y);
      const before = toSheet(v, p.x, p.y);
      const after = toSheet(next, p.x, p.y);
      expect(after.x).toBeCloseTo(before.x, 6);
      expect(after.y).toBeCloseTo(before.y, 6);
      expect(next.scale).toBeGreaterThanOrEqual(SMALLEST);
      expect(next.scale).toBeLessThanOrEqual(LARGEST);
    }),
  );
});

test('panning moves the paper with the hand', () => {
  const p = toScreen(panned(START_VIEW, 30, -20), { x: 5, y: 5 });
  const before = toScreen(START_VIEW, { x: 5, y: 5 });
  expect([p.x - before.x, p.y - before.y].map(Math.round)).toEqual([30, -20]);
});

test('fitting shows a box whole, in the middle, and enlarges little things only a little', () => {
  const box = { x0: 10, y0: 20, x1: 110, y1: 60 };
  const v = fitted(box, 800, 600);
  const a = toScreen(v, { x: box.x0, y: box.y0 });
  const b = toScreen(v, { x: box.x1, y: box.y1 });
  expect(Math.min(a.x, a.y)).toBeGreaterThanOrEqual(0);
  expect(b.x).toBeLessThanOrEqual(800);
  expect(b.y).toBeLessThanOrEqual(600);
  expect((a.x + b.x) / 2).toBeCloseTo(400, 6);
  expect(fitted({ x0: 0, y0: 0, x1: 1, y1: 1 }, 800, 600).scale).toBe(1.6);
  expect(fitted(null, 800, 600)).toEqual(START_VIEW);
  expect(STEP).toBe(14);
});

test('what is in sight', () => {
  const box = { x0: 0, y0: 0, x1: 10, y1: 5 };
  expect(isInSight(fitted(box, 300, 200), box, 300, 200)).toBe(true);
  expect(isInSight(START_VIEW, box, 14 * STEP, 9 * STEP)).toBe(true);
  expect(isInSight(START_VIEW, box, 14 * STEP - 1, 9 * STEP)).toBe(false);
  expect(isInSight(panned(START_VIEW, 0, -4.1 * STEP), box, 300, 200)).toBe(false);
});
