import type { Params } from '../circuit/lesson';
import { list, whole, z } from '../values/schema';
import {
  bits,
  bitsText,
  MOST_BITS,
  MOST_WIRES,
  PIN_SIDES,
  typedBits,
  typedWidth,
  widthSetting,
} from './common';
import type { PartKind, Setting } from './part-kind';
import { Primitive } from './primitive';
import { LINE, outline, type Shape } from './shape';

const widthOf = (params: Params) => params.width as number;
const wordText = (x: number, y: number, text: string, size = 0.9): Shape => ({
  shape: 'text',
  x,
  y,
  text,
  size,
  align: 'center',
  face: 'mono',
});

const portKind: PartKind = {
  kind: 'port',
  family: 'Wiring',
  name: 'Port',
  typed: ['port', 'in', 'out'],
  says: 'Where a signal enters or leaves this sheet when it is used as a block. Alone it is a switch or a lamp.',
  labelled: 'P',
  labelSide: (params) => (params.direction === 'in' ? 'left' : 'right'),
  params: z.object({
    direction: z._default(z.enum(['in', 'out']), 'in'),
    width: bits(1, MOST_WIRES),
    side: z._default(z.enum(PIN_SIDES), 'usual'),
  }),
  settings: [
    {
      param: 'direction',
      label: 'Direction',
      control: 'choice',
      options: [
        { value: 'in', label: 'into the sheet' },
        { value: 'out', label: 'out of the sheet' },
      ],
    },
    widthSetting,
    {
      param: 'side',
      label: 'On the block',
      control: 'choice',
      options: PIN_SIDES.map((value) => ({ value, label: value === 'usual' ? 'the usual side' : value })),
    },
  ],
  typedWord: (word): Params | null =>
    word === 'in' || word === 'out' ? { direction: word } : typedWidth(word),
  ports: (params) =>
    params.direction === 'in'
      ? [{ name: 'Y', direction: 'out', width: widthOf(params), x: 2, y: 0, side: 'right', lead: 0.6 }]
      : [{ name: 'A', direction: 'in', width: widthOf(params), x: -2, y: 0, side: 'left', lead: 0.6 }],
  body: () => ({ x0: -1.4, y0: -0.9, x1: 1.4, y1: 0.9 }),
  role: (params) => (params.direction === 'in' ? { role: 'input', by: 'port' } : { role: 'output' }),
  symbol: (params, look) => {
    const [value, width] = [look.value(params.direction === 'in' ? 'Y' : 'A'), widthOf(params)];
    return [
      outline('M-1.4 -0.9H0.7L1.4 0L0.7 0.9H-1.4Z'),
      wordText(-0.2, 0, width === 1 ? '01?z'[value]! : `${width}`),
    ];
  },
  build: () => {},
  spoken: (params) =>
    `port ${params.direction === 'in' ? 'into' : 'out of'} the sheet, ${bitsText(widthOf(params))}`,
};

const labelKind: PartKind = {
  kind: 'label',
  family: 'Wiring',
  name: 'Net label',
  typed: ['label', 'net'],
  says: 'All wires of a sheet with a label of the same name are one and the same.',
  labelled: 'N',
  labelSide: 'right',
  joinsByLabel: true,
  params: z.object({ width: bits(1, MOST_WIRES) }),
  settings: [widthSetting],
  typedWord: typedWidth,
  ports: (params) => [
    { name: 'A', direction: 'both', width: widthOf(params), x: -1, y: 0, side: 'left', lead: 0.6 },
  ],
  body: () => ({ x0: -0.5, y0: -0.6, x1: 0.4, y1: 0.6 }),
  symbol: () => [{ shape: 'path', d: 'M-0.4 0L0.3 -0.55M-0.4 0L0.3 0.55', stroke: 'ink', weight: LINE }],
  build: () => {},
  spoken: (params) => `net label, ${bitsText(widthOf(params))}`,
};

const bitSetting = (param: string, label: string, least = 0): Setting => ({
  param,
  label,
  control: 'number',
  least,
  most: MOST_BITS,
});

