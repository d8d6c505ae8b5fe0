import { counted } from '../values/wording';
import { defineBox } from './define-part';
import { carryDelay, selectDelay } from './delays';
import { MOST_BITS } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { PartKind } from './part-kind';
import { choiceSetting, enableSetting, numberSetting, widthSetting } from './shared-settings';
import { typedEnable, typedOneOf, typedWhole, typedWidth } from './typed-words';
import { add, and, choose, equals, not, or, pick, show, xor, zero } from './words';

const common = {
  family: 'Functions',
  labelled: '',
  labelSide: 'top',
} as const;

const adder = defineBox(
  (of: ParamSchemas) => of.object({ width: of.bits(1, MOST_BITS, 4), ...of.ownDelay }),
  {
    ...common,
    kind: 'adder',
    name: 'Adder',
    typed: ['adder', 'add'],
    says: 'The sum of A, B and the carry in, and the carry out.',
    settings: [widthSetting],
    typedWord: typedWidth,
    box: (params) => ({
      title: 'Σ',
      subtitle: counted(params.width, 'bit'),
      left: [{ name: 'A', width: params.width }, { name: 'B', width: params.width }, { name: 'CI' }],
      right: [{ name: 'S', width: params.width }, { name: 'CO' }],
    }),
    build: (params, b) => {
      const { sum, carry } = add(b, b.pins('A'), b.pins('B'), b.pin('CI'));
      show(b, 'S', sum, carryDelay(params.width));
      show(b, 'CO', [carry], carryDelay(params.width));
    },
    spoken: (params) => `adder of ${counted(params.width, 'bit')}`,
  },
);

const subtractor = defineBox(
  (of: ParamSchemas) => of.object({ width: of.bits(1, MOST_BITS, 4), ...of.ownDelay }),
  {
    ...common,
    kind: 'subtractor',
    name: 'Subtractor',
    typed: ['subtractor', 'sub', 'subtract'],
    says: 'A minus B minus the borrow in, and the borrow out.',
    settings: [widthSetting],
    typedWord: typedWidth,
    box: (params) => ({
      title: 'A−B',
      subtitle: counted(params.width, 'bit'),
      left: [{ name: 'A', width: params.width }, { name: 'B', width: params.width }, { name: 'BI' }],
      right: [{ name: 'D', width: params.width }, { name: 'BO' }],
    }),
    build: (params, b) => {
      const inverted = b.pins('B').map((bit) => not(b, bit));
      const { sum, carry } = add(b, b.pins('A'), inverted, not(b, b.pin('BI')));
      show(b, 'D', sum, carryDelay(params.width));
      show(b, 'BO', [not(b, carry)], carryDelay(params.width));
    },
    spoken: (params) => `subtractor of ${counted(params.width, 'bit')}`,
  },
);

const comparator = defineBox(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(1, MOST_BITS, 4),
      numbers: of.oneOf(['unsigned', 'signed'], 'unsigned'),
      ...of.ownDelay,
    }),
  {
    ...common,
    kind: 'comparator',
    name: 'Comparator',
    typed: ['comparator', 'compare', 'cmp'],
    says: 'Whether A is less than, equal to, or greater than B.',
    settings: [
      widthSetting,
      choiceSetting('numbers', 'Numbers are', [
        ['unsigned', 'unsigned'],
        ['signed', "two's complement"],
      ]),
    ],
    typedWord: (word) => {
      const numbers = typedOneOf(word, ['signed', 'unsigned']);
      return numbers ? { numbers } : typedWidth(word);
    },
    box: (params) => ({
      title: 'COMP',
      subtitle: counted(params.width, 'bit'),
      left: [
        { name: 'A', width: params.width },
        { name: 'B', width: params.width },
      ],
      right: [
        { name: 'LT', text: 'A<B' },
        { name: 'EQ', text: 'A=B' },
        { name: 'GT', text: 'A>B' },
      ],
    }),
    build: (params, b) => {
      const [x, y] = [b.pins('A'), b.pins('B')];
      // Two's complement compares like unsigned numbers once the sign bits are turned over.
      if (params.numbers === 'signed')
        for (const word of [x, y]) word[word.length - 1] = not(b, word.at(-1)!);
      let [less, greater] = [zero(b), zero(b)];
      for (let i = 0; i < x.length; i++) {
        const differ = xor(b, x[i]!, y[i]!);
        [less] = choose(b, differ, [less], [y[i]!]) as [number];
        [greater] = choose(b, differ, [greater], [x[i]!]) as [number];
      }
      const delay = carryDelay(params.width);
      show(b, 'LT', [less], delay);
      show(b, 'EQ', [and(b, ...x.map((bit, i) => not(b, xor(b, bit, y[i]!))))], delay);
      show(b, 'GT', [greater], delay);
    },
    spoken: (params) => `comparator of ${counted(params.width, 'bit')}, ${params.numbers}`,
  },
);

const selectSetting = (most: number, label = 'Select bits') => numberSetting('select', label, 1, most);

const numbered = (letter: string, count: number, width = 1) =>
  Array.from({ length: count }, (_, i) => ({ name: `${letter}${i}`, width, text: `${i}` }));

/** `3`, `3:8` or `8:3` as three bits. */
function typedSelect(word: string): { select: number } | string | null {
  const [, one, other] = /^(\d+):(\d+)$/.exec(word) ?? [];
  const select = one === undefined ? typedWhole(word) : Math.min(Number(one), Number(other));
  if (select === null) return null;
  const lines = Math.max(Number(one), Number(other));
  if (one !== undefined && lines !== 2 ** select) return `${select} bits are for ${2 ** select} lines`;
  return { select };
}

