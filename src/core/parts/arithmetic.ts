import type { Params } from '../circuit/lesson';
import { whole, z } from '../values/schema';
import { type BoxPlan, boxBody, boxPorts, boxSymbol } from './box';
import { bits, bitsText, MOST_BITS, ownDelay, typedWidth, widthSetting } from './common';
import { carryDelay, selectDelay } from './delays';
import type { PartKind, Setting } from './part-kind';
import { add, and, choose, equals, not, or, pick, show, xor, zero } from './words';

const widthOf = (params: Params) => params.width as number;
const selectOf = (params: Params) => params.select as number;

const drawn = (plan: (params: Params) => BoxPlan) => ({
  ports: (params: Params) => boxPorts(plan(params)),
  body: (params: Params) => boxBody(plan(params)),
  symbol: (params: Params) => boxSymbol(plan(params)),
});

const common = {
  family: 'Functions',
  labelled: '',
  labelSide: 'top',
} as const;

const adder: PartKind = {
  ...common,
  kind: 'adder',
  name: 'Adder',
  typed: ['adder', 'add'],
  says: 'The sum of A, B and the carry in, and the carry out.',
  params: z.object({ width: bits(1, MOST_BITS, 4), ...ownDelay }),
  settings: [widthSetting],
  typedWord: typedWidth,
  ...drawn((params) => ({
    title: 'Σ',
    subtitle: bitsText(widthOf(params)),
    left: [{ name: 'A', width: widthOf(params) }, { name: 'B', width: widthOf(params) }, { name: 'CI' }],
    right: [{ name: 'S', width: widthOf(params) }, { name: 'CO' }],
  })),
  build: (params, b) => {
    const { sum, carry } = add(b, b.pins('A'), b.pins('B'), b.pin('CI'));
    show(b, 'S', sum, carryDelay(widthOf(params)));
    show(b, 'CO', [carry], carryDelay(widthOf(params)));
  },
  spoken: (params) => `adder of ${bitsText(widthOf(params))}`,
};

const subtractor: PartKind = {
  ...common,
  kind: 'subtractor',
  name: 'Subtractor',
  typed: ['subtractor', 'sub', 'subtract'],
  says: 'A less B less the borrow in, and the borrow out.',
  params: z.object({ width: bits(1, MOST_BITS, 4), ...ownDelay }),
  settings: [widthSetting],
  typedWord: typedWidth,
  ...drawn((params) => ({
    title: 'A−B',
    subtitle: bitsText(widthOf(params)),
    left: [{ name: 'A', width: widthOf(params) }, { name: 'B', width: widthOf(params) }, { name: 'BI' }],
    right: [{ name: 'D', width: widthOf(params) }, { name: 'BO' }],
  })),
  build: (params, b) => {
    const inverted = b.pins('B').map((bit) => not(b, bit));
    const { sum, carry } = add(b, b.pins('A'), inverted, not(b, b.pin('BI')));
    show(b, 'D', sum, carryDelay(widthOf(params)));
    show(b, 'BO', [not(b, carry)], carryDelay(widthOf(params)));
  },
  spoken: (params) => `subtractor of ${bitsText(widthOf(params))}`,
};

const comparator: PartKind = {
  ...common,
  kind: 'comparator',
  name: 'Comparator',
  typed: ['comparator', 'compare', 'cmp'],
  says: 'Whether A is less than, equal to, or greater than B.',
  params: z.object({
    width: bits(1, MOST_BITS, 4),
    numbers: z._default(z.enum(['unsigned', 'signed']), 'unsigned'),
    ...ownDelay,
  }),
  settings: [
    widthSetting,
    {
      param: 'numbers',
      label: 'Numbers are',
      control: 'choice',
      options: [
        { value: 'unsigned', label: 'unsigned' },
        { value: 'signed', label: "two's complement" },
      ],
    },
  ],
  typedWord: (word): Params | null =>
    word === 'signed' || word === 'unsigned' ? { numbers: word } : typedWidth(word),
  ...drawn((params) => ({
    title: 'COMP',
    subtitle: bitsText(widthOf(params)),
    left: [
      { name: 'A', width: widthOf(params) },
      { name: 'B', width: widthOf(params) },
    ],
    right: [
      { name: 'LT', text: 'A<B' },
      { name: 'EQ', text: 'A=B' },
      { name: 'GT', text: 'A>B' },
    ],
  })),
  build: (params, b) => {
    const [x, y] = [b.pins('A'), b.pins('B')];
    // Two's complement compares like unsigned numbers once the sign bits are turned over.
    if (params.numbers === 'signed') for (const word of [x, y]) word[word.length - 1] = not(b, word.at(-1)!);
    let [less, greater] = [zero(b), zero(b)];
    for (let i = 0; i < x.length; i++) {
      const differ = xor(b, x[i]!, y[i]!);
      [less] = choose(b, differ, [less], [y[i]!]) as [number];
      [greater] = choose(b, differ, [greater], [x[i]!]) as [number];
    }
    const delay = carryDelay(widthOf(params));
    show(b, 'LT', [less], delay);
    show(b, 'EQ', [and(b, ...x.map((bit, i) => not(b, xor(b, bit, y[i]!))))], delay);
    show(b, 'GT', [greater], delay);
  },
  spoken: (params) => `comparator of ${bitsText(widthOf(params))}, ${params.numbers}`,
};

const selectSetting = (most: number): Setting => ({
  param: 'select',
  label: 'Select bits',
  control: 'number',
  least: 1,
  most,
});

