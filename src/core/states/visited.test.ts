import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { partOf, sheetOfParts } from '../testing/rig';
import { machineOf } from './machine';
import { visitedMachine } from './visited';

/** A turnstile's total of so many bits, which counts the edges of its clock. */
function total(bits: number) {
  return compile(
    sheetOfParts(
      [
        partOf('clock', 'clk', { hertz: 1e6 }, 0, 'Clk'),
        partOf('counter', 'count', { width: bits }),
        partOf('number', 'shown', { width: bits }, 0, 'Total'),
      ],
      ['clk.Y-count.C', 'count.Q-shown.A'],
    ),
  );
}
const MICROSECOND = 1e6;
const ran = (netlist: ReturnType<typeof total>, until: number) => {
  const run = new Run(netlist, { delays: 'zero' });
  run.advance(until);
  return run;
};
/** The clock rises in the middle of its period. */
const edges = (count: number) => Array.from({ length: count }, (_, i) => (i + 0.5) * MICROSECOND);

test('a total of twenty bits has too many states to go through, but those that it passed are told', () => {
  const netlist = total(20);
  expect(machineOf(netlist).ok).toBe(false);
  const run = ran(netlist, 5 * MICROSECOND);
  const m = visitedMachine(netlist, run.trace, edges(5), run.time)!;
  expect(m.states.map((s) => Number.parseInt(s.code, 2))).toEqual([0, 1, 2, 3, 4, 5]);
  expect(m.transitions.map(({ from, to }) => [from, to])).toEqual([
    [0, 1],
    [1, 2],
    [2, 3],
    [3, 4],
    [4, 5],
  ]);
  expect(m.isPartial).toBe(true);
});

test('what was passed is a part of all states, and all of them once it came round', () => {
  const netlist = total(3);
  const whole = machineOf(netlist);
  if (!whole.ok) throw new Error(whole.problem.message);
  const run = ran(netlist, 20 * MICROSECOND);
  const m = visitedMachine(netlist, run.trace, edges(20), run.time)!;
  expect(m.states.map((s) => [s.code, s.outputs])).toEqual(
    whole.value.states.map((s) => [s.code, s.outputs]),
  );
  const ways = ({ transitions: arrows }: { transitions: readonly { from: number; to: number }[] }) =>
    arrows.map(({ from, to }) => `${from} ${to}`).sort();
  expect(ways(m)).toEqual(ways(whole.value));
});

test('without a clock the states are those between changes', () => {
  const netlist = total(3);
  const run = ran(netlist, 3 * MICROSECOND);
  const m = visitedMachine(netlist, run.trace, [], run.time)!;
  expect(m.states.map((s) => Number.parseInt(s.code, 2))).toEqual([0, 1, 2, 3]);
});
