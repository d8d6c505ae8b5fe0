import { type Netlist, storeName } from '../netlist/netlist';
import { Run } from '../simulate/run';
import type { RunOptions } from '../simulate/run-options';
import type { Logic } from '../values/logic';
import { dice } from './dice';

const DELAYS = ['parts', 'parts', 'unit', 'zero'] as const;

/** Everything that can be seen of a run; the order of changes within an instant is left open. */
export function seenOf(run: Run) {
  const changes: [number, number, number][] = [];
  for (const { time, net, value } of run.trace.changes(Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY))
    changes.push([time, net, value]);
  changes.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const violations = run.violations.map((v) => JSON.stringify(v)).sort();
  return { ...stateOf(run), changes: changes.join(' '), violations, unsettled: [...run.unsettled].sort() };
}

const stateOf = (run: Run) => ({
  values: run.values.join(''),
  time: run.time,
  events: run.events,
  steps: run.steps,
  next: run.next(),
  violations: run.violationCount,
});

/** What a person or a page does with a run. @param isPlain with delays, and without unknown values. */
function play(
  netlist: Netlist,
  seed: number,
  isPlain: boolean,
  kernelAfter: number,
  seen: (run: Run) => void,
): Run {
  const next = dice(seed);
  const roll = (most: number) => Math.floor(next() * most);
  const delays = DELAYS[roll(isPlain ? 3 : 4)]!;
  const options: RunOptions = {
    delays,
    powerUp: roll(3) as Logic,
    kernelAfter,
    mostChanges: [0, 100_000, 100_000][roll(3)]!,
  };
  let run = new Run(netlist, options);
  const free = netlist.sources.filter(({ kind }) => kind === 'switch');
  for (let step = 0; step < 12; step++) {
    const what = roll(8);
    if (what < 4)
      run.set(
        free
          .filter(() => roll(2) === 0)
          .map((s) => [s.net, roll(8) < 6 || isPlain ? roll(2) : roll(4)] as [number, Logic]),
      );
    else if (what === 4 && netlist.storage.length > 0)
      run.putState(
        new Map([...netlist.storage.keys()].map((i) => [storeName(netlist, i), roll(3) as Logic])),
      );
    else if (what === 5) run = new Run(netlist, options, structuredClone(run.save()));
    seen(run);
    const unit = [1000, 500, 1, 137][roll(4)]!;
    const until = run.time + unit * roll(60);
    const budget = roll(3) === 0 ? 1 + roll(30) : Number.POSITIVE_INFINITY;
    for (let slice = 0; slice < 40 && !run.advance(until, budget); slice++) seen(run);
    seen(run);
  }
  return run;
}

/** Plays a run with fast engines and one with the reference alone, and expects them to be the same all along. */
export function expectSameRun(netlist: Netlist, seed: number, isPlain = false): void {
  const right: string[] = [];
  const reference = play(netlist, seed, isPlain, Number.POSITIVE_INFINITY, (run) =>
    right.push(JSON.stringify(stateOf(run))),
  );
  let at = 0;
  const fast = play(netlist, seed, isPlain, 0, (run) => {
    const is = JSON.stringify(stateOf(run));
    if (is !== right[at]) expect({ seed, at, is }).toEqual({ seed, at, is: right[at] });
    at++;
  });
  expect({ seed, ...seenOf(fast) }).toEqual({ seed, ...seenOf(reference) });
}