/** `4` or `4:1` or `1:4` as the number of choices, `8bit` as the width. */
function typedChoices(word: string): { select: number } | { width: number } | string | null {
  const found = /^(?:1:)?(\d+)(?::1)?$/.exec(word);
  if (!found) return typedWidth(word);
  const select = Math.log2(Number(found[1]));
  return Number.isInteger(select) && select >= 1 && select <= 4 ? { select } : 'choices are 2, 4, 8 or 16';
}

const multiplexer = defineBox(
  (of: ParamSchemas) => of.object({ select: of.whole(1, 4, 1), width: of.bits(), ...of.ownDelay }),
  {
    ...common,
    kind: 'mux',
    name: 'Multiplexer',
    typed: ['multiplexer', 'mux'],
    says: 'Passes on the input that S selects.',
    settings: [selectSetting(4), widthSetting],
    typedWord: typedChoices,
    box: (params) => ({
      title: 'MUX',
      left: numbered('D', 2 ** params.select, params.width),
      bottom: [{ name: 'S', width: params.select }],
      right: [{ name: 'Y', width: params.width, text: '' }],
    }),
    build: (params, b) => {
      const words = numbered('D', 2 ** params.select).map(({ name }) => b.pins(name));
      show(b, 'Y', pick(b, b.pins('S'), words), selectDelay(params.select));
    },
    spoken: (params) => `multiplexer, ${2 ** params.select} to 1, ${counted(params.width, 'bit')}`,
  },
);

const demultiplexer = defineBox(
  (of: ParamSchemas) => of.object({ select: of.whole(1, 4, 1), width: of.bits(), ...of.ownDelay }),
  {
    ...common,
    kind: 'demux',
    name: 'Demultiplexer',
    typed: ['demultiplexer', 'demux'],
    says: 'Hands its input on to the one output that S names; the others are 0.',
    settings: [selectSetting(4), widthSetting],
    typedWord: typedChoices,
    box: (params) => ({
      title: 'DMUX',
      left: [{ name: 'D', width: params.width, text: '' }],
      bottom: [{ name: 'S', width: params.select }],
      right: numbered('Y', 2 ** params.select, params.width),
    }),
    build: (params, b) => {
      const select = b.pins('S');
      for (let i = 0; i < 2 ** params.select; i++) {
        const chosen = equals(b, select, i);
        show(
          b,
          `Y${i}`,
          b.pins('D').map((bit) => and(b, bit, chosen)),
          selectDelay(params.select),
        );
      }
    },
    spoken: (params) => `demultiplexer, 1 to ${2 ** params.select}, ${counted(params.width, 'bit')}`,
  },
);

const decoder = defineBox(
  (of: ParamSchemas) =>
    of.object({
      select: of.whole(1, 5, 2),
      enable: of.yesNo,
      ...of.ownDelay,
    }),
  {
    ...common,
    kind: 'decoder',
    name: 'Decoder',
    typed: ['decoder', 'decode'],
    says: 'The one output of the number at A is 1, while it is enabled.',
    settings: [selectSetting(5), enableSetting],
    typedWord: (word) => typedEnable(word) ?? typedSelect(word),
    box: (params) => ({
      title: 'DEC',
      left: [{ name: 'A', width: params.select }, ...(params.enable === 'yes' ? [{ name: 'EN' }] : [])],
      right: numbered('Y', 2 ** params.select),
    }),
    build: (params, b) => {
      const select = b.pins('A');
      const on = params.enable === 'yes' ? [b.pin('EN')] : [];
      for (let i = 0; i < 2 ** params.select; i++)
        show(b, `Y${i}`, [and(b, equals(b, select, i), ...on)], selectDelay(params.select));
    },
    spoken: (params) => `decoder, ${params.select} to ${2 ** params.select}`,
  },
);

const priorityEncoder = defineBox(
  (of: ParamSchemas) => of.object({ select: of.whole(1, 5, 2), ...of.ownDelay }),
  {
    ...common,
    kind: 'encoder',
    name: 'Priority encoder',
    typed: ['priority encoder', 'encoder', 'encode'],
    says: 'The number of the highest input that is 1, and whether there is one.',
    settings: [selectSetting(5, 'Output bits')],
    typedWord: typedSelect,
    box: (params) => ({
      title: 'ENC',
      left: numbered('I', 2 ** params.select),
      right: [{ name: 'Y', width: params.select }, { name: 'V' }],
    }),
    build: (params, b) => {
      const select = params.select;
      const inputs = numbered('I', 2 ** select).map(({ name }) => b.pin(name));
      let word = Array.from({ length: select }, () => zero(b));
      // From the lowest up: a higher one overrules.
      for (let i = 1; i < inputs.length; i++) {
        const number = Array.from({ length: select }, (_, bit) => (i >> bit) & 1);
        word = word.map((bit, k) => (number[k] ? or(b, bit, inputs[i]!) : and(b, bit, not(b, inputs[i]!))));
      }
      show(b, 'Y', word, selectDelay(select));
      show(b, 'V', [or(b, ...inputs)], selectDelay(select));
    },
    spoken: (params) => `priority encoder, ${2 ** params.select} to ${params.select}`,
  },
);

export const arithmetic: readonly PartKind[] = [
  adder,
  subtractor,
  comparator,
  multiplexer,
  demultiplexer,
  decoder,
  priorityEncoder,
];
