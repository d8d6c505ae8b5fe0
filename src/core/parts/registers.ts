import type { Infer } from '../values/schema';
import { counted } from '../values/wording';
import type { BoxPin } from './box';
import { defineBox } from './define-part';
import { CLOCK_TO_Q, HOLD, READ_MEMORY, SETUP } from './delays';
import { MOST_BITS } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { Builder, PartKind, Ref, Setting } from './part-kind';
import { Primitive } from './primitive';
import {
  activeSetting,
  bitsSetting,
  choiceSetting,
  edgeSetting,
  numberSetting,
  powerUpSetting,
  widthSetting,
} from './shared-settings';
import { typedEdge, typedEnable, typedOneOf, typedWidth } from './typed-words';
import { add, and, choose, constant, equals, keep, not, one, pick, show, zero } from './words';

const withSetting = <P extends string>(param: P, label: string) =>
  choiceSetting(param, label, [
    ['no', 'no'],
    ['yes', 'yes'],
  ]);

/** The parameters that every clocked word has. */
const clockedParams = (of: ParamSchemas) => ({
  edge: of.edge,
  enable: of.yesNo,
  clear: of.active,
  powerUp: of.powerUp,
  ...of.ownDelay,
  ...of.ownWindow,
});
type Clocked = Pick<Infer<ReturnType<typeof clockedSchema>>, 'edge' | 'enable' | 'clear' | 'powerUp'>;
const clockedSchema = (of: ParamSchemas) => of.object(clockedParams(of));

const clockedSettings = [
  edgeSetting,
  withSetting('enable', 'Enable'),
  activeSetting('clear', 'Clear'),
  powerUpSetting,
] as const;

const clockPin = ({ edge }: Pick<Clocked, 'edge'>): BoxPin => ({
  name: 'C',
  clock: true,
  inverted: edge === 'falling',
});
const enablePin = ({ enable }: Clocked): BoxPin[] => (enable === 'yes' ? [{ name: 'EN' }] : []);
const clearPin = ({ clear }: Clocked): BoxPin[] =>
  clear === 'none' ? [] : [{ name: 'CLR', inverted: clear === 'low' }];
const controlPins = (params: Clocked): BoxPin[] => [
  ...enablePin(params),
  clockPin(params),
  ...clearPin(params),
];

/** Words that all registers understand: `fall`, `enable`, `clear`, `8bit`. */
function typedClocked(word: string) {
  if (word === 'clear') return { clear: 'high' as const };
  return typedEdge(word) ?? typedEnable(word) ?? typedWidth(word);
}
const typedLoad = (word: string) => (word === 'load' ? { load: 'yes' as const } : null);
const typedDirection = (word: string) => {
  const direction = typedOneOf(word, ['up', 'down', 'both']);
  return direction && { direction };
};

/** Stores a word on the part's clock edge, with its asynchronous clear, and returns nothing: `state` holds it. */
function clocked(params: Clocked, b: Builder, next: readonly Ref[], state: readonly Ref[]): void {
  const clear: Ref[] =
    params.clear === 'none' ? [] : [zero(b), params.clear === 'low' ? not(b, b.pin('CLR')) : b.pin('CLR')];
  keep(
    b,
    params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE,
    next,
    state,
    [b.pin('C'), ...clear],
    {
      name: 'Q',
      powerUp: params.powerUp,
      setup: SETUP,
      hold: HOLD,
    },
  );
}

const enabled = (params: Clocked, b: Builder, state: readonly Ref[], next: readonly Ref[]) =>
  params.enable === 'yes' ? choose(b, b.pin('EN'), state, next) : next;

const laterWord = (b: Builder, width: number) => Array.from({ length: width }, () => b.later());

const register = defineBox(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(1, MOST_BITS, 4),
      ...clockedParams(of),
    }),
  {
    kind: 'register',
    family: 'Registers',
    name: 'Register',
    typed: ['register', 'reg'],
    says: 'At the clock edge it takes a whole word and keeps it.',
    labelled: '',
    labelSide: 'top',
    stores: 'register',
    settings: [widthSetting, ...clockedSettings],
    typedWord: typedClocked,
    box: (params) => ({
      title: 'REG',
      subtitle: counted(params.width, 'bit'),
      left: [{ name: 'D', width: params.width }, ...controlPins(params)],
      right: [{ name: 'Q', width: params.width }],
    }),
    build: (params, b) => {
      const state = laterWord(b, params.width);
      clocked(params, b, enabled(params, b, state, b.pins('D')), state);
      show(b, 'Q', state, CLOCK_TO_Q);
    },
    spoken: (params) => `register of ${counted(params.width, 'bit')}, ${params.edge} edge`,
  },
);

