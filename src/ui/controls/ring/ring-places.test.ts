import { families, PLACEABLE } from '@/core/parts/catalogue';
import { dice } from '@/core/testing/dice';
import { RingHand, Stroke } from './ring-hand';
import { evenly, fanned, ringPlace, wayBetween } from './ring-places';
import { INNER, NEAREST, OUTER } from './ring-size';

const SLICES = { recent: evenly(4), families: evenly(8), parts: fanned(6, 0) };
const at = (r: number, turns: number) => ({
  x: r * Math.sin(2 * Math.PI * turns),
  y: -r * Math.cos(2 * Math.PI * turns),
});

test('each circle is told apart, and each slice of it, the first at the top', () => {
  expect(ringPlace(at(5, 0), SLICES)).toEqual({ on: 'hub' });
  expect(ringPlace(at(40, 0.25), SLICES)).toEqual({ on: 'recent', index: 1 });
  expect(ringPlace(at(40, 0.25), { ...SLICES, recent: [] })).toEqual({ on: 'hub' });
  expect(ringPlace(at(80, 0.99), SLICES)).toEqual({ on: 'family', index: 0 });
  expect(ringPlace(at(80, 0.5), SLICES)).toEqual({ on: 'family', index: 4 });
  expect(ringPlace(at(150, 0), SLICES)).toEqual({ on: 'part', index: 0 });
  expect(ringPlace(at(400, 0), SLICES)).toEqual({ on: 'outside' });
});

test('parts fan out around the side of their family, the first straight ahead; beyond them is nothing', () => {
  const parts = fanned(4, Math.PI / 2);
  const over = (turns: number) => ringPlace(at(150, turns), { ...SLICES, parts });
  expect(over(0.25)).toEqual({ on: 'part', index: 0 });
  expect(over(0.25 + 1 / 13)).toEqual({ on: 'part', index: 1 });
  expect(over(0.25 - 1 / 13)).toEqual({ on: 'part', index: 2 });
  expect(over(0.75)).toEqual({ on: 'gap' });
  expect(fanned(40, 0).reduce((sum, { from, to }) => sum + to - from, 0)).toBeCloseTo(2 * Math.PI);
});

test('a flick that jumps from the hub to the rim passes through its family', () => {
  const way = wayBetween({ x: 0, y: 0 }, at(150, 0.25)).map((p) => ringPlace(p, SLICES));
  expect(way).toContainEqual({ on: 'family', index: 2 });
  expect(way.at(-1)!.on).not.toBe('family');
});

test('a family that was reached is kept on the way to its parts, until the hand rests on another or goes back', () => {
  const hand = new RingHand([6, 6, 6, 6], 4);
  hand.move(at(82, 0.25));
  expect(hand.family).toBe(1);
  hand.move(at(82, 0.5));
  expect(hand.family).toBe(1);
  hand.rest();
  expect(hand.family).toBe(2);
  hand.move(at(5, 0));
  hand.move(at(82, 0));
  expect(hand.family).toBe(0);
});

test('a stroke that begins at once means its directions, however slow; a hand that has rested goes by what it sees', () => {
  const [press, middle] = [
    { x: 40, y: 500 },
    { x: 200, y: 400 },
  ];
  const quick = new Stroke(press, middle, 1000);
  // The page was busy: the moves lie far apart, but the hand never rested.
  for (const [i, time] of [900, 1100, 1350, 1600].entries())
    expect(quick.move({ x: 40, y: 480 - 30 * i }, time)).toEqual({ x: 0, y: -20 - 30 * i });
  expect(quick.hasGone).toBe(true);
  const late = new Stroke(press, middle, 1000);
  expect(late.move({ x: 42, y: 500 }, 1400)).toEqual({ x: 2, y: 0 });
  expect(late.hasGone).toBe(false);
  expect(late.move({ x: 60, y: 480 }, 1410)).toEqual({ x: -140, y: 80 });
  // A pause on the way is a look.
  quick.move({ x: 40, y: 388 }, 1650);
  expect(quick.move({ x: 100, y: 390 }, 1990)).toEqual({ x: -100, y: -10 });
});

/** A straight way with a tremor across it: none at its ends, so that the hand gets where it wants to. */
function trembling(
  from: { x: number; y: number },
  to: { x: number; y: number },
  tremor: number,
  roll: () => number,
) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const across = { x: -(to.y - from.y) / length, y: (to.x - from.x) / length };
  return Array.from({ length: 13 }, (_, i) => {
    const share = i / 12;
    const aside = (2 * roll() - 1) * tremor * Math.sin(Math.PI * share);
    return {
      x: from.x + (to.x - from.x) * share + across.x * aside,
      y: from.y + (to.y - from.y) * share + across.y * aside,
    };
  });
}

test('of 2,000 straight strokes to a family and on to a part, with 20 px of tremor, none chooses another', () => {
  const roll = dice(1);
  const counts = families(PLACEABLE).map(({ kinds }) => kinds.length);
  let wrong = 0;
  for (let stroke = 0; stroke < 2000; stroke++) {
    const family = Math.floor(roll() * counts.length);
    const part = Math.floor(roll() * counts[family]!);
    const hand = new RingHand(counts, 4);
    const side = evenly(counts.length)[family]!.middle / (2 * Math.PI);
    const goal = fanned(counts[family]!, 2 * Math.PI * side)[part]!.middle / (2 * Math.PI);
    const [first, last] = [at((NEAREST + INNER) / 2, side), at((INNER + OUTER) / 2, goal)];
    for (const p of trembling({ x: 0, y: 0 }, first, 20, roll)) hand.move(p);
    let over = hand.move(first).over;
    for (const p of trembling(first, last, 20, roll)) ({ over } = hand.move(p));
    if (hand.family !== family || over.on !== 'part' || over.index !== part) wrong++;
  }
  expect(wrong).toBe(0);
});
