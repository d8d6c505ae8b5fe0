import { DEFAULT_WAVE } from '../../../circuit/default-wave';
import type { Lesson } from '../../../circuit/lesson';
import type { Settings, Sheet } from '../../../circuit/sheet';
import { SignalName } from '../../../circuit/signal-name';
import { DELAYS, MOST_READINGS, type Stimulus, Wave } from '../../../circuit/time-setup';
import { compile } from '../../../netlist/compile';
import { type Netlist, sourceKey, type Terminal } from '../../../netlist/netlist';
import { drivenBy } from '../../../simulate/drive';
import { POWER_UP, Run } from '../../../simulate/run';
import { clockAt, levelAt, type Timed } from '../../../simulate/timed-sources';
import { clockEdges } from '../../../timing/clock-edges';
import { type Logic, letterOf, ZERO } from '../../../values/logic';
import { sameName } from '../../../values/names';
import { done, type Result, refused } from '../../../values/result';
import { type Infer, list, moment, whole, z } from '../../../values/schema';
import { justAfter, justBefore } from '../../../values/time';

/** Most inputs or outputs of an expected run. */
const MOST_SIGNALS = 32;

const Width = whole(1, 64);

/** The expected values of an output at each reading: its bits, the highest first, `x` for a don't-care. */
const ExpectedReadings = z.object({
  name: SignalName,
  width: Width,
  values: list(
    z.string().check(z.regex(/^[01x]{1,64}$/, 'an expected value holds only 0, 1 and x')),
    MOST_READINGS,
  ),
});

/**
 * The expected run of a circuit with storage: the waveform of each input, the reading times in ps, and the
 * expected outputs then.
 */
export const ExpectedRun = z
  .object({
    kind: z.literal('run'),
    inputs: z
      .array(z.object({ name: SignalName, width: Width, wave: Wave }))
      .check(z.minLength(1, 'at least one input is needed'), z.maxLength(MOST_SIGNALS)),
    outputs: z
      .array(ExpectedReadings)
      .check(z.minLength(1, 'at least one output is needed'), z.maxLength(MOST_SIGNALS)),
    readings: z
      .array(moment())
      .check(z.minLength(1, 'at least one reading is needed'), z.maxLength(MOST_READINGS)),
    delays: z.enum(DELAYS),
    powerUp: z.enum(['0', '1', 'X']),
  })
  .check((context) => {
    const { inputs, outputs, readings } = context.value;
    const complain = (message: string, path: (string | number)[] = []) =>
      context.issues.push({ code: 'custom', message, path, input: context.value });
    const names = [...inputs, ...outputs].map((s) => s.name);
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    for (const [i, time] of readings.entries())
      if (i > 0 && time <= readings[i - 1]!)
        complain('readings stand in the order of time, each once', ['readings', i]);
    for (const [i, { name, width, values }] of outputs.entries()) {
      if (values.length !== readings.length)
        complain(`${name} has ${values.length} values where ${readings.length} are needed`, ['outputs', i]);
      else if (values.some((v) => v.length !== width))
        complain(`${name} has a value that is not of ${width} ${width === 1 ? 'bit' : 'bits'}`, [
          'outputs',
          i,
        ]);
    }
  });
export type ExpectedRun = Infer<typeof ExpectedRun>;

/** Most steps of a run that is read; it keeps a circuit that swings by itself, or a stimulus of 1 ps, from taking for ever. */
const MOST_STEPS = 250_000;
/** How long the last values of a stimulus stand before they are read, in ps, where nothing else tells. */
const LAST_STEP = 10_000;

/** An expected run, and whether it is read at the edges of a clock. */
export interface OwnRun {
  readonly expected: ExpectedRun;
  readonly clocked: boolean;
}

/** The readings of a run. */
export interface Readings {
  /** For each output that was asked for its values, one a reading: bits, the highest first. */
  readonly values: readonly (readonly string[])[];
  /** Readings that were reached before the run became too long. */
  readonly reached: number;
  /** Whether a loop kept changing within an instant. */
  readonly swings: boolean;
}

/**
 * The stimulus of an expected run, for a circuit whose inputs and outputs are found by their names; it
 * carries the expected outputs at each reading.
 */
export function stimulusOf(expected: ExpectedRun, netlist: Netlist, name: string): Stimulus {
  const inputs = expected.inputs.flatMap(({ name: input, wave }) => {
    const there = netlist.inputs.find((t) => sameName(t.name, input));
    return there ? [{ part: there.part, wave }] : [];
  });
  const outputs = expected.outputs.flatMap(({ name: output, width, values }) => {
    const there = netlist.outputs.find((t) => sameName(t.name, output));
    if (there?.nets.length !== width) return [];
    // Each value stands from the reading before it on.
    const from = (i: number) => (i === 0 ? 0 : justAfter(expected.readings[i - 1]!));
    return [{ part: there.part, course: values.map((v, i) => `${from(i)}:${v.toUpperCase()}`).join(' ') }];
  });
  if (outputs.length === 0) return { name, inputs };
  const at = [...expected.readings];
  return { name, inputs, expected: { until: at.at(-1)!, outputs, at } };
}

/**
 * Runs a circuit and reads some of its terminals at times in ps.
 * @param netlist with its inputs driven.
 * @param outputs the terminals to read; null for a missing one, which reads as nothing.
 */
