import { compile } from '@/core/netlist/compile';
import { machineOf } from '@/core/states/machine';
import { partOf, sheetOfParts } from '@/core/testing/rig';
import { inLayers, onCircle, roundOf } from './place';
import { namesTogether, stateWords, transitionWords } from './words';

/** A flip-flop that takes D while Go is 1; its output says whether it is going to change. */
function gated() {
  const made = machineOf(
    compile(
      sheetOfParts(
        [
          partOf('switch', 'd', {}, 0, 'D'),
          partOf('switch', 'go', {}, 1, 'Go'),
          partOf('clock', 'clk', {}, 2, 'Clk'),
          partOf('dff', 'q', { enable: 'yes' }),
          partOf('xor', 'x'),
          partOf('lamp', 'y', {}, 0, 'Y'),
        ],
        ['d.Y-q.D', 'go.Y-q.EN', 'clk.Y-q.C', 'q.Q-x.A', 'd.Y-x.B', 'x.Y-y.A'],
      ),
    ),
  );
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
}

test('an arrow says when it is gone and with what outputs', () => {
  const machine = gated();
  const words = (from: number, to: number) =>
    transitionWords(machine, machine.transitions.find((a) => a.from === from && a.to === to)!);
  // D Go: from 0 to 1 only in 11, where Y is 1.
  expect(words(0, 1)).toBe('11 / 1');
  expect(words(0, 0).split(' / ')[0]!.split(' ').sort()).toEqual(['0–', '–0']);
  expect(stateWords('101', new Map())).toBe('5');
  expect(stateWords('1X1', new Map())).toBe('1X1');
  expect(stateWords('101', new Map([['101', 'Full']]))).toBe('Full');
});

test('a machine that goes round stands on a circle, another one in layers', async () => {
  const ring = machineOf(
    compile(
      sheetOfParts(
        [partOf('clock', 'clk'), partOf('dff', 'q'), partOf('not', 'n'), partOf('lamp', 'y')],
        ['q.Q-n.A', 'n.Y-q.D', 'clk.Y-q.C', 'q.Q-y.A'],
      ),
    ),
  );
  if (!ring.ok) throw new Error(ring.problem.message);
  expect(roundOf(ring.value)).toEqual([0, 1]);
  const circle = onCircle(ring.value, [0, 1]);
  expect(circle.states[0]!.x).toBeCloseTo(circle.states[1]!.x);
  expect(circle.states[0]!.y).toBeLessThan(circle.states[1]!.y);
  expect(roundOf(gated())).toBeNull();
  const layers = await inLayers(
    gated(),
    gated().transitions.map(() => '1'),
  );
  expect(layers.states).toHaveLength(2);
  for (const { x, y } of layers.states) {
    expect(x).toBeGreaterThan(0);
    expect(y).toBeLessThan(layers.height);
  }
  expect(layers.arrows.every((a) => a.path.startsWith('M'))).toBe(true);
});

test('the bits of a bus stand together', () => {
  expect(namesTogether(['Total[2]', 'Total[1]', 'Total[0]', 'Turn'])).toBe('Total[2:0] Turn');
  expect(namesTogether(['A[1]', 'B[1]', 'B[0]'])).toBe('A[1] B[1:0]');
  expect(namesTogether(['Q2', 'Q1', 'Q0'])).toBe('Q2 Q1 Q0');
  expect(namesTogether([])).toBe('');
});