const shiftRegister = defineBox(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(2, MOST_BITS, 4),
      /** Up: towards the most significant bit. */
      direction: of.oneOf(['up', 'down', 'both'], 'up'),
      load: of.yesNo,
      ...clockedParams(of),
    }),
  {
    kind: 'shift',
    family: 'Registers',
    name: 'Shift register',
    typed: ['shift register', 'shift', 'sr register'],
    says: 'At each clock edge all bits move on by one place, and SI comes in behind them.',
    labelled: '',
    labelSide: 'top',
    stores: 'register',
    settings: [
      bitsSetting(2),
      choiceSetting('direction', 'Shifts', [
        ['up', 'towards the highest bit'],
        ['down', 'towards bit 0'],
        ['both', 'either way, by a pin'],
      ]),
      withSetting('load', 'Parallel load'),
      ...clockedSettings,
    ],
    typedWord: (word) => typedDirection(word) ?? typedLoad(word) ?? typedClocked(word),
    box: (params) => ({
      title: 'SHIFT',
      subtitle: counted(params.width, 'bit'),
      left: [
        { name: 'SI' },
        ...(params.load === 'yes' ? [{ name: 'D', width: params.width }, { name: 'LD' }] : []),
        ...(params.direction === 'both' ? [{ name: 'UP' }] : []),
        ...controlPins(params),
      ],
      right: [{ name: 'Q', width: params.width }],
    }),
    build: (params, b) => {
      const state = laterWord(b, params.width);
      const up = [b.pin('SI'), ...state.slice(0, -1)];
      const down = [...state.slice(1), b.pin('SI')];
      const moved =
        params.direction === 'up'
          ? up
          : params.direction === 'down'
            ? down
            : choose(b, b.pin('UP'), down, up);
      const kept = enabled(params, b, state, moved);
      clocked(params, b, params.load === 'yes' ? choose(b, b.pin('LD'), kept, b.pins('D')) : kept, state);
      show(b, 'Q', state, CLOCK_TO_Q);
    },
    spoken: (params) => `shift register of ${counted(params.width, 'bit')}, ${params.direction}`,
  },
);

/** How many states a counter runs through. */
function modulusOf({ width, modulo }: { readonly width: number; readonly modulo: number }): number {
  const all = 2 ** width;
  return modulo >= 2 && modulo < all ? modulo : all;
}

const counter = defineBox(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(1, MOST_BITS, 4),
      /** States that it runs through; 0: all of them. */
      modulo: of.whole(0, 2 ** 31, 0),
      direction: of.oneOf(['up', 'down', 'both'], 'up'),
      load: of.yesNo,
      ...clockedParams(of),
    }),
  {
    kind: 'counter',
    family: 'Registers',
    name: 'Counter',
    typed: ['counter', 'count', 'ctr'],
    says: 'Counts the clock edges; CO is 1 in the last state before it begins anew.',
    labelled: '',
    labelSide: 'top',
    stores: 'register',
    settings: [
      widthSetting,
      numberSetting('modulo', 'States (0: all)', 0, 2 ** 31),
      choiceSetting('direction', 'Counts', [
        ['up', 'up'],
        ['down', 'down'],
        ['both', 'either way, by a pin'],
      ]),
      withSetting('load', 'Parallel load'),
      ...clockedSettings,
    ],
    typedWord: (word) => {
      const modulo = /^(?:mod|modulo)-?(\d+)$/.exec(word);
      if (!modulo) return typedDirection(word) ?? typedLoad(word) ?? typedClocked(word);
      const states = Number(modulo[1]);
      return states >= 2 && states <= 2 ** 31
        ? { modulo: states, width: Math.max(1, Math.ceil(Math.log2(states))) }
        : `states from 2 to ${2 ** 31}`;
    },
    box: (params) => ({
      title: modulusOf(params) < 2 ** params.width ? `CTR ${modulusOf(params)}` : 'CTR',
      subtitle: counted(params.width, 'bit'),
      left: [
        ...(params.load === 'yes' ? [{ name: 'D', width: params.width }, { name: 'LD' }] : []),
        ...(params.direction === 'both' ? [{ name: 'UP' }] : []),
        ...controlPins(params),
      ],
      right: [{ name: 'Q', width: params.width }, { name: 'CO' }],
    }),
    build: (params, b) => {
      const width = params.width;
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
      `counter of ${counted(params.width, 'bit')}, ${modulusOf(params)} states, ${params.direction}`,
  },
);

