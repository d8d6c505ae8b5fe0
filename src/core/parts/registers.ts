import type { Params } from '../circuit/lesson';
import { list, whole, z } from '../values/schema';
import { type BoxPin, type BoxPlan, boxBody, boxPorts, boxSymbol } from './box';
import {
  bits,
  bitsText,
  MOST_BITS,
  ownDelay,
  ownWindow,
  powerUp,
  powerUpSetting,
  typedBits,
  widthSetting,
} from './common';
import { CLOCK_TO_Q, HOLD, READ_MEMORY, SETUP } from './delays';
import type { Builder, PartKind, PowerUp, Ref, Setting } from './part-kind';
import { Primitive } from './primitive';
import { add, and, choose, constant, equals, keep, not, one, pick, show, zero } from './words';

const yesNo = z._default(z.enum(['no', 'yes']), 'no');
const edge = z._default(z.enum(['rising', 'falling']), 'rising');
const clearParam = z._default(z.enum(['none', 'high', 'low']), 'none');

const choice = (param: string, label: string, options: readonly (readonly [string, string])[]): Setting => ({
  param,
  label,
  control: 'choice',
  options: options.map(([value, text]) => ({ value, label: text })),
});
const edgeSetting = choice('edge', 'Changes on the', [
  ['rising', 'rising edge'],
  ['falling', 'falling edge'],
]);
const clearSetting = choice('clear', 'Clear', [
  ['none', 'none'],
  ['high', 'acts at 1'],
  ['low', 'acts at 0'],
]);
const withSetting = (param: string, label: string) =>
  choice(param, label, [
    ['no', 'no'],
    ['yes', 'yes'],
  ]);

/** What every clocked word has. */
const clockedParams = {
  edge,
  enable: yesNo,
  clear: clearParam,
  powerUp,
  ...ownDelay,
  ...ownWindow,
};
const clockedSettings: readonly Setting[] = [
  edgeSetting,
  withSetting('enable', 'Enable'),
  clearSetting,
  powerUpSetting,
];

const widthOf = (params: Params) => params.width as number;
const clockPin = (params: Params): BoxPin => ({
  name: 'C',
  clock: true,
  inverted: params.edge === 'falling',
});
const enablePin = (params: Params): BoxPin[] => (params.enable === 'yes' ? [{ name: 'EN' }] : []);
const clearPin = (params: Params): BoxPin[] =>
  params.clear === 'none' ? [] : [{ name: 'CLR', inverted: params.clear === 'low' }];

function typedWords(word: string): Params | null {
  if (word === 'rise' || word === 'rising') return { edge: 'rising' };
  if (word === 'fall' || word === 'falling') return { edge: 'falling' };
  if (word === 'enable' || word === 'en') return { enable: 'yes' };
  if (word === 'load') return { load: 'yes' };
  if (word === 'clear') return { clear: 'high' };
  const width = typedBits(word);
  return width ? { width } : null;
}

const drawn = (plan: (params: Params) => BoxPlan) => ({
  ports: (params: Params) => boxPorts(plan(params)),
  body: (params: Params) => boxBody(plan(params)),
  symbol: (params: Params) => boxSymbol(plan(params)),
});

/** Stores a word on the part's clock edge, with its asynchronous clear, and returns nothing: `state` holds it. */
function clocked(params: Params, b: Builder, next: readonly Ref[], state: readonly Ref[]): void {
  const clear: Ref[] =
    params.clear === 'none' || params.clear === undefined
      ? []
      : [zero(b), params.clear === 'low' ? not(b, b.pin('CLR')) : b.pin('CLR')];
  keep(
    b,
    params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE,
    next,
    state,
    [b.pin('C'), ...clear],
    {
      name: 'Q',
      powerUp: params.powerUp as PowerUp,
      setup: SETUP,
      hold: HOLD,
    },
  );
}

const enabled = (params: Params, b: Builder, state: readonly Ref[], next: readonly Ref[]) =>
  params.enable === 'yes' ? choose(b, b.pin('EN'), state, next) : next;

