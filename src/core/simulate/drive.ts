import type { Sheet } from '../circuit/sheet';
import type { Stimulus, TimeSetup, Wave } from '../circuit/time-setup';
import { isByHand, type Netlist, type Source } from '../netlist/netlist';
import { roleOf } from '../parts/catalogue';
import type { Levels } from '../parts/part-kind';
import { readMoments, waveLevels } from '../parts/wave';
import { readWord } from '../values/radix';
import { frequencyText, PS_PER_SECOND } from '../values/time';

/** Shortest period in ps of anything that repeats. */
const SHORTEST = 2;

/** Why a wave cannot be run. Times in ps; places count from 1. */
export type WaveFault =
  | { readonly code: 'bad-moment'; readonly pair: string }
  | { readonly code: 'moments-out-of-order'; readonly at: number; readonly last: number }
  | { readonly code: 'bad-period' | 'bad-duty' | 'bad-step' }
  | { readonly code: 'bad-value' | 'bad-bit'; readonly place: number; readonly text: string };

/** The fault of a wave; null if it can be run. `waveProblem` tells it in words. */
export function waveFault({ pattern, data, step, high }: Wave, width: number): WaveFault | null {
  if (pattern === 'levels') {
    let last = -1;
    for (const pair of data.split(/[,;\n]/).filter((p) => p.trim())) {
      const [one] = readMoments(pair, width);
      if (!one) return { code: 'bad-moment', pair: pair.trim() };
      if (one.at <= last) return { code: 'moments-out-of-order', at: one.at, last };
      last = one.at;
    }
    return null;
  }
  if (pattern === 'periodic') {
    if (step < SHORTEST) return { code: 'bad-period' };
    return high <= 0 || high >= step ? { code: 'bad-duty' } : null;
  }
  if (step < 1) return { code: 'bad-step' };
  const entries =
    pattern === 'values' ? data.split(/[\s,;]+/).filter(Boolean) : pattern === 'bits' ? [...data] : [];
  const isBad = (entry: string) => (pattern === 'bits' ? !/[01\s_]/.test(entry) : !readWord(entry, width));
  const bad = entries.findIndex(isBad);
  if (bad === -1) return null;
  return { code: pattern === 'bits' ? 'bad-bit' : 'bad-value', place: bad + 1, text: entries[bad]! };
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
    if (role?.role !== 'input' || role.by !== 'clock' || waveFault(wave, 1)) continue;
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
    if (width !== undefined && !waveFault(wave, width))
      levels.set(part, { levels: waveLevels(wave, width), repeats: wave.pattern === 'periodic' });
  }
  if (levels.size === 0) return netlist;
  const sources = netlist.sources.map((source): Source => {
    const course = levels.get(source.part);
    const { part, bit, net } = source;
    return course && (isByHand(source) || source.kind === 'clock')
      ? { kind: 'stimulus', part, bit, net, ...course }
      : source;
  });
  return { ...netlist, sources };
}
