import fc from 'fast-check';
import { stretchesOf } from './stretches';
import { Trace } from './trace';

const NETS = 5;
const changes = fc
  .array(fc.record({ wait: fc.nat({ max: 4 }), net: fc.nat({ max: NETS - 1 }), value: fc.nat({ max: 3 }) }), {
    maxLength: 200,
  })
  .map((steps) => {
    let time = 0;
    return steps.map(({ wait, net, value }) => {
      time += wait;
      return { time, net, value };
    });
  });

test('stretches tell what each lane is from step to step, and where it changes too often to say', () => {
  const lanes = [[0], [1, 2], [4]];
  fc.assert(
    fc.property(changes, fc.nat({ max: 300 }), fc.integer({ min: 1, max: 9 }), (list, from, grain) => {
      const trace = new Trace(new Uint8Array(NETS), 0);
      for (const { time, net, value } of list) trace.push(time, net, value);
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
