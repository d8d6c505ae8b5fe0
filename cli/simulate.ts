import '../src/core/simulate/with-kernel';
import type { Delays, Stimulus } from '../src/core/circuit/time-setup';
import { compareDump } from '../src/core/formats/compare-dump';
import { readStimulus, type StimulusRow, sampleHeading, sampleLine } from '../src/core/formats/csv';
import { withoutGzip } from '../src/core/formats/gzip';
import { readVcd, signalsOf, writeVcd } from '../src/core/formats/vcd';
import { type Netlist, sourceKey } from '../src/core/netlist/netlist';
import { drivenBy, drivingOf } from '../src/core/simulate/drive';
import { POWER_UP, Run } from '../src/core/simulate/run';
import type { Logic } from '../src/core/values/logic';
import { printable } from '../src/core/values/printable';
import { justBefore, readDuration } from '../src/core/values/time';
import { BadInput } from './bad-input';
import { MOST_STEPS } from './choices';
import { type Circuit, type CircuitOptions, compiled, openCircuit, textOf } from './open-circuit';
import { complain, progressLine, writeLines, writeStats } from './write-out';

interface Options extends CircuitOptions {
  readonly stimulus?: string;
  readonly until?: string;
  readonly mostSteps?: string;
  readonly delays: Delays;
  readonly samples?: string;
  readonly vcd?: string;
  readonly compare?: string;
  readonly stats?: boolean;
}

/** Steps in one slice of a run. */
const SLICE = 1_000_000;
/** Changes that the trace holds for a dump: 4 bytes each, and 12 each instant. */
const MOST_CHANGES = 20_000_000;

/**
 * `manege simulate`: runs a circuit on a stimulus.
 * @returns whether the run equals the dump with which it is compared.
 * @throws BadInput for a circuit or stimulus that cannot be read.
 */
export async function simulate(file: string, options: Options): Promise<boolean> {
  const circuit = await openCircuit(file, options);
  const bench = options.stimulus === undefined ? benchOf(circuit) : null;
  const netlist = drivenBy(compiled(circuit), bench);
  const until = options.until === undefined ? (bench?.until ?? null) : timeOf(options.until);
  const rows = options.stimulus === undefined ? [] : await stimulusOf(options.stimulus, netlist);
  const begun = performance.now();
  const run = new Run(netlist, {
    delays: options.delays,
    powerUp: POWER_UP[circuit.lesson.settings.powerUp],
    inputs: rows[0]?.time === 0 ? inputsOf(netlist, rows[0]) : undefined,
    mostChanges: options.vcd || options.compare ? MOST_CHANGES : 0,
  });
  const progress = progressLine('running');
  const most = options.mostSteps === undefined ? MOST_STEPS : stepsOf(options.mostSteps);
  const samples = [sampleHeading(netlist)];
  const end = until ?? rows.at(-1)?.time ?? 0;
  for (const [i, row] of rows.entries()) {
    if (until !== null && row.time > until) break;
    advance(run, row.time, most, progress, end);
    run.set(row.changes);
    // A sample shows the effect of its row just before the next row.
    const next = rows[i + 1]?.time;
    if (next === undefined || (until !== null && next > until)) finish(run, until, most);
    else advance(run, Math.max(row.time, justBefore(next)), most, progress, end);
    samples.push(sampleLine(run, row.time));
  }
  if (rows.length === 0) finish(run, until, most);
  const elapsedMs = performance.now() - begun;
  progress(1);
  if (options.samples) await writeLines(samples, options.samples);
  else if (!options.vcd && !options.stats && !options.compare)
    await writeLines(bench ? (bench.printed ?? []).map(({ text }) => printable(text)) : samples);
  if (options.vcd) {
    const signals = signalsOf(netlist, circuit.sheet, circuit.lesson.sheets);
    await writeLines(writeVcd(run.trace, signals, run.time), options.vcd);
  }
  tell(run, file, options);
  if (options.stats)
    writeStats({
      elapsedMs: +elapsedMs.toFixed(3),
      rows: rows.length,
      gates: netlist.op.length,
      events: run.events,
      endNs: run.time / 1000,
      violations: run.violationCount,
    });
  return options.compare === undefined || compared(run, circuit, options.compare);
}

/** The stimulus that a test bench has become, if the circuit comes from one. */
function benchOf({ sheet }: Circuit): Stimulus | null {
  const driving = drivingOf(sheet.time);
  return driving?.until === undefined ? null : driving;
}

/** The values of a row by source key. A row at time 0 sets the inputs before power-up, so a reset it releases never acts. */
function inputsOf({ sources }: Netlist, { changes }: StimulusRow): ReadonlyMap<string, Logic> {
  const values = new Map(changes);
  return new Map(
    sources.flatMap((s) => {
      const value = values.get(s.net);
      return value === undefined ? [] : [[sourceKey(s), value] as const];
    }),
  );
}