const laterWord = (b: Builder, width: number) => Array.from({ length: width }, () => b.later());

const register: PartKind = {
  kind: 'register',
  family: 'Registers',
  name: 'Register',
  typed: ['register', 'reg'],
  says: 'At the clock edge it takes a whole word and keeps it.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    width: bits(1, MOST_BITS, 4),
    ...clockedParams,
  }),
  settings: [widthSetting, ...clockedSettings],
  typedWord: typedWords,
  ...drawn((params) => ({
    title: 'REG',
    subtitle: bitsText(widthOf(params)),
    left: [
      { name: 'D', width: widthOf(params) },
      ...enablePin(params),
      clockPin(params),
      ...clearPin(params),
    ],
    right: [{ name: 'Q', width: widthOf(params) }],
  })),
  build: (params, b) => {
    const state = laterWord(b, widthOf(params));
    clocked(params, b, enabled(params, b, state, b.pins('D')), state);
    show(b, 'Q', state, CLOCK_TO_Q);
  },
  spoken: (params) => `register of ${bitsText(widthOf(params))}, ${params.edge} edge`,
};

const shiftRegister: PartKind = {
  kind: 'shift',
  family: 'Registers',
  name: 'Shift register',
  typed: ['shift register', 'shift', 'sr register'],
  says: 'At each clock edge all bits move on by one place, and SI comes in behind them.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    width: bits(2, MOST_BITS, 4),
    /** Up: towards the most significant bit. */
    direction: z._default(z.enum(['up', 'down', 'both']), 'up'),
    load: yesNo,
    ...clockedParams,
  }),
  settings: [
    { ...widthSetting, least: 2 } as Setting,
    choice('direction', 'Shifts', [
      ['up', 'towards the highest bit'],
      ['down', 'towards bit 0'],
      ['both', 'either way, by a pin'],
    ]),
    withSetting('load', 'Parallel load'),
    ...clockedSettings,
  ],
  typedWord: (word): Params | null =>
    word === 'up' || word === 'down' || word === 'both' ? { direction: word } : typedWords(word),
  ...drawn((params) => ({
    title: 'SHIFT',
    subtitle: bitsText(widthOf(params)),
    left: [
      { name: 'SI' },
      ...(params.load === 'yes' ? [{ name: 'D', width: widthOf(params) }, { name: 'LD' }] : []),
      ...(params.direction === 'both' ? [{ name: 'UP' }] : []),
      ...enablePin(params),
      clockPin(params),
      ...clearPin(params),
    ],
    right: [{ name: 'Q', width: widthOf(params) }],
  })),
  build: (params, b) => {
    const state = laterWord(b, widthOf(params));
    const up = [b.pin('SI'), ...state.slice(0, -1)];
    const down = [...state.slice(1), b.pin('SI')];
    const moved =
      params.direction === 'up' ? up : params.direction === 'down' ? down : choose(b, b.pin('UP'), down, up);
    const kept = enabled(params, b, state, moved);
    clocked(params, b, params.load === 'yes' ? choose(b, b.pin('LD'), kept, b.pins('D')) : kept, state);
    show(b, 'Q', state, CLOCK_TO_Q);
  },
  spoken: (params) => `shift register of ${bitsText(widthOf(params))}, ${params.direction}`,
};

/** How many states a counter runs through. */
function modulusOf(params: Params): number {
  const all = 2 ** widthOf(params);
  const wished = params.modulo as number;
  return wished >= 2 && wished < all ? wished : all;
}

