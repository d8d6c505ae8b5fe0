import type { Stimulus, Wave } from '../circuit/time-setup';
import type { Netlist } from '../netlist/netlist';
import type { Levels } from '../parts/part-kind';
import { waveLevels } from '../parts/wave';
import { justBefore } from '../values/time';

/** How many changes beyond a redrawn stretch are kept of a wave that never ends. */
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
