import type { Params } from '../circuit/lesson';
import { ONE } from '../values/logic';
import { text, whole, z } from '../values/schema';
import { readTime } from '../values/time';
import { bits, bitsText, typedBits, widthSetting } from './common';
import type { Levels, PartKind, Port } from './part-kind';
import { LINE, outline, roundedBox } from './shape';
import { levelsOf, type Pattern } from './stimulus';

const output: Port = { name: 'Y', direction: 'out', width: 1, x: 2, y: 0, side: 'right', lead: 0.7 };
const roundBody = { x0: -1.3, y0: -1.3, x1: 1.3, y1: 1.3 };

const PS_PER_SECOND = 1e12;
const FREQUENCY = /^(\d+(?:\.\d+)?)(hz|khz|mhz|ghz)?$/i;
const SCALE: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** A frequency in the unit that reads best: `4 Hz`, `12 kHz`. */
function frequencyText(hertz: number): string {
  const unit = hertz >= 1e9 ? 'GHz' : hertz >= 1e6 ? 'MHz' : hertz >= 1e3 ? 'kHz' : 'Hz';
  return `${+(hertz / SCALE[unit.toLowerCase()]!).toPrecision(4)} ${unit}`;
}

const clockKind: PartKind = {
  kind: 'clock',
  family: 'Time',
  name: 'Clock',
  typed: ['clock', 'clk'],
  says: 'Goes up and down by itself while time runs.',
  labelled: 'Clock',
  labelSide: 'left',
  params: z.object({
    /** Cycles a second. */
    hertz: z._default(
      z
        .number()
        .check(
          z.minimum(0.01, 'a clock needs at least 0.01 Hz'),
          z.maximum(1e9, 'a clock has at most 1 GHz'),
        ),
      1,
    ),
    /** Part of the period that is high, in per cent. */
    duty: z._default(whole(1, 99), 50),
    /** The level with which a period begins. */
    first: z._default(whole(0, 1), 0),
    /** How far into a period time 0 is, in per cent. */
    phase: z._default(whole(0, 99), 0),
  }),
  settings: [
    { param: 'hertz', label: 'Frequency', control: 'number', least: 0.01, most: 1e9, unit: 'Hz' },
    { param: 'duty', label: 'High for', control: 'number', least: 1, most: 99, unit: '%' },
    {
      param: 'first',
      label: 'Begins',
      control: 'choice',
      options: [
        { value: 0, label: 'low' },
        { value: 1, label: 'high' },
      ],
    },
    { param: 'phase', label: 'Phase', control: 'number', least: 0, most: 99, unit: '%' },
  ],
  typedWord: (word): Params | null => {
    const found = FREQUENCY.exec(word);
    if (found) return { hertz: Number(found[1]) * SCALE[(found[2] ?? 'hz').toLowerCase()]! };
    const period = readTime(word);
    if (period) return { hertz: PS_PER_SECOND / period };
    const duty = /^(\d{1,2})%$/.exec(word);
    return duty ? { duty: Number(duty[1]) } : null;
  },
  ports: () => [output],
  body: () => roundBody,
  role: (params) => {
    const period = Math.max(2, Math.round(PS_PER_SECOND / (params.hertz as number)));
    const high = Math.min(period - 1, Math.max(1, Math.round((period * (params.duty as number)) / 100)));
    const begun = Math.floor((period * (params.phase as number)) / 100);
    return {
      role: 'input',
      by: 'clock',
      wave: { low: period - high, high, first: params.first as 0 | 1, begun },
    };
  },
  symbol: (params, look) => [
    { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
    {
      shape: 'path',
      d: 'M-0.75 0.4H-0.35V-0.4H0.35V0.4H0.75',
      stroke: look.value('Y') === ONE ? 'one' : 'ink',
      weight: look.value('Y') === ONE ? 0.24 : LINE,
    },
    {
      shape: 'text',
      x: 0,
      y: 2.15,
      text: frequencyText(params.hertz as number),
      size: 0.9,
      align: 'center',
      paint: 'quiet',
    },
  ],
  build: () => {},
  spoken: (params) => `clock of ${frequencyText(params.hertz as number)}`,
};

const PATTERNS = ['times', 'cycles', 'bits', 'count'] as const;
const PATTERN_WORDS: Record<Pattern, string> = {
  times: 'levels at times',
  cycles: 'a value a step',
  bits: 'a string of bits',
  count: 'all combinations',
};

const stimulusKind: PartKind = {
  kind: 'stimulus',
  family: 'Time',
  name: 'Stimulus',
  typed: ['stimulus', 'stim', 'pattern'],
  says: 'An input that changes by itself: at given times, by a value a step, bit by bit, or through all combinations.',
  labelled: 'Stim',
  labelSide: 'left',
  params: z.object({
    width: bits(),
    pattern: z._default(z.enum(PATTERNS), 'bits'),
    /** `0ns 0, 40ns 1` for times; `3 5 7` for cycles; `0110` for bits; not used for count. */
    data: z._default(text(20_000), '01'),
    /** Length of a step in ps, for all but times. */
    step: z._default(z.number().check(z.minimum(1), z.maximum(1e15)), 1e6),
    /** Which bit of a string comes first: the last written (least significant) or the first. */
    firstBit: z._default(z.enum(['least', 'most']), 'most'),
    repeat: z._default(z.enum(['no', 'yes']), 'no'),
  }),
  settings: [
    widthSetting,
    {
      param: 'pattern',
      label: 'Given as',
      control: 'choice',
      options: PATTERNS.map((value) => ({ value, label: PATTERN_WORDS[value] })),
    },
    { param: 'data', label: 'Levels', control: 'text', hint: '0110, or 3 5 7, or 0ns 0, 40ns 1' },
    { param: 'step', label: 'Step', control: 'number', least: 1, most: 1e15, unit: 'ps' },
    {
      param: 'firstBit',
      label: 'Comes first',
      control: 'choice',
      options: [
        { value: 'most', label: 'the bit written first' },
        { value: 'least', label: 'the bit written last' },
      ],
    },
    {
      param: 'repeat',
      label: 'At the end',
      control: 'choice',
      options: [
        { value: 'no', label: 'stays' },
        { value: 'yes', label: 'begins anew' },
      ],
    },
  ],
  typedWord: (word): Params | null => {
    if (word === 'count') return { pattern: 'count', repeat: 'yes' };
    if (/^[01]{2,}$/.test(word)) return { pattern: 'bits', data: word };
    const step = readTime(word);
    if (step) return { step };
    const width = typedBits(word);
    return width ? { width } : null;
  },
  ports: (params) => [{ ...output, width: params.width as number }],
  body: () => roundBody,
  role: (params) => ({ role: 'input', by: 'stimulus', levels: stimulusLevels(params) }),
  symbol: () => [
    outline(roundedBox(-1.25, -1.25, 1.25, 1.25, 0.4)),
    { shape: 'path', d: 'M-0.9 0.4H-0.6V-0.4H-0.2V0.4H0.2V-0.4H0.9', stroke: 'ink', weight: LINE },
  ],
  build: () => {},
  spoken: (params) =>
    `stimulus of ${bitsText(params.width as number)}, ${PATTERN_WORDS[params.pattern as Pattern]}`,
};

function stimulusLevels(params: Params): Levels {
  return levelsOf({
    pattern: params.pattern as Pattern,
    data: params.data as string,
    step: params.step as number,
    width: params.width as number,
    mostFirst: params.firstBit === 'most',
    repeat: params.repeat === 'yes',
  });
}

export const timed: readonly PartKind[] = [clockKind, stimulusKind];