const counter: PartKind = {
  kind: 'counter',
  family: 'Registers',
  name: 'Counter',
  typed: ['counter', 'count', 'ctr'],
  says: 'Counts the clock edges; CO is 1 in the last state before it begins anew.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    width: bits(1, MOST_BITS, 4),
    /** States that it runs through; 0: all of them. */
    modulo: z._default(whole(0, 2 ** 31), 0),
    direction: z._default(z.enum(['up', 'down', 'both']), 'up'),
    load: yesNo,
    ...clockedParams,
  }),
  settings: [
    widthSetting,
    { param: 'modulo', label: 'States (0: all)', control: 'number', least: 0, most: 2 ** 31 },
    choice('direction', 'Counts', [
      ['up', 'up'],
      ['down', 'down'],
      ['both', 'either way, by a pin'],
    ]),
    withSetting('load', 'Parallel load'),
    ...clockedSettings,
  ],
  typedWord: (word): Params | null => {
    if (word === 'up' || word === 'down' || word === 'both') return { direction: word };
    const modulo = /^(?:mod|modulo)-?(\d+)$/.exec(word);
    if (!modulo) return typedWords(word);
    const states = Number(modulo[1]);
    return states >= 2 && states <= 2 ** 31
      ? { modulo: states, width: Math.max(1, Math.ceil(Math.log2(states))) }
      : null;
  },
  ...drawn((params) => ({
    title: modulusOf(params) < 2 ** widthOf(params) ? `CTR ${modulusOf(params)}` : 'CTR',
    subtitle: bitsText(widthOf(params)),
    left: [
      ...(params.load === 'yes' ? [{ name: 'D', width: widthOf(params) }, { name: 'LD' }] : []),
      ...(params.direction === 'both' ? [{ name: 'UP' }] : []),
      ...enablePin(params),
      clockPin(params),
      ...clearPin(params),
    ],
    right: [{ name: 'Q', width: widthOf(params) }, { name: 'CO' }],
  })),
  build: (params, b) => {
    const width = widthOf(params);
    const state = laterWord(b, width);
    const modulus = modulusOf(params);
    const full = modulus === 2 ** width;
    const last = equals(b, state, modulus - 1);
    const first = equals(b, state, 0);
    const counted = (down: boolean) => {
      const { sum } = down
        ? add(b, state, constant(b, 2 ** width - 1, width), zero(b))
        : add(b, state, constant(b, 0, width), one(b));
      if (full) return sum;
      return choose(b, down ? first : last, sum, constant(b, down ? modulus - 1 : 0, width));
    };
    const both = params.direction === 'both';
    const next = both
      ? choose(b, b.pin('UP'), counted(true), counted(false))
      : counted(params.direction === 'down');
    const kept = enabled(params, b, state, next);
    clocked(params, b, params.load === 'yes' ? choose(b, b.pin('LD'), kept, b.pins('D')) : kept, state);
    show(b, 'Q', state, CLOCK_TO_Q);
    const end = both
      ? b.gate(Primitive.MUX, [b.pin('UP'), first, last])
      : params.direction === 'down'
        ? first
        : last;
    show(b, 'CO', [params.enable === 'yes' ? and(b, end, b.pin('EN')) : end], CLOCK_TO_Q);
  },
  spoken: (params) =>
    `counter of ${bitsText(widthOf(params))}, ${modulusOf(params)} states, ${params.direction}`,
};

const MOST_ADDRESS = 10;
const MOST_RAM_ADDRESS = 8;
const MOST_RAM_BITS = 4096;
const content = z._default(list(whole(0, 2 ** 32 - 1), 2 ** MOST_ADDRESS), []);
const addressSetting = (most: number): Setting => ({
  param: 'address',
  label: 'Address bits',
  control: 'number',
  least: 1,
  most,
});
const contentSetting: Setting = {
  param: 'content',
  label: 'Words',
  control: 'words',
  hint: 'from address 0 on: 7 0x1F 12',
};
const wordAt = (params: Params, i: number) => (params.content as readonly number[])[i] ?? 0;

/** `4x8`: address bits and word width. */
function typedMemory(most: number) {
  return (word: string): Params | null => {
    const found = /^(\d{1,2})x(\d{1,2})$/.exec(word);
    if (!found) return null;
    const [address, width] = [Number(found[1]), Number(found[2])];
    return address >= 1 && address <= most && width >= 1 && width <= MOST_BITS ? { address, width } : null;
  };
}