async function compared(run: Run, { sheet, lesson }: Circuit, file: string): Promise<boolean> {
  const read = readVcd(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const signals = signalsOf(run.netlist, sheet, lesson.sheets);
  const { compared: count, first } = compareDump(run.trace, signals, read.value, run.time);
  if (count === 0) throw new BadInput(`${file}: no signal in it has the name of one in the circuit`);
  const line = first
    ? `different: ${first.signal} at ${first.time / 1000} ns is ${first.run} here and ${first.dump} in ${file}`
    : `the same in ${count} signals`;
  await writeLines([printable(line)]);
  return first === null;
}

function advance(
  run: Run,
  until: number,
  most: number,
  progress: (share: number) => void,
  end: number,
): void {
  while (!run.advance(until, Math.min(SLICE, most - run.steps))) {
    if (run.steps >= most)
      throw new BadInput(
        `the run has made ${most} steps up to ${run.time / 1000} ns, and is ended there: see --until and --most-steps`,
      );
    if (end > 0) progress(Math.min(0.99, run.time / end));
  }
}

function stepsOf(text: string): number {
  const steps = Number(text);
  if (Number.isSafeInteger(steps) && steps > 0) return steps;
  throw new BadInput(`--most-steps ${text}: a whole number above 0 is needed`);
}

/**
 * Runs to the given end, or without one until the circuit settles; a circuit that never settles ends with the
 * stimulus.
 */
function finish(run: Run, until: number | null, most: number): void {
  const moves = run.netlist.sources.some((s) => s.kind === 'clock' || s.kind === 'stimulus');
  if (until !== null) advance(run, until, most, () => {}, 0);
  else if (!moves && !run.advance(Number.POSITIVE_INFINITY, most - run.steps))
    throw new BadInput('the circuit never comes to rest: say with --until where the run ends');
}

function timeOf(text: string): number {
  const ps = readDuration(text);
  if (ps !== null) return ps;
  const isNegative = readDuration(text.replace(/^\s*-/, '')) !== null;
  throw new BadInput(
    `--until ${text}: ${isNegative ? 'the time is negative' : 'a time is needed: 40 (in ns), 2 ms, 4 h 33 min'}`,
  );
}

async function stimulusOf(file: string, netlist: Netlist): Promise<StimulusRow[]> {
  const name = withoutGzip(file);
  if (!name.endsWith('.csv') && !name.endsWith('.vcd'))
    throw new BadInput(`${file}: a stimulus is CSV (*.csv) or a value change dump (*.vcd)`);
  const text = await textOf(file);
  if (name.endsWith('.vcd')) return stimulusFromVcd(file, text, netlist);
  const read = readStimulus(text, netlist);
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  return read.value;
}

/** The changes of those signals of a dump that are called as inputs are. */
function stimulusFromVcd(file: string, text: string, netlist: Netlist): StimulusRow[] {
  const read = readVcd(text);
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const byTime = new Map<number, [number, Logic][]>();
  let found = 0;
  for (const t of netlist.inputs) {
    const signal = read.value.find(
      (s) => s.name === t.name.replaceAll(/\s+/g, '_') && s.width === t.nets.length,
    );
    if (!signal) continue;
    found++;
    for (const { time, bits } of signal.changes) {
      const list = byTime.get(time) ?? [];
      for (const [bit, net] of t.nets.entries()) list.push([net, bits[bit]!]);
      byTime.set(time, list);
    }
  }
  if (found === 0) throw new BadInput(`${file}: no signal in it has the name of an input of the circuit`);
  return [...byTime].sort((a, b) => a[0] - b[0]).map(([time, changes]) => ({ time, changes }));
}

/** The problems that a run found, in words on the terminal. */
function tell(run: Run, file: string, options: Options): void {
  const say = (text: string) => complain(`${file}: ${text}`);
  const { netlist } = run;
  const first = run.violations[0];
  if (first) {
    const part = netlist.partName(netlist.owner[netlist.storage[first.store]!]!);
    say(
      `${run.violationCount} ${run.violationCount === 1 ? 'time' : 'times'} data moved too near to a clock edge; first at ${first.time / 1000} ns, ${first.kind} time of ${part} missed by ${first.short / 1000} ns`,
    );
  }
  if (run.unsettled.size > 0) say(`${run.unsettled.size} nets never came to rest and were set to X`);
  if (run.trace.trimmed && options.vcd)
    say(`the dump begins at ${run.trace.begins / 1000} ns: what was before did not fit`);
}
