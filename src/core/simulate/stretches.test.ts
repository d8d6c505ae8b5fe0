import fc from 'fast-check';
import { random } from '../packages/random';
import { pushOne } from '../testing/push-one';
import { changes, NETS } from '../testing/random-changes';
import { stretchesOf } from './stretches';
import { Trace } from './trace';

test('stretches tell what each lane is from step to step, and where it changes too often to say', () => {
  const lanes = [[0], [1, 2], [4]];
  fc.assert(
    fc.property(changes, fc.nat({ max: 300 }), fc.integer({ min: 1, max: 9 }), (list, from, grain) => {
      const trace = new Trace(new Uint8Array(NETS), 0);
      for (const { time, net, value } of list) pushOne(trace, time, net, value);
      const to = from + 120;
      for (const [l, stretches] of stretchesOf(trace, lanes, from, to, grain).entries()) {
        expect(stretches[0]!.from).toBe(from);
        expect(stretches.at(-1)!.to).toBe(to);
        for (const [i, stretch] of stretches.entries()) {
          if (i > 0) expect(stretch.from).toBe(stretches[i - 1]!.to);
          if (stretch.busy) continue;
          for (let t = stretch.from; t < stretch.to; t++)
            expect(stretch.bits).toEqual(lanes[l]!.map((net) => trace.valueAt(net, t)));
        }
        // Two at most for each step, however much happens.
        expect(stretches.length).toBeLessThanOrEqual(2 * Math.ceil(120 / grain) + 1);
      }
    }),
  );
});

test('a hundred thousand changes: busy where they are, and told rightly where they are not', () => {
  const trace = new Trace(new Uint8Array(3), 0);
  // Net 0 turns over each ps up to 80,000; net 1 at 30,000 and 60,000; net 2 never.
  for (let t = 1; t <= 80_000; t++) {
    pushOne(trace, t, 0, t % 2);
    if (t === 30_000 || t === 60_000) pushOne(trace, t, 1, t === 30_000 ? 1 : 0);
  }
  const grain = 4000;
  const [quick, slow, still] = stretchesOf(trace, [[0], [1], [2]], 0, 100_000, grain);
  expect(quick!.map((s) => s.busy)).toEqual([false, true, false]);
  expect(quick![1]!.to).toBeGreaterThanOrEqual(80_000);
  expect(quick![2]!.bits).toEqual([0]);
  expect(slow!.map((s) => s.bits[0])).toEqual([0, 1, 0]);
  expect(Math.abs(slow![1]!.from - 30_000)).toBeLessThan(grain);
  expect(Math.abs(slow![2]!.from - 60_000)).toBeLessThan(grain);
  expect(still).toEqual([{ from: 0, to: 100_000, bits: [0], busy: false }]);
  // Close enough to be told apart, the blocks are not used, and all is exact.
  const near = stretchesOf(trace, [[1]], 29_000, 31_000, 10)[0]!;
  expect(near.map((s) => [s.from, s.to, s.bits[0]])).toEqual([
    [29_000, 30_000, 0],
    [30_000, 31_000, 1],
  ]);
});

test('a trace that has dropped its oldest part tells the rest as one that has kept all', () => {
  const roll = random(3);
  const kept = new Trace(new Uint8Array(600), 0);
  const trimmed = new Trace(new Uint8Array(600), 0, 150_000);
  const lanes = [[0], [1, 2], [599]];
  const look = (from: number, to: number, grain: number) =>
    expect(stretchesOf(trimmed, lanes, from, to, grain)).toEqual(stretchesOf(kept, lanes, from, to, grain));
  let time = 0;
  // Half of the nets rest by turns, so that successive summaries in the same memory differ.
  for (let i = 0; i < 600_000; i++) {
    if (roll() < 0.4) time++;
    const net = Math.floor(((i >> 14) % 2 ? 600 : 300) * roll());
    const value = roll() < 0.5 ? 0 : 1;
    for (const trace of [kept, trimmed]) pushOne(trace, time, net, value);
    if (i % 37_000 === 0) look(trimmed.begins, time, Math.max(1, Math.floor(time / 400)));
  }
  expect(trimmed.trimmed).toBe(true);
  for (const share of [0, 0.3, 0.7]) {
    const from = Math.ceil(trimmed.begins + share * (time - trimmed.begins));
    for (const grain of [1, 50, 2000]) look(from, time, grain);
  }
});

test('a trace that was drawn from its beginning tells the same as one that is drawn at its end', () => {
  const roll = random(5);
  const [drawn, undrawn] = [0, 1].map(() => new Trace(new Uint8Array(40), 0)) as [Trace, Trace];
  const lanes = [[0], [1, 2]];
  let time = 0;
  for (let i = 0; i < 4000; i++) {
    if (i < 2) stretchesOf(drawn, lanes, 0, time, 1);
    // Some instants at once, some of which lie across two blocks, or go on with the next call.
    const sizes = Array.from({ length: 1 + Math.floor(roll() * 4) }, () => 1 + Math.floor(roll() * 30));
    const ends = Int32Array.from(sizes, (_, at) => sizes.slice(0, at + 1).reduce((a, b) => a + b, 0));
    const times = Float64Array.from(sizes, () => {
      time += roll() < 0.8 ? 1 : 0;
      return time;
    });
    // The nets of the lanes change seldom, so that where they change can be told.
    const net = () => (roll() < 0.003 ? Math.floor(roll() * 3) : 3 + Math.floor(roll() * 37));
    const words = Int32Array.from({ length: ends.at(-1)! }, () => (net() << 4) | (roll() < 0.5 ? 0 : 1));
    for (const trace of [drawn, undrawn]) trace.push(words, times, ends, sizes.length);
  }
  expect(drawn.length).toBeGreaterThan(3 * 2 ** 15);
  for (const grain of [1, 30, 400, 3000])
    expect(stretchesOf(drawn, lanes, 0, time, grain)).toEqual(stretchesOf(undrawn, lanes, 0, time, grain));
});