export function readRun(
  netlist: Netlist,
  outputs: readonly (Terminal | null)[],
  readings: readonly number[],
  { delays, powerUp }: Pick<Settings, 'delays' | 'powerUp'>,
): Readings {
  const run = new Run(netlist, { delays, powerUp: POWER_UP[powerUp], mostChanges: 0 });
  const values = outputs.map((): string[] => []);
  let reached = 0;
  for (const time of readings) {
    if (!run.advance(time, MOST_STEPS - run.steps)) break;
    reached++;
    for (const [o, terminal] of outputs.entries())
      values[o]!.push(
        terminal
          ? [...terminal.nets]
              .reverse()
              .map((net) => letterOf(run.values[net] as Logic))
              .join('')
          : '-',
      );
  }
  for (const list of values) while (list.length < readings.length) list.push('-');
  return { values, reached, swings: run.unsettled.size > 0 };
}

/** A clock as a repeating wave; if it begins within its high part, the rest of that part counts as low. */
function waveOfClock(source: Extract<Timed, { kind: 'clock' }>): Wave {
  const { low, high } = source.wave;
  const { value, next } = clockAt(source.wave, 0);
  return {
    ...DEFAULT_WAVE,
    pattern: 'periodic',
    step: low + high,
    high,
    phase: value === ZERO ? next : next < high ? next + low : 0,
  };
}

/** The course of an input that no stimulus drives: a clock as it is, a switch as it stands. */
function waveOf(netlist: Netlist, { part, nets }: Terminal, on: ReadonlySet<string>): Wave {
  const clock = netlist.sources.find((s) => s.kind === 'clock' && s.part === part);
  if (clock?.kind === 'clock') return waveOfClock(clock);
  const value = nets.reduce((sum, _, bit) => sum + (on.has(sourceKey({ part, bit })) ? 2 ** bit : 0), 0);
  return { ...DEFAULT_WAVE, data: value ? `0 ${value}` : '' };
}

/** Just before each active edge of the clock, or just before each change of an input where nothing is clocked. */
function readingsOf(netlist: Netlist, count: number): { readings: number[]; clocked: boolean } {
  const { edges } = clockEdges(netlist, 0, 0, count);
  if (edges.length > 0) return { readings: edges.slice(0, count).map(justBefore), clocked: true };
  const timed = netlist.sources.filter((s): s is Timed => s.kind === 'stimulus' || s.kind === 'clock');
  const changes: number[] = [];
  for (let time = 0; changes.length < count; ) {
    time = Math.min(...timed.map((s) => levelAt(s, time).next));
    if (time === Number.POSITIVE_INFINITY) break;
    changes.push(time);
  }
  if (changes.length < count) {
    const last = changes.at(-1) ?? 0;
    changes.push(last + (last - (changes.at(-2) ?? 0) || LAST_STEP));
  }
  return { readings: changes.map((time) => time - 1), clocked: false };
}

/**
 * Samples the sheet's own outputs as the expected run; an X becomes a don't-care.
 * @param stimulus drives the inputs; those that it does not name follow their clock or stay with their
 *   switch.
 * @param on the switches that are on, by `sourceKey`.
 * @param count readings, from 1 to 1000; fewer where the stimulus ends before.
 */
export function runOfSheet(
  sheet: Sheet,
  { sheets, settings }: Pick<Lesson, 'sheets' | 'settings'>,
  stimulus: Stimulus | null,
  on: ReadonlySet<string>,
  count: number,
): Result<OwnRun> {
  if (!Number.isInteger(count) || count < 1 || count > MOST_READINGS)
    return refused('bad-count', `give a number of readings from 1 to ${MOST_READINGS}`);
  const netlist = compile(sheet, sheets);
  if (netlist.inputs.length === 0)
    return refused('no-input', 'there is no input yet: place a switch or a clock');
  if (netlist.outputs.length === 0) return refused('no-output', 'there is no output yet: place a lamp');
  const inputs = netlist.inputs.map((terminal) => ({
    name: terminal.name,
    width: terminal.nets.length,
    wave: stimulus?.inputs.find((i) => i.part === terminal.part)?.wave ?? waveOf(netlist, terminal, on),
    part: terminal.part,
  }));
  const driven = drivenBy(netlist, { name: 'expected', inputs });
  const { readings, clocked } = readingsOf(driven, count);
  const read = readRun(driven, netlist.outputs, readings, settings);
  if (read.reached < readings.length)
    return refused(
      'run-too-long',
      `only ${read.reached} of ${readings.length} readings come within ${MOST_STEPS.toLocaleString('en')} steps (changes of nets, and instants): read it fewer times`,
    );
  if (read.swings) return refused('never-settles', 'a loop in it never settles');
  const parsed = ExpectedRun.safeParse({
    kind: 'run',
    inputs: inputs.map(({ name, width, wave }) => ({ name, width, wave })),
    outputs: netlist.outputs.map(({ name, nets }, o) => ({
      name,
      width: nets.length,
      values: read.values[o]!.map((value) => value.replaceAll(/[XZ]/g, 'x')),
    })),
    readings,
    delays: settings.delays,
    powerUp: settings.powerUp,
  });
  return parsed.success
    ? done({ expected: parsed.data, clocked })
    : refused('bad-run', parsed.error.issues[0]!.message);
}