const rom: PartKind = {
  kind: 'rom',
  family: 'Registers',
  name: 'ROM',
  typed: ['rom', 'read-only memory'],
  says: 'Shows the word that stands at the address. What stands there never changes.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    address: z._default(whole(1, MOST_ADDRESS), 4),
    width: bits(1, MOST_BITS, 4),
    /** Words from address 0 on; what is missing is 0. */
    content,
    ...ownDelay,
  }),
  settings: [addressSetting(MOST_ADDRESS), widthSetting, contentSetting],
  typedWord: typedMemory(MOST_ADDRESS),
  ...drawn((params) => ({
    title: 'ROM',
    subtitle: `${2 ** (params.address as number)}×${widthOf(params)}`,
    left: [{ name: 'A', width: params.address as number }],
    right: [{ name: 'Q', width: widthOf(params) }],
  })),
  build: (params, b) => {
    const [no, yes] = [zero(b), one(b)];
    const words = Array.from({ length: 2 ** (params.address as number) }, (_, i) =>
      Array.from({ length: widthOf(params) }, (_, bit) =>
        Math.floor(wordAt(params, i) / 2 ** bit) % 2 ? yes : no,
      ),
    );
    show(b, 'Q', pick(b, b.pins('A'), words), READ_MEMORY);
  },
  spoken: (params) => `ROM of ${2 ** (params.address as number)} words, ${bitsText(widthOf(params))} each`,
};

const ram: PartKind = {
  kind: 'ram',
  family: 'Registers',
  name: 'RAM',
  typed: ['ram', 'memory'],
  says: 'Shows the word at the address; at the clock edge it stores D there while WE is 1.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z
    .object({
      address: z._default(whole(1, MOST_RAM_ADDRESS), 4),
      width: bits(1, MOST_BITS, 4),
      edge,
      /** Words at power-up from address 0 on; what is missing begins as the lesson says. */
      content,
      powerUp,
      ...ownDelay,
      ...ownWindow,
    })
    .check(
      z.refine((p) => 2 ** p.address * p.width <= MOST_RAM_BITS, `a RAM holds at most ${MOST_RAM_BITS} bits`),
    ),
  settings: [addressSetting(MOST_RAM_ADDRESS), widthSetting, edgeSetting, contentSetting, powerUpSetting],
  typedWord: typedMemory(MOST_RAM_ADDRESS),
  ...drawn((params) => ({
    title: 'RAM',
    subtitle: `${2 ** (params.address as number)}×${widthOf(params)}`,
    left: [
      { name: 'A', width: params.address as number },
      { name: 'D', width: widthOf(params) },
      { name: 'WE' },
      clockPin(params),
    ],
    right: [{ name: 'Q', width: widthOf(params) }],
  })),
  build: (params, b) => {
    const width = widthOf(params);
    const address = b.pins('A');
    const words = Array.from({ length: 2 ** (params.address as number) }, () => laterWord(b, width));
    const given = (params.content as readonly number[]).length;
    for (const [i, word] of words.entries()) {
      const write = and(b, b.pin('WE'), equals(b, address, i));
      const next = choose(b, write, word, b.pins('D'));
      for (const [bit, state] of word.entries())
        b.store(
          params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE,
          [next[bit]!, b.pin('C')],
          state,
          {
            name: `M${i}.${bit}`,
            powerUp:
              i < given
                ? Math.floor(wordAt(params, i) / 2 ** bit) % 2
                  ? '1'
                  : '0'
                : (params.powerUp as PowerUp),
            setup: SETUP,
            hold: HOLD,
          },
        );
    }
    show(b, 'Q', pick(b, address, words), READ_MEMORY);
  },
  spoken: (params) => `RAM of ${2 ** (params.address as number)} words, ${bitsText(widthOf(params))} each`,
};

export const registers: readonly PartKind[] = [register, shiftRegister, counter, rom, ram];
