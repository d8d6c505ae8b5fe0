import type { Sheet } from '../circuit/lesson';
import type { Stimulus, TimeSetup, Wave } from '../circuit/time-setup';
import type { Netlist, Source } from '../netlist/netlist';
import { roleOf } from '../parts/catalogue';
import type { Levels } from '../parts/part-kind';
import { readMoments, waveLevels } from '../parts/wave';
import { readWord } from '../values/radix';
import { type Problem, problem } from '../values/result';
import { frequencyText, justBefore, PS_PER_SECOND, timeText } from '../values/time';

/** Shortest period in ps of anything that repeats. */
const SHORTEST = 2;

/** The problem of a wave, for the person who typed it; null if it can be run. */
export function waveProblem(wave: Wave, width: number): Problem | null {
  const { pattern, data, step, high } = wave;
  if (pattern === 'levels') {
    let last = -1;
    const pairs = data.split(/[,;\n]/).filter((p) => p.trim());
    for (const pair of pairs) {
      const read = readMoments(pair, width);
      const one = read[0];
      if (!one)
        return problem(
          'bad-moment',
          `“${pair.trim()}” is not a time and a value that fits ${width === 1 ? 'one bit' : `${width} bits`}: write 25 1 for 1 from 25 ns on, or 2 ms 0`,
        );
      if (one.at <= last)
        return problem(
          'moments-out-of-order',
          `${timeText(one.at)} does not come after ${timeText(last)}: give the times in order, each once`,
        );
      last = one.at;
    }
    return null;
  }
  if (pattern === 'periodic') {
    if (step < SHORTEST)
      return problem(
        'bad-period',
        'a period of 0 is no clock: give a period of at least 2 ps, or a frequency above 0 Hz',
      );
    if (high <= 0 || high >= step)
      return problem(
        'bad-duty',
        `high for ${timeText(high)} of ${timeText(step)} never changes: give a duty between 0 and 100 %`,
      );
    return null;
  }
  if (step < 1) return problem('bad-step', 'each value must last for at least 1 ps');
  if (pattern === 'values') {
    const words = data.split(/[\s,;]+/).filter(Boolean);
    const bad = words.findIndex((w) => !readWord(w, width));
    if (bad !== -1)
      return problem(
        'bad-value',
        `value ${bad + 1}, “${words[bad]}”, is no number that fits ${width === 1 ? 'one bit' : `${width} bits`}`,
      );
  }
  if (pattern === 'bits') {
    const bad = [...data].findIndex((c) => !/[01\s_]/.test(c));
    if (bad !== -1)
      return problem('bad-bit', `character ${bad + 1}, “${[...data][bad]}”, is neither 0 nor 1`);
  }
  return null;
}

/** Changes of a wave that are kept when a stretch of it is drawn anew. */
const MOST_KEPT = 500;

/** The changes of a wave up to a time in ps; beyond, as many as are kept. */
function changesUpTo(levels: Levels, time: number): { at: number; value: number }[] {
  const changes: { at: number; value: number }[] = [];
  for (let at = 0; at < Number.POSITIVE_INFINITY && (at <= time || changes.length < MOST_KEPT); ) {
    const { value, next } = levels(at);
    if (value !== (changes.at(-1)?.value ?? 0)) changes.push({ at, value });
    at = next;
  }
  return changes;
}

/**
 * The level changes of an input with one stretch set to a value, as drawn with the pointer. Times in ps.
 * @returns `data` for a wave of levels.
 */
export function withLevel(wave: Wave | null, from: number, to: number, value: number, width = 1): string {
  const levels: Levels = wave
    ? waveLevels(wave, width)
    : () => ({ value: 0, next: Number.POSITIVE_INFINITY });
  const known = changesUpTo(levels, to);
  const after = levels(to).value;
  const before = from > 0 ? levels(justBefore(from)).value : null;
  const changes = [
    ...known.filter((c) => c.at < from),
    ...(before === value ? [] : [{ at: from, value }]),
    ...(after === value ? [] : [{ at: to, value: after }]),
    ...known.filter((c) => c.at > to),
  ];
  const text = (ps: number) => (ps % 1000 === 0 ? String(ps / 1000) : `${ps} ps`);
  // An unchanged level is no change.
  let last = 0;
  const real = changes.filter((c) => {
    const isChange = c.value !== last;
    last = c.value;
    return isChange;
  });
  return real.map((c) => `${text(c.at)} ${c.value}`).join(', ');
}

/** The stimulus that drives a sheet, or null. */
export function drivingOf(plan: TimeSetup | undefined): Stimulus | null {
  return plan?.stimuli.find((s) => s.name === plan.driven) ?? null;
}

/**
 * The clocks of a sheet that its stimulus drives, with the caption that is true of them: the frequency of a square wave,
 * else the name of the stimulus.
 */
export function drivenClocks(sheet: Sheet): ReadonlyMap<string, string> {
  const stimulus = drivingOf(sheet.time);
  const captions = new Map<string, string>();
  for (const { part: id, wave } of stimulus?.inputs ?? []) {
    const part = sheet.parts.get(id);
    const role = part && roleOf(part);
    if (role?.role !== 'input' || role.by !== 'clock' || waveProblem(wave, 1)) continue;
    captions.set(id, wave.pattern === 'periodic' ? frequencyText(PS_PER_SECOND / wave.step) : stimulus!.name);
  }
  return captions;
}

/**
 * The same circuit with inputs that follow a stimulus instead of their switches. Inputs that are not there, and waves
 * that cannot be run, are left out.
 */
export function drivenBy(netlist: Netlist, stimulus: Stimulus | null): Netlist {
  if (!stimulus) return netlist;
  const widths = new Map(netlist.inputs.map((t) => [t.part, t.nets.length]));
  const levels = new Map<string, { levels: Levels; repeats: boolean }>();
  for (const { part, wave } of stimulus.inputs) {
    const width = widths.get(part);
    if (width !== undefined && !waveProblem(wave, width))
      levels.set(part, { levels: waveLevels(wave, width), repeats: wave.pattern === 'periodic' });
  }
  if (levels.size === 0) return netlist;
  const sources = netlist.sources.map((source): Source => {
    const course = levels.get(source.part);
    const isFree = source.kind === 'switch' || source.kind === 'button' || source.kind === 'port';
    const { part, bit, net } = source;
    return course && (isFree || source.kind === 'clock')
      ? { kind: 'stimulus', part, bit, net, ...course }
      : source;
  });
  return { ...netlist, sources };
}

/** A stimulus in which the inputs count through all their combinations, the first-named input slowest. */
export function countThrough(name: string, netlist: Netlist, step: number, wave: Wave): Stimulus {
  let place = 0;
  const inputs = [...netlist.inputs].reverse().map(({ part, nets }) => {
    const one = { part, wave: { ...wave, pattern: 'count' as const, step, place } };
    place += nets.length;
    return one;
  });
  return { name, inputs: inputs.reverse() };
}