const sliceKind: PartKind = {
  kind: 'slice',
  family: 'Wiring',
  name: 'Slice',
  typed: ['slice', 'bits'],
  says: 'Takes neighbouring bits out of a bus.',
  labelled: '',
  labelSide: 'top',
  params: z.object({
    /** Bits of the bus. */
    width: bits(1, MOST_WIRES, 4),
    high: z._default(whole(0, MOST_WIRES - 1), 0),
    low: z._default(whole(0, MOST_WIRES - 1), 0),
  }),
  settings: [
    bitSetting('width', 'Bits of the bus', 1),
    bitSetting('high', 'Highest bit'),
    bitSetting('low', 'Lowest bit'),
  ],
  typedWord: (word): Params | null => {
    const range = /^(\d{1,2})(?:[:.](\d{1,2}))?$/.exec(word);
    if (!range) return null;
    const [high, low] = [Number(range[1]), Number(range[2] ?? range[1])];
    return {
      high: Math.max(high, low),
      low: Math.min(high, low),
      width: Math.max(4, Math.max(high, low) + 1),
    };
  },
  ports: (params) => [
    { name: 'A', direction: 'in', width: widthOf(params), x: -2, y: 0, side: 'left', lead: 1.2 },
    { name: 'Y', direction: 'out', width: sliced(params).length, x: 2, y: 0, side: 'right', lead: 0.6 },
  ],
  body: () => ({ x0: -0.8, y0: -0.9, x1: 1.4, y1: 0.9 }),
  symbol: (params) => {
    const range = sliced(params);
    const text = range.length === 1 ? `${range[0]}` : `${range.at(-1)}:${range[0]}`;
    return [outline('M-0.8 0.9L-0.3 -0.9H1.4L0.9 0.9Z'), wordText(0.3, 0, text, 0.75)];
  },
  build: (params, b) => {
    for (const [i, bit] of sliced(params).entries()) b.join(b.pin('A', bit), b.pin('Y', i));
  },
  spoken: (params) => {
    const range = sliced(params);
    return `slice of ${bitsText(widthOf(params))}, ${range.length === 1 ? `bit ${range[0]}` : `bits ${range.at(-1)} to ${range[0]}`}`;
  },
};

/** The bits that a slice takes, lowest first, within the bus. */
function sliced({ width, high, low }: Params): number[] {
  const most = (width as number) - 1;
  const from = Math.min(most, Math.min(high as number, low as number));
  const to = Math.min(most, Math.max(high as number, low as number));
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
}

const joinKind: PartKind = {
  kind: 'join',
  family: 'Wiring',
  name: 'Join',
  typed: ['join', 'bus'],
  says: 'Lays several wires together into one bus; the top one has the highest bits.',
  labelled: '',
  labelSide: 'top',
  params: z.object({
    /** Bits of each input from the top. */
    widths: z._default(list(whole(1, MOST_WIRES), MOST_WIRES).check(z.minLength(1)), [1, 1]),
  }),
  settings: [{ param: 'widths', label: 'Bits from top', control: 'words', hint: '4 1 1' }],
  typedWord: (word): Params | null => {
    const count = Number(word);
    return Number.isInteger(count) && count >= 2 && count <= 16 ? { widths: Array(count).fill(1) } : null;
  },
  ports: (params) => {
    const widths = joined(params);
    return [
      ...widths.map((width, i) => ({
        name: `I${widths.length - 1 - i}`,
        direction: 'in' as const,
        width,
        x: -2,
        y: 2 * i - (widths.length - 1),
        side: 'left' as const,
        lead: 1.6,
      })),
      {
        name: 'Y',
        direction: 'out',
        width: widths.reduce((sum, w) => sum + w, 0),
        x: 1,
        y: 0,
        side: 'right',
        lead: 1,
      },
    ];
  },
  body: (params) => ({ x0: -0.4, y0: -joined(params).length, x1: 0.2, y1: joined(params).length }),
  symbol: (params) => {
    const h = joined(params).length;
    return [
      { shape: 'path', d: `M-0.4 ${-h + 0.4}H0V${h - 0.4}H-0.4Z`, fill: 'ink', stroke: 'ink', weight: LINE },
    ];
  },
  build: (params, b) => {
    const widths = joined(params);
    let bit = 0;
    for (let i = 0; i < widths.length; i++)
      for (let own = 0; own < widths[widths.length - 1 - i]!; own++)
        b.join(b.pin(`I${i}`, own), b.pin('Y', bit++));
  },
  spoken: (params) => `join of ${joined(params).map(bitsText).join(', ')}`,
};

