import { counted } from '../values/wording';
import { definePart } from './define-part';
import { MOST_BITS, MOST_WIRES, PIN_SIDES } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { PartKind } from './part-kind';
import { Primitive } from './primitive';
import { LINE, outline, type Shape } from './shape';
import { choiceSetting, numberSetting, widthSetting } from './shared-settings';
import { typedBits, typedOneOf, typedWhole, typedWidth } from './typed-words';

const wordText = (x: number, y: number, text: string, size = 0.9): Extract<Shape, { shape: 'text' }> => ({
  shape: 'text',
  x,
  y,
  text,
  size,
  align: 'center',
  face: 'mono',
});

const portKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      direction: of.oneOf(['in', 'out'], 'in'),
      width: of.bits(1, MOST_WIRES),
      side: of.pinSide,
    }),
  {
    kind: 'port',
    family: 'Wiring',
    name: 'Port',
    typed: ['port', 'in'],
    says: 'Where a signal enters or leaves this sheet when it is used as a block. Alone it is a switch or a lamp.',
    labelled: 'P',
    labelSide: ({ direction }) => (direction === 'in' ? 'left' : 'right'),
    alwaysAllowed: true,
    boundary: ({ direction, width, side }) => ({ direction, width, side }),
    settings: [
      choiceSetting('direction', 'Direction', [
        ['in', 'into the sheet'],
        ['out', 'out of the sheet'],
      ]),
      widthSetting,
      choiceSetting(
        'side',
        'On the block',
        PIN_SIDES.map((side) => [side, side === 'usual' ? 'the usual side' : side]),
      ),
    ],
    typedWord: (word) => {
      const direction = typedOneOf(word, ['in', 'out']);
      return direction ? { direction } : typedWidth(word);
    },
    ports: (params) =>
      params.direction === 'in'
        ? [{ name: 'Y', direction: 'out', width: params.width, x: 2, y: 0, side: 'right', lead: 0.6 }]
        : [{ name: 'A', direction: 'in', width: params.width, x: -2, y: 0, side: 'left', lead: 0.6 }],
    body: () => ({ x0: -1.4, y0: -0.9, x1: 1.4, y1: 0.9 }),
    role: (params) => (params.direction === 'in' ? { role: 'input', by: 'port' } : { role: 'output' }),
    symbol: (params, look) => {
      const [value, width] = [look.value(params.direction === 'in' ? 'Y' : 'A'), params.width];
      return [
        outline('M-1.4 -0.9H0.7L1.4 0L0.7 0.9H-1.4Z'),
        { ...wordText(-0.2, 0, width === 1 ? '01?z'[value]! : `${width}`), isSignal: width === 1 },
      ];
    },
    build: () => {},
    spoken: (params) =>
      `port ${params.direction === 'in' ? 'into' : 'out of'} the sheet, ${counted(params.width, 'bit')}`,
  },
);

const labelKind = definePart((of: ParamSchemas) => of.object({ width: of.bits(1, MOST_WIRES) }), {
  kind: 'label',
  family: 'Wiring',
  name: 'Net label',
  typed: ['label', 'net'],
  says: 'All wires of a sheet with the same net label are connected.',
  labelled: 'N',
  labelSide: 'right',
  joinsByLabel: true,
  // A wire by another name.
  alwaysAllowed: true,
  settings: [widthSetting],
  typedWord: typedWidth,
  ports: (params) => [
    { name: 'A', direction: 'both', width: params.width, x: -1, y: 0, side: 'left', lead: 0.6 },
  ],
  body: () => ({ x0: -0.5, y0: -0.6, x1: 0.4, y1: 0.6 }),
  symbol: () => [{ shape: 'path', d: 'M-0.4 0L0.3 -0.55M-0.4 0L0.3 0.55', stroke: 'ink', weight: LINE }],
  build: () => {},
  verilog: () => [],
  spoken: (params) => `net label, ${counted(params.width, 'bit')}`,
});

const bitSetting = <P extends string>(param: P, label: string, least = 0) =>
  numberSetting(param, label, least, MOST_BITS);

const sliceKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      /** Bits of the bus. */
      width: of.bits(1, MOST_WIRES, 4),
      high: of.whole(0, MOST_WIRES - 1, 0),
      low: of.whole(0, MOST_WIRES - 1, 0),
    }),
  {
    kind: 'slice',
    family: 'Wiring',
    name: 'Slice',
    typed: ['slice', 'bits'],
    says: 'Takes neighbouring bits out of a bus.',
    labelled: '',
    labelSide: 'top',
    settings: [
      bitSetting('width', 'Bits of the bus', 1),
      bitSetting('high', 'Highest bit'),
      bitSetting('low', 'Lowest bit'),
    ],
    typedWord: (word) => {
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
      { name: 'A', direction: 'in', width: params.width, x: -2, y: 0, side: 'left', lead: 1.2 },
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
    verilog: (params, wires) => {
      const range = sliced(params);
      return [`assign ${wires.of('Y')} = ${wires.bits('A', range.at(-1)!, range[0]!)};`];
    },
    spoken: (params) => {
      const range = sliced(params);
      return `slice of ${counted(params.width, 'bit')}, ${range.length === 1 ? `bit ${range[0]}` : `bits ${range.at(-1)} to ${range[0]}`}`;
    },
  },
);

/** The bits that a slice takes, lowest first, within the bus. */
function sliced({ width, high, low }: Record<'width' | 'high' | 'low', number>): number[] {
  const most = width - 1;
  const from = Math.min(most, Math.min(high, low));
  const to = Math.min(most, Math.max(high, low));
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
}

const joinKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      /** Bits of each input from the top. */
      widths: of.wholes(1, MOST_WIRES, MOST_WIRES, [1, 1], 1),
    }),
  {
    kind: 'join',
    family: 'Wiring',
    name: 'Join',
    typed: ['join', 'bus'],
    says: 'Lays several wires together into one bus; the top one has the highest bits.',
    labelled: '',
    labelSide: 'top',
    settings: [{ param: 'widths', label: 'Bits from top', control: 'words', hint: '4 1 1' }],
    typedWord: (word) => {
      const count = typedWhole(word);
      if (count === null) return null;
      return count >= 2 && count <= MOST_BITS
        ? { widths: Array.from({ length: count }, () => 1) }
        : `wires from 2 to ${MOST_BITS}`;
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
        {
          shape: 'path',
          d: `M-0.4 ${-h + 0.4}H0V${h - 0.4}H-0.4Z`,
          fill: 'ink',
          stroke: 'ink',
          weight: LINE,
        },
      ];
    },
    build: (params, b) => {
      const widths = joined(params);
      let bit = 0;
      for (let i = 0; i < widths.length; i++)
        for (let own = 0; own < widths[widths.length - 1 - i]!; own++)
          b.join(b.pin(`I${i}`, own), b.pin('Y', bit++));
    },
    verilog: (params, wires) => {
      const inputs = joined(params).map((_, i, all) => wires.of(`I${all.length - 1 - i}`));
      return [`assign ${wires.of('Y')} = {${inputs.join(', ')}};`];
    },
    spoken: (params) =>
      `join of ${joined(params)
        .map((w) => counted(w, 'bit'))
        .join(', ')}`,
  },
);

/** Widths from the top, cut where together they are more than a bus holds. */
function joined({ widths }: { readonly widths: readonly number[] }): number[] {
  const kept: number[] = [];
  let sum = 0;
  for (const w of widths) {
    if (sum + w > MOST_WIRES) continue;
    kept.push(w);
    sum += w;
  }
  return kept;
}

const extendKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      from: of.bits(1, MOST_BITS, 4),
      to: of.bits(1, MOST_BITS, 8),
      by: of.oneOf(['zero', 'sign'], 'zero'),
    }),
  {
    kind: 'extend',
    family: 'Wiring',
    name: 'Extension',
    typed: ['extend', 'extension'],
    says: 'Makes a bus wider: with zeros, or by repeating its highest bit, the sign.',
    labelled: '',
    labelSide: 'top',
    settings: [
      bitSetting('from', 'From bits', 1),
      bitSetting('to', 'To bits', 1),
      choiceSetting('by', 'New bits are', [
        ['zero', '0'],
        ['sign', 'the sign'],
      ]),
    ],
    typedWord: (word) => {
      const by = typedOneOf(word, ['sign', 'zero']);
      if (by) return { by };
      const to = typedBits(word);
      return to === null ? null : { to };
    },
    ports: (params) => [
      { name: 'A', direction: 'in', width: params.from, x: -2, y: 0, side: 'left', lead: 0.8 },
      { name: 'Y', direction: 'out', width: wider(params), x: 2, y: 0, side: 'right', lead: 0.8 },
    ],
    body: () => ({ x0: -1.2, y0: -0.9, x1: 1.2, y1: 0.9 }),
    symbol: (params) => [
      outline('M-1.2 -0.45L1.2 -0.9V0.9L-1.2 0.45Z'),
      wordText(0, 0, params.by === 'sign' ? '±' : '0', 0.8),
    ],
    build: (params, b) => {
      const from = params.from;
      for (let bit = 0; bit < wider(params); bit++) {
        if (bit < from) b.join(b.pin('A', bit), b.pin('Y', bit));
        else if (params.by === 'sign') b.join(b.pin('A', from - 1), b.pin('Y', bit));
        else b.drive(b.pin('Y', bit), Primitive.CONST_0, []);
      }
    },
    verilog: (params, wires) => {
      const more = wider(params) - params.from;
      const top = params.by === 'sign' ? wires.bit('A', params.from - 1) : "1'b0";
      const a = wires.of('A');
      return [`assign ${wires.of('Y')} = ${more === 0 ? a : `{{${more}{${top}}}, ${a}}`};`];
    },
    spoken: (params) => `extension from ${counted(params.from, 'bit')} to ${wider(params)}, by ${params.by}`,
  },
);

const wider = ({ from, to }: { readonly from: number; readonly to: number }) => Math.max(from, to);

const pullKind = definePart(
  (of: ParamSchemas) => of.object({ to: of.oneOf(['up', 'down'], 'up'), width: of.bits() }),
  {
    kind: 'pull',
    family: 'Wiring',
    name: 'Pull resistor',
    typed: ['pull'],
    says: 'Gives an undriven wire a value, and yields to any driver.',
    labelled: '',
    labelSide: 'right',
    settings: [
      choiceSetting('to', 'Pulls to', [
        ['up', '1'],
        ['down', '0'],
      ]),
      widthSetting,
    ],
    typedWord: (word) => {
      const to = typedOneOf(word, ['up', 'down']);
      return to ? { to } : typedWidth(word);
    },
    ports: (params) => [
      { name: 'A', direction: 'both', width: params.width, x: 0, y: 2, side: 'bottom', lead: 0.6 },
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
    verilog: ({ to, width }, wires) =>
      Array.from({ length: width }, (_, bit) => `pull${to} (${wires.bit('A', bit)});`),
    spoken: (params) => `pull-${params.to}, ${counted(params.width, 'bit')}`,
  },
);

export const wiring: readonly PartKind[] = [portKind, labelKind, sliceKind, joinKind, extendKind, pullKind];
