import type { Logic } from '../values/logic';
import { X } from '../values/logic';
import { justAfter } from '../values/time';
import type { Stretch } from './stretches';
import type { Trace } from './trace';

/*
 * How signals went elsewhere, or are expected to go, laid beside a run.
 */

/** How a signal goes: its changes in the order of time in ps, the least significant bit first. */
export interface Waveform {
  readonly width: number;
  readonly changes: readonly { readonly time: number; readonly bits: readonly Logic[] }[];
}

/** Bits of several courses as one signal, the least significant first. */
export function waveformOfBits(
  bits: readonly { readonly course: Waveform; readonly bit: number }[],
): Waveform {
  const [only] = bits;
  if (only && bits.every(({ course: waveform, bit }, i) => waveform === only.course && bit === i))
    if (only.course.width === bits.length) return only.course;
  const times = new Set(bits.flatMap(({ course: waveform }) => waveform.changes.map((c) => c.time)));
  const at = bits.map(() => -1);
  const changes = [...times]
    .sort((a, b) => a - b)
    .map((time) => ({
      time,
      bits: bits.map(({ course: waveform, bit }, i) => {
        while (at[i]! + 1 < waveform.changes.length && waveform.changes[at[i]! + 1]!.time <= time) at[i]!++;
        return at[i] === -1 ? X : waveform.changes[at[i]!]!.bits[bit]!;
      }),
    }));
  return { width: bits.length, changes };
}

/** The place of the last change that is not after a time; -1 if there is none. */
function placeAt({ changes }: Waveform, time: number): number {
  let [low, high] = [0, changes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (changes[middle]!.time <= time) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** A course from one time to another in ps, drawn to steps of `grain` ps as `stretchesOf` does it. */
export function waveformStretches(waveform: Waveform, from: number, to: number, grain: number): Stretch[] {
  const { changes } = waveform;
  const found: Stretch[] = [];
  const add = (stretch: Stretch) => {
    const last = found.at(-1);
    if (stretch.to <= stretch.from) return;
    if (last?.busy && stretch.busy) found[found.length - 1] = { ...last, to: stretch.to };
    else found.push(stretch);
  };
  let place = placeAt(waveform, from);
  let at = place === -1 ? (changes[0]?.time ?? to) : from;
  if (place === -1) place = 0;
  while (place < changes.length && at < to) {
    const next = placeAt(waveform, at + grain);
    // Several changes within one step are not told apart.
    if (next > place + 1) {
      const end = Math.min(to, changes[next]!.time);
      add({ from: at, to: Math.max(end, at + grain), bits: changes[place]!.bits, busy: true });
      at = Math.max(end, at + grain);
      place = placeAt(waveform, at);
      continue;
    }
    const end = Math.min(to, changes[place + 1]?.time ?? to);
    add({ from: at, to: end, bits: changes[place]!.bits, busy: false });
    at = end;
    place++;
  }
  return found;
}

/** A stretch of time in ps. */
export interface TimeSpan {
  readonly from: number;
  readonly to: number;
}

/**
 * Where nets of a run differ from a waveform, from its first change to `until` in ps. Unknown values of the
 * waveform match anything.
 * @param most stretches after which the search ends.
 */
export function differencesOf(
  trace: Trace,
  nets: readonly number[],
  waveform: Waveform,
  until: number,
  most = 10_000,
): TimeSpan[] {
  const begins = Math.max(trace.begins, waveform.changes[0]?.time ?? Number.POSITIVE_INFINITY);
  if (begins > until) return [];
  const lanes = trace.window(nets, begins, until);
  const at = lanes.map(() => 0);
  let place = placeAt(waveform, begins);
  const found: TimeSpan[] = [];
  let open: number | null = null;
  for (let time = begins; time <= until; ) {
    const { bits } = waveform.changes[place]!;
    const isOther = lanes.some((lane, i) => bits[i] !== X && lane[at[i]!]!.value !== bits[i]);
    if (isOther) open ??= time;
    else if (open !== null) {
      found.push({ from: open, to: time });
      if (found.length >= most) return found;
      open = null;
    }
    let next = waveform.changes[place + 1]?.time ?? Number.POSITIVE_INFINITY;
    for (const [i, lane] of lanes.entries())
      next = Math.min(next, lane[at[i]! + 1]?.time ?? Number.POSITIVE_INFINITY);
    if (next > until) break;
    while ((waveform.changes[place + 1]?.time ?? Number.POSITIVE_INFINITY) <= next) place++;
    for (const [i, lane] of lanes.entries())
      while ((lane[at[i]! + 1]?.time ?? Number.POSITIVE_INFINITY) <= next) at[i]!++;
    time = next;
  }
  if (open !== null) found.push({ from: open, to: until });
  return found;
}

/**
 * Where nets of a run differ from a waveform at some times in ps, up to `until`: each stretch reaches from
 * the previous time, or the beginning, to its own. Unknown values of the waveform match anything.
 */
export function differencesAt(
  trace: Trace,
  nets: readonly number[],
  waveform: Waveform,
  at: readonly number[],
  until: number,
): TimeSpan[] {
  return at.flatMap((time, i) => {
    const place = placeAt(waveform, time);
    if (time > until || time < trace.begins || place === -1) return [];
    const { bits } = waveform.changes[place]!;
    const isOther = nets.some((net, bit) => bits[bit] !== X && trace.valueAt(net, time) !== bits[bit]);
    return isOther
      ? [{ from: i === 0 ? waveform.changes[0]!.time : justAfter(at[i - 1]!), to: justAfter(time) }]
      : [];
  });
}

/** How nets went in a run, as a course. */
export function waveformOfRun(trace: Trace, nets: readonly number[], until: number): Waveform {
  const lanes = trace.window(nets, trace.begins, until);
  return waveformOfBits(
    lanes.map((lane) => ({
      course: { width: 1, changes: lane.map(({ time, value }) => ({ time, bits: [value] })) },
      bit: 0,
    })),
  );
}

const LETTERS = '01XZ';

/** A course as a text: `0:0 25000:1`, each change by its time in ps and its bits, the highest first. */
export function waveformText({ changes }: Waveform): string {
  return changes
    .map(
      ({ time, bits }) =>
        `${time}:${[...bits]
          .reverse()
          .map((b) => LETTERS[b])
          .join('')}`,
    )
    .join(' ');
}

/** Reads the output of `courseText`; null for anything else. */
export function waveformFromText(text: string): Waveform | null {
  const changes: { time: number; bits: Logic[] }[] = [];
  for (const word of text.split(' ')) {
    const [, time, letters] = /^(\d{1,16}):([01XZ]{1,256})$/.exec(word) ?? [];
    if (!letters || Number(time) <= (changes.at(-1)?.time ?? -1)) return null;
    changes.push({
      time: Number(time),
      bits: [...letters].reverse().map((c) => LETTERS.indexOf(c) as Logic),
    });
  }
  const width = changes[0]?.bits.length ?? 0;
  return changes.every((c) => c.bits.length === width) ? { width, changes } : null;
}