/** Widths from the top, cut where together they are more than a bus holds. */
function joined({ widths }: Params): number[] {
  const kept: number[] = [];
  let sum = 0;
  for (const w of widths as readonly number[]) {
    if (sum + w > MOST_WIRES) continue;
    kept.push(w);
    sum += w;
  }
  return kept;
}

const extendKind: PartKind = {
  kind: 'extend',
  family: 'Wiring',
  name: 'Extension',
  typed: ['extend', 'extension'],
  says: 'Makes a bus wider: with zeros, or by repeating its highest bit, the sign.',
  labelled: '',
  labelSide: 'top',
  params: z.object({
    from: bits(1, MOST_BITS, 4),
    to: bits(1, MOST_BITS, 8),
    by: z._default(z.enum(['zero', 'sign']), 'zero'),
  }),
  settings: [
    bitSetting('from', 'From bits', 1),
    bitSetting('to', 'To bits', 1),
    {
      param: 'by',
      label: 'New bits are',
      control: 'choice',
      options: [
        { value: 'zero', label: '0' },
        { value: 'sign', label: 'the sign' },
      ],
    },
  ],
  typedWord: (word): Params | null => {
    if (word === 'sign' || word === 'zero') return { by: word };
    const to = typedBits(word);
    return to ? { to } : null;
  },
  ports: (params) => [
    { name: 'A', direction: 'in', width: params.from as number, x: -2, y: 0, side: 'left', lead: 0.8 },
    { name: 'Y', direction: 'out', width: wider(params), x: 2, y: 0, side: 'right', lead: 0.8 },
  ],
  body: () => ({ x0: -1.2, y0: -0.9, x1: 1.2, y1: 0.9 }),
  symbol: (params) => [
    outline('M-1.2 -0.45L1.2 -0.9V0.9L-1.2 0.45Z'),
    wordText(0, 0, params.by === 'sign' ? '±' : '0', 0.8),
  ],
  build: (params, b) => {
    const from = params.from as number;
    for (let bit = 0; bit < wider(params); bit++) {
      if (bit < from) b.join(b.pin('A', bit), b.pin('Y', bit));
      else if (params.by === 'sign') b.join(b.pin('A', from - 1), b.pin('Y', bit));
      else b.drive(b.pin('Y', bit), Primitive.CONST_0, []);
    }
  },
  spoken: (params) =>
    `extension from ${bitsText(params.from as number)} to ${wider(params)}, by ${params.by}`,
};

const wider = ({ from, to }: Params) => Math.max(from as number, to as number);

const pullKind: PartKind = {
  kind: 'pull',
  family: 'Wiring',
  name: 'Pull resistor',
  typed: ['pull', 'pull-up', 'pull-down'],
  says: 'Gives a wire that nobody drives a value, and gives way to whoever drives it.',
  labelled: '',
  labelSide: 'right',
  params: z.object({ to: z._default(z.enum(['up', 'down']), 'up'), width: bits() }),
  settings: [
    {
      param: 'to',
      label: 'Pulls to',
      control: 'choice',
      options: [
        { value: 'up', label: '1' },
        { value: 'down', label: '0' },
      ],
    },
    widthSetting,
  ],
  typedWord: (word): Params | null => (word === 'up' || word === 'down' ? { to: word } : typedWidth(word)),
  ports: (params) => [
    { name: 'A', direction: 'both', width: widthOf(params), x: 0, y: 2, side: 'bottom', lead: 0.6 },
  ],
  body: () => ({ x0: -0.7, y0: -1.6, x1: 0.7, y1: 1.4 }),
  symbol: (params) => [
    { shape: 'path', d: 'M-0.45 -0.6H0.45V1.4H-0.45Z', fill: 'raised', stroke: 'ink', weight: LINE },
    { shape: 'path', d: 'M0 -0.6V-1M-0.6 -1H0.6', stroke: 'ink', weight: LINE },
    wordText(0, 0.4, params.to === 'up' ? '1' : '0', 0.8),
  ],
  build: (params, b) => {
    for (const pin of b.pins('A')) b.pull(pin, params.to === 'up' ? 1 : 0);
  },
  spoken: (params) => `pull-${params.to}, ${bitsText(widthOf(params))}`,
};

export const wiring: readonly PartKind[] = [portKind, labelKind, sliceKind, joinKind, extendKind, pullKind];
