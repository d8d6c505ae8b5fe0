import fc from 'fast-check';
import { apply } from '../circuit/edit';
import { tidy } from '../drawing/editing/arrange';
import { faultsOf, injected } from '../exercise/kinds/fault/inject';
import { dice } from '../testing/dice';
import { lessonOf, randomSheet } from '../testing/random-circuit';
import { interlock, Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { circuitSignature } from './circuit-signature';

const signature = ({ sheet, lesson }: Sketch) => circuitSignature(sheet, lesson.sheets);

/** Two AND gates behind each other, drawn from either end. */
function chain(isTurned: boolean): Sketch {
  const s = new Sketch();
  if (isTurned) s.place('lamp', 60, 0, 'y');
  for (const name of isTurned ? ['C', 'B', 'A'] : ['A', 'B', 'C'])
    s.place('switch', 0, 8 * s.sheet.parts.size, name);
  s.place('and', 20, 0);
  s.place('and', 40, 4, isTurned ? 'G7' : '');
  if (!isTurned) s.place('lamp', 70, 4, 'Y');
  const of = (label: string) => [...s.sheet.parts.values()].find((p) => p.label === label)!.id;
  const [first, second] = isTurned ? ['and2', 'and1'] : ['and1', 'and2'];
  s.wire(`${of('A')}.Y`, `${first}.${isTurned ? 'B' : 'A'}`);
  s.wire(`${of('B')}.Y`, `${first}.${isTurned ? 'A' : 'B'}`);
  s.wire(`${first}.Y`, `${second}.A`);
  s.wire(`${of('C')}.Y`, `${second}.B`);
  s.wire(`${second}.Y`, 'lamp1.A');
  return s;
}

test('places, names of gates, order of drawing and exchanged inputs do not count', () => {
  expect(signature(chain(true))).toBe(signature(chain(false)));
  expect(signature(interlock())).not.toBe(signature(chain(false)));
});

test('a sheet that is laid out anew is the same; one with another gate, or with pins exchanged where it matters, is not', () => {
  let other = 0;
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), fc.nat(1e6), (sheet, seed) => {
      const lesson = lessonOf(sheet);
      const tidied = expectDone(apply(lesson, tidy(lesson, sheet.id))).sheets[0]!;
      const shuffled = { ...tidied, parts: new Map([...tidied.parts].reverse()) };
      expect(circuitSignature(shuffled, [shuffled])).toBe(circuitSignature(sheet, [sheet]));
      const roll = dice(seed);
      const parts = [...sheet.parts.values()].filter((part) =>
        faultsOf(part).some(({ is }) => is === 'other'),
      );
      if (parts.length === 0) return;
      const part = parts[Math.floor(roll() * parts.length)]!;
      const fault = faultsOf(part).find(({ is }) => is === 'other')!;
      const changed = injected(sheet, { part: part.id, fault });
      expect(circuitSignature(changed, [changed])).not.toBe(circuitSignature(sheet, [sheet]));
      other++;
    }),
    { numRuns: 60 },
  );
  expect(other).toBeGreaterThan(20);
});

test('another wiring of the same gates is another circuit', () => {
  const wired = (to: string) => {
    const s = new Sketch();
    s.place('switch', 0, 0, 'A');
    s.place('switch', 0, 10, 'B');
    s.place('not', 12, 0);
    s.place('or', 24, 4);
    s.place('lamp', 40, 4, 'Y');
    s.wire(`${to}.Y`, 'not1.A');
    s.wire('not1.Y', 'or1.A');
    s.wire(`${to === 'switch1' ? 'switch2' : 'switch1'}.Y`, 'or1.B');
    s.wire('or1.Y', 'lamp1.A');
    return s;
  };
  expect(signature(wired('switch1'))).not.toBe(signature(wired('switch2')));
});
