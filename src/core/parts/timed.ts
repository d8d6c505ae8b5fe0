import { DEFAULT_WAVE } from '../circuit/default-wave';
import { ONE } from '../values/logic';
import type { Infer } from '../values/schema';
import { frequencyText, PS_PER_SECOND, readIn, readTime } from '../values/time';
import { counted } from '../values/wording';
import { definePart } from './define-part';
import type { ParamSchemas } from './param-schemas';
import type { Levels, PartKind, Port } from './part-kind';
import { LINE, outline, roundedBox } from './shape';
import { choiceSetting, numberSetting, widthSetting } from './shared-settings';
import { typedWidth } from './typed-words';
import { stayingFrom, waveLevels } from './wave';

const output: Port = { name: 'Y', direction: 'out', width: 1, x: 2, y: 0, side: 'right', lead: 0.7 };
const roundBody = { x0: -1.3, y0: -1.3, x1: 1.3, y1: 1.3 };

const clockKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      /** Cycles a second. */
      hertz: of.number(0.00001, 1e9, 1, {
        low: 'a clock needs at least 0.00001 Hz, a period of 28 hours',
        high: 'a clock has at most 1 GHz',
      }),
      /** Part of the period that is high, in per cent. */
      duty: of.whole(1, 99, 50),
      /** The level with which a period begins. */
      first: of.whole(0, 1, 0),
      /** How far into a period time 0 is, in per cent. */
      phase: of.whole(0, 99, 0),
    }),
  {
    kind: 'clock',
    family: 'Time',
    name: 'Clock',
    typed: ['clock', 'clk'],
    says: 'Alternates between 0 and 1 while time runs.',
    labelled: 'Clock',
    labelSide: 'left',
    isClock: true,
    settings: [
      numberSetting('hertz', 'Frequency', 0.00001, 1e9, 'Hz'),
      numberSetting('duty', 'High for', 1, 99, '%'),
      choiceSetting('first', 'Begins', [
        [0, 'low'],
        [1, 'high'],
      ]),
      numberSetting('phase', 'Phase', 0, 99, '%'),
    ],
    typedWord: (word) => {
      const hertz = readIn('Hz', word);
      if (hertz !== null) return { hertz };
      const duty = /^(\d{1,2})%$/.exec(word);
      return duty ? { duty: Number(duty[1]) } : null;
    },
    ports: () => [output],
    body: () => roundBody,
    role: (params) => {
      const period = Math.max(2, Math.round(PS_PER_SECOND / params.hertz));
      const high = Math.min(period - 1, Math.max(1, Math.round((period * params.duty) / 100)));
      const begun = Math.floor((period * params.phase) / 100);
      return {
        role: 'input',
        by: 'clock',
        wave: { low: period - high, high, first: params.first === 0 ? 0 : 1, begun },
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
        text: look.drivenAs ?? frequencyText(params.hertz),
        size: 0.9,
        align: 'center',
        paint: 'quiet',
      },
    ],
    build: () => {},
    spoken: (params) => `clock of ${frequencyText(params.hertz)}`,
  },
);

const PATTERNS = ['times', 'cycles', 'bits', 'count'] as const;
type Pattern = (typeof PATTERNS)[number];

/** The wave pattern of each `pattern` parameter; lesson files use these older words. */
const WAVE_PATTERNS = { times: 'levels', cycles: 'values', bits: 'bits', count: 'count' } as const;
const PATTERN_WORDS: Record<Pattern, string> = {
  times: 'levels at times',
  cycles: 'a value a step',
  bits: 'a string of bits',
  count: 'all combinations',
};

const stimulusParams = (of: ParamSchemas) =>
  of.object({
    width: of.bits(),
    pattern: of.oneOf(PATTERNS, 'bits'),
    /** `0ns 0, 40ns 1` for times; `3 5 7` for cycles; `0110` for bits; not used for count. */
    data: of.text(20_000, '01'),
    /** Length of a step in ps, for all but times. */
    step: of.number(1, 1e15, 1e6),
    /** Which bit of a string comes first: the last written (least significant) or the first. */
    firstBit: of.oneOf(['least', 'most'], 'most'),
    repeat: of.oneOf(['no', 'yes', 'zero'], 'no'),
  });
type StimulusParams = Infer<ReturnType<typeof stimulusParams>>;

function levelsOf({ pattern, data, step, width, firstBit, repeat }: StimulusParams): Levels {
  const repeats = repeat === 'yes';
  const levels = waveLevels(
    {
      ...DEFAULT_WAVE,
      pattern: WAVE_PATTERNS[pattern],
      data,
      step,
      first: firstBit,
      repeat: repeats,
      endsAtZero: repeat === 'zero',
    },
    width,
  );
  // A wave that counts begins again by itself.
  return pattern === 'count' && !repeats ? stayingFrom(levels, (2 ** width - 1) * step) : levels;
}

const stimulusKind = definePart(stimulusParams, {
  kind: 'stimulus',
  family: 'Time',
  name: 'Stimulus',
  typed: ['stimulus', 'stim', 'pattern'],
  says: 'An input that changes by itself: at given times, by a value a step, bit by bit, or through all combinations.',
  labelled: 'Stim',
  labelSide: 'left',
  settings: [
    widthSetting,
    choiceSetting(
      'pattern',
      'Given as',
      PATTERNS.map((value) => [value, PATTERN_WORDS[value]]),
    ),
    { param: 'data', label: 'Levels', control: 'text', hint: '0110, or 3 5 7, or 0ns 0, 40ns 1' },
    numberSetting('step', 'Step', 1, 1e15, 'ps'),
    choiceSetting('firstBit', 'Comes first', [
      ['most', 'the bit written first'],
      ['least', 'the bit written last'],
    ]),
    choiceSetting('repeat', 'At the end', [
      ['no', 'stays'],
      ['yes', 'begins anew'],
      ['zero', 'then 0'],
    ]),
  ],
  typedWord: (word): Partial<StimulusParams> | null => {
    if (word === 'count') return { pattern: 'count', repeat: 'yes' };
    if (/^[01]{2,}$/.test(word)) return { pattern: 'bits', data: word };
    const step = readTime(word);
    return step ? { step } : typedWidth(word);
  },
  ports: (params) => [{ ...output, width: params.width }],
  body: () => roundBody,
  role: (params) => ({ role: 'input', by: 'stimulus', levels: levelsOf(params) }),
  symbol: () => [
    outline(roundedBox(-1.25, -1.25, 1.25, 1.25, 0.4)),
    { shape: 'path', d: 'M-0.9 0.4H-0.6V-0.4H-0.2V0.4H0.2V-0.4H0.9', stroke: 'ink', weight: LINE },
  ],
  build: () => {},
  spoken: (params) => `stimulus of ${counted(params.width, 'bit')}, ${PATTERN_WORDS[params.pattern]}`,
});

export const timed: readonly PartKind[] = [clockKind, stimulusKind];
