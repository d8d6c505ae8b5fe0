import fc from 'fast-check';
import { Wheel } from './wheel';

/** The behaviour of a wheel, modelled with a list. */
class Plain {
  private readonly due = new Map<number, number>();
  add(gate: number, time: number) {
    this.due.set(gate, time);
  }
  remove(gate: number) {
    this.due.delete(gate);
  }
  has(gate: number) {
    return this.due.has(gate);
  }
  earliest() {
    return Math.min(Number.POSITIVE_INFINITY, ...this.due.values());
  }
  take(time: number) {
    const gates = [...this.due].filter(([, t]) => t === time).map(([g]) => g);
    for (const g of gates) this.due.delete(g);
    return gates.sort((a, b) => a - b);
  }
}

const GATES = 12;

test.each<[string, number[]]>([
  ['of one length', [6000]],
  ['with a divisor', [6000, 8000, 14_000]],
  ['without one', [7, 11, 6000, 8191]],
  ['very short and very long', [1, 999_999_937]],
])('takes out what is due in the order of time: delays %s', (_, delays) => {
  const step = fc.record({
    kind: fc.constantFrom('add', 'add', 'remove', 'take'),
    gate: fc.nat(GATES - 1),
    delay: fc.nat(delays.length - 1),
    late: fc.nat(5000),
  });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 200 }), (steps) => {
      const wheel = new Wheel(GATES, [Float64Array.from(delays)]);
      const plain = new Plain();
      const into = new Int32Array(GATES);
      let now = 0;
      for (const { kind, gate, delay, late } of steps) {
        if (kind === 'add' && !plain.has(gate)) {
          const time = now + delays[delay]!;
          wheel.add(gate, time, wheel.dayOf(time));
          plain.add(gate, time);
        } else if (kind === 'remove' && plain.has(gate)) {
          wheel.remove(gate);
          plain.remove(gate);
        } else if (kind === 'take') {
          const time = plain.earliest();
          expect(wheel.earliest(now)).toBe(time);
          if (time === Number.POSITIVE_INFINITY) {
            // Something else happens at any time, such as the edge of a clock.
            now += late;
            continue;
          }
          now = time;
          const count = wheel.take(now, into);
          expect([...into.subarray(0, count)].sort((a, b) => a - b)).toEqual(plain.take(now));
        }
        expect(wheel.earliest(now)).toBe(plain.earliest());
      }
    }),
    { numRuns: 200 },
  );
});