const MOST_ADDRESS = 10;
const MOST_RAM_ADDRESS = 8;
const MOST_RAM_BITS = 4096;
const addressSetting = (most: number) => numberSetting('address', 'Address bits', 1, most);
const contentSetting: Setting<'content'> = {
  param: 'content',
  label: 'Words',
  control: 'words',
  hint: 'from address 0 on: 7 0x1F 12',
};
/** Words from address 0 on; those behind the last are not given. */
const contentParam = (of: ParamSchemas) => of.wholes(0, 2 ** 32 - 1, 2 ** MOST_ADDRESS, []);
/** A bit of the word at an address, 0 where none is given. */
const bitAt = (content: readonly number[], address: number, bit: number) =>
  Math.floor((content[address] ?? 0) / 2 ** bit) % 2;

/** `4x8` as address bits and word width; where there are no so many address bits, `256x8` as words and their width. */
function typedMemory(most: number) {
  return (word: string): { address: number; width: number } | string | null => {
    const [, first, width] = /^(\d+)[x:](\d+)$/.exec(word) ?? [];
    if (first === undefined) return null;
    const address = Number(first) <= most ? Number(first) : Math.log2(Number(first));
    return Number.isInteger(address) && address <= most
      ? { address, width: Number(width) }
      : `words are a power of two, ${2 ** most} at most`;
  };
}

const rom = defineBox(
  (of: ParamSchemas) =>
    of.object({
      address: of.whole(1, MOST_ADDRESS, 4),
      width: of.bits(1, MOST_BITS, 4),
      content: contentParam(of),
      ...of.ownDelay,
    }),
  {
    kind: 'rom',
    family: 'Registers',
    name: 'ROM',
    typed: ['rom', 'read-only memory'],
    says: 'Shows the word at the address. The words never change.',
    labelled: '',
    labelSide: 'top',
    settings: [addressSetting(MOST_ADDRESS), widthSetting, contentSetting],
    typedWord: typedMemory(MOST_ADDRESS),
    box: (params) => ({
      title: 'ROM',
      subtitle: `${2 ** params.address}×${params.width}`,
      left: [{ name: 'A', width: params.address }],
      right: [{ name: 'Q', width: params.width }],
    }),
    build: (params, b) => {
      const [no, yes] = [zero(b), one(b)];
      const words = Array.from({ length: 2 ** params.address }, (_, i) =>
        Array.from({ length: params.width }, (_, bit) => (bitAt(params.content, i, bit) ? yes : no)),
      );
      show(b, 'Q', pick(b, b.pins('A'), words), READ_MEMORY);
    },
    spoken: (params) => `ROM of ${2 ** params.address} words, ${counted(params.width, 'bit')} each`,
  },
);

const ram = defineBox(
  (of: ParamSchemas) =>
    of.together(
      of.object({
        address: of.whole(1, MOST_RAM_ADDRESS, 4),
        width: of.bits(1, MOST_BITS, 4),
        edge: of.edge,
        /** At power-up; words that are not given begin as `powerUp` says. */
        content: contentParam(of),
        powerUp: of.powerUp,
        ...of.ownDelay,
        ...of.ownWindow,
      }),
      ({ address, width }) => 2 ** address * width <= MOST_RAM_BITS,
      `a RAM holds at most ${MOST_RAM_BITS} bits`,
    ),
  {
    kind: 'ram',
    family: 'Registers',
    name: 'RAM',
    typed: ['ram', 'memory'],
    says: 'Shows the word at the address; at the clock edge it stores D there while WE is 1.',
    labelled: '',
    labelSide: 'top',
    stores: 'memory',
    settings: [addressSetting(MOST_RAM_ADDRESS), widthSetting, edgeSetting, contentSetting, powerUpSetting],
    typedWord: typedMemory(MOST_RAM_ADDRESS),
    box: (params) => ({
      title: 'RAM',
      subtitle: `${2 ** params.address}×${params.width}`,
      left: [
        { name: 'A', width: params.address },
        { name: 'D', width: params.width },
        { name: 'WE' },
        clockPin(params),
      ],
      right: [{ name: 'Q', width: params.width }],
    }),
    build: (params, b) => {
      const width = params.width;
      const address = b.pins('A');
      const words = Array.from({ length: 2 ** params.address }, () => laterWord(b, width));
      const given = params.content.length;
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
              powerUp: i < given ? (bitAt(params.content, i, bit) ? '1' : '0') : params.powerUp,
              setup: SETUP,
              hold: HOLD,
            },
          );
      }
      show(b, 'Q', pick(b, address, words), READ_MEMORY);
    },
    spoken: (params) => `RAM of ${2 ** params.address} words, ${counted(params.width, 'bit')} each`,
  },
);

export const registers: readonly PartKind[] = [register, shiftRegister, counter, rom, ram];