const numbered = (letter: string, count: number, width = 1) =>
  Array.from({ length: count }, (_, i) => ({ name: `${letter}${i}`, width, text: `${i}` }));

/** `4` or `4:1` as the number of choices, `8bit` as the width. */
function typedChoices(word: string): Params | null {
  const found = /^(\d{1,2})(?::1)?$/.exec(word);
  if (!found) return /bit/.test(word) ? typedWidth(word) : null;
  const select = Math.log2(Number(found[1]));
  return Number.isInteger(select) && select >= 1 && select <= 4 ? { select } : null;
}

const multiplexer: PartKind = {
  ...common,
  kind: 'mux',
  name: 'Multiplexer',
  typed: ['multiplexer', 'mux'],
  says: 'Hands on the one input that S names.',
  params: z.object({ select: z._default(whole(1, 4), 1), width: bits(), ...ownDelay }),
  settings: [selectSetting(4), widthSetting],
  typedWord: typedChoices,
  ...drawn((params) => ({
    title: 'MUX',
    left: numbered('D', 2 ** selectOf(params), widthOf(params)),
    bottom: [{ name: 'S', width: selectOf(params) }],
    right: [{ name: 'Y', width: widthOf(params), text: '' }],
  })),
  build: (params, b) => {
    const words = numbered('D', 2 ** selectOf(params)).map(({ name }) => b.pins(name));
    show(b, 'Y', pick(b, b.pins('S'), words), selectDelay(selectOf(params)));
  },
  spoken: (params) => `multiplexer, ${2 ** selectOf(params)} to 1, ${bitsText(widthOf(params))}`,
};

const demultiplexer: PartKind = {
  ...common,
  kind: 'demux',
  name: 'Demultiplexer',
  typed: ['demultiplexer', 'demux'],
  says: 'Hands its input on to the one output that S names; the others are 0.',
  params: z.object({ select: z._default(whole(1, 4), 1), width: bits(), ...ownDelay }),
  settings: [selectSetting(4), widthSetting],
  typedWord: typedChoices,
  ...drawn((params) => ({
    title: 'DMUX',
    left: [{ name: 'D', width: widthOf(params), text: '' }],
    bottom: [{ name: 'S', width: selectOf(params) }],
    right: numbered('Y', 2 ** selectOf(params), widthOf(params)),
  })),
  build: (params, b) => {
    const select = b.pins('S');
    for (let i = 0; i < 2 ** selectOf(params); i++) {
      const chosen = equals(b, select, i);
      show(
        b,
        `Y${i}`,
        b.pins('D').map((bit) => and(b, bit, chosen)),
        selectDelay(selectOf(params)),
      );
    }
  },
  spoken: (params) => `demultiplexer, 1 to ${2 ** selectOf(params)}, ${bitsText(widthOf(params))}`,
};

const decoder: PartKind = {
  ...common,
  kind: 'decoder',
  name: 'Decoder',
  typed: ['decoder', 'decode'],
  says: 'The one output of the number at A is 1, while it is enabled.',
  params: z.object({
    select: z._default(whole(1, 5), 2),
    enable: z._default(z.enum(['no', 'yes']), 'no'),
    ...ownDelay,
  }),
  settings: [
    selectSetting(5),
    {
      param: 'enable',
      label: 'Enable',
      control: 'choice',
      options: [
        { value: 'no', label: 'none' },
        { value: 'yes', label: 'with enable' },
      ],
    },
  ],
  typedWord: (word): Params | null => {
    if (word === 'enable' || word === 'en') return { enable: 'yes' };
    const select = Number(word);
    return Number.isInteger(select) && select >= 1 && select <= 5 ? { select } : null;
  },
  ...drawn((params) => ({
    title: 'DEC',
    left: [{ name: 'A', width: selectOf(params) }, ...(params.enable === 'yes' ? [{ name: 'EN' }] : [])],
    right: numbered('Y', 2 ** selectOf(params)),
  })),
  build: (params, b) => {
    const select = b.pins('A');
    const on = params.enable === 'yes' ? [b.pin('EN')] : [];
    for (let i = 0; i < 2 ** selectOf(params); i++)
      show(b, `Y${i}`, [and(b, equals(b, select, i), ...on)], selectDelay(selectOf(params)));
  },
  spoken: (params) => `decoder, ${selectOf(params)} to ${2 ** selectOf(params)}`,
};

const priorityEncoder: PartKind = {
  ...common,
  kind: 'encoder',
  name: 'Priority encoder',
  typed: ['priority encoder', 'encoder', 'encode'],
  says: 'The number of the highest input that is 1, and whether there is one.',
  params: z.object({ select: z._default(whole(1, 5), 2), ...ownDelay }),
  settings: [{ ...selectSetting(5), label: 'Output bits' } as Setting],
  typedWord: (word): Params | null => {
    const select = Number(word);
    return Number.isInteger(select) && select >= 1 && select <= 5 ? { select } : null;
  },
  ...drawn((params) => ({
    title: 'ENC',
    left: numbered('I', 2 ** selectOf(params)),
    right: [{ name: 'Y', width: selectOf(params) }, { name: 'V' }],
  })),
  build: (params, b) => {
    const select = selectOf(params);
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
  spoken: (params) => `priority encoder, ${2 ** selectOf(params)} to ${selectOf(params)}`,
};

export const arithmetic: readonly PartKind[] = [
  adder,
  subtractor,
  comparator,
  multiplexer,
  demultiplexer,
  decoder,
  priorityEncoder,
];
