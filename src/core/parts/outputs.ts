import { type Logic, ONE, X, Z } from '../values/logic';
import { RADICES, type Radix, wordText, wordValue } from '../values/radix';
import { counted } from '../values/wording';
import { definePart } from './define-part';
import { captionShapes } from './input-shapes';
import { MOST_BITS } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { Appearance, PartKind, Port } from './part-kind';
import { LAMP_COLOURS, LINE, outline, type Paint, roundedBox, type Shape } from './shape';
import { captionSetting, choiceSetting, widthSetting } from './shared-settings';
import { typedOneOf, typedWidth } from './typed-words';

interface NumberParams {
  readonly width: number;
  readonly radix: Radix;
}

/** Rays of a lit lamp, none of them to where its pin and its label are. */
const rays = (r: number) =>
  [1, 2, 3, 5, 6, 7]
    .map((i) => {
      const c = Math.cos((i * Math.PI) / 4);
      const s = Math.sin((i * Math.PI) / 4);
      const inner = r + 0.4;
      const outer = r + 0.9;
      return `M${(c * inner).toFixed(3)} ${(s * inner).toFixed(3)}L${(c * outer).toFixed(3)} ${(s * outer).toFixed(3)}`;
    })
    .join('');
const RAYS = rays(1.1);

const valuesOf = (look: Appearance, width: number): Logic[] =>
  Array.from({ length: width }, (_, bit) => look.value('A', bit));
const input = (width: number, x: number, lead: number): Port => ({
  name: 'A',
  direction: 'in',
  width,
  x,
  y: 0,
  side: 'left',
  lead,
});

const RADIX_NAMES: Record<Radix, string> = {
  binary: 'binary',
  hexadecimal: 'hexadecimal',
  unsigned: 'unsigned',
  signed: "two's complement",
};

const RADIX_CHOICES = RADICES.map((value) => [value, RADIX_NAMES[value]] as const);
const radixSetting = choiceSetting('radix', 'Written', RADIX_CHOICES);
const readsSetting = choiceSetting('reads', 'Read as', [['no', 'lamps only'], ...RADIX_CHOICES]);

/** The colours of a lamp: that of a 1 unless another one was chosen. */
const LIGHTS = ['amber', ...LAMP_COLOURS] as const;
type Light = (typeof LIGHTS)[number];
const paintOf = (light: Light): Paint => (light === 'amber' ? 'one' : `lamp-${light}`);

const lightSetting = choiceSetting(
  'light',
  'Light',
  LIGHTS.map((light) => [light, light]),
);

const typedRadix = (word: string): { radix: Radix } | null => {
  const radix = RADICES.find((r) => word.length > 2 && r.startsWith(word));
  return radix ? { radix } : null;
};

function bulb(x: number, value: Logic, r: number, light: Light = 'amber'): Shape[] {
  const shapes: Shape[] = [
    {
      shape: 'circle',
      x,
      y: 0,
      r,
      fill: value === ONE ? paintOf(light) : 'raised',
      stroke: 'ink',
      weight: LINE,
    },
  ];
  if (value === X || value === Z)
    shapes.push({
      shape: 'text',
      x,
      y: 0,
      text: '?',
      isSignal: true,
      size: r,
      align: 'center',
      paint: 'quiet',
      bold: true,
    });
  return shapes;
}

/** Half the width of a row of lamps in grid steps. */
const rowHalf = (width: number) => (width === 1 ? 1.1 : Math.ceil(width * 0.75));

const lampKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(),
      reads: of.oneOf(['no', ...RADICES], 'no'),
      light: of.oneOf(LIGHTS, 'amber'),
      caption: of.caption,
    }),
  {
    kind: 'lamp',
    family: 'Outputs',
    name: 'Lamp',
    typed: ['lamp', 'light', 'output', 'led', 'lamps'],
    says: 'An output: shines while its input is 1. With several bits it is a row of lamps.',
    labelled: 'L',
    labelSide: 'right',
    alwaysAllowed: true,
    settings: [widthSetting, lightSetting, captionSetting, readsSetting],
    typedWord: (word) => {
      const light = typedOneOf(word, LIGHTS);
      return light ? { light } : typedWidth(word);
    },
    ports: (params) => [
      params.width === 1 ? input(1, -2, 0.9) : input(params.width, -rowHalf(params.width) - 1, 1),
    ],
    body: (params) => {
      const half = rowHalf(params.width);
      return { x0: -half, y0: -1.1, x1: half, y1: 1.1 };
    },
    role: () => ({ role: 'output' }),
    symbol: (params, look) => {
      const width = params.width;
      if (width === 1) {
        const value = look.value('A');
        const shapes = [...captionShapes(params, -1.3), ...bulb(0, value, 1.1, params.light)];
        if (value === ONE)
          shapes.push({ shape: 'path', d: RAYS, stroke: paintOf(params.light), weight: 0.2 });
        return shapes;
      }
      const half = rowHalf(width);
      const pitch = (2 * half) / width;
      return [
        ...captionShapes(params, -1.1),
        ...(params.reads === 'no'
          ? []
          : [
              {
                shape: 'text',
                x: 0,
                y: 1.9,
                text: wordText(valuesOf(look, width), params.reads),
                isSignal: true,
                size: 1,
                align: 'center',
                face: 'mono',
                bold: true,
              } as const,
            ]),
        outline(roundedBox(-half, -1.1, half, 1.1, 0.4)),
        ...valuesOf(look, width).flatMap((value, bit) =>
          bulb(half - pitch * (bit + 0.5), value, 0.5, params.light),
        ),
      ];
    },
    build: () => {},
    spoken: ({ width, light }) => {
      const lamp = light === 'amber' ? 'lamp' : `${light} lamp`;
      return width === 1 ? lamp : `row of ${width} ${lamp}s`;
    },
  },
);

const probeHalf = (params: NumberParams) => Math.max(1, numberHalf(params) - 0.4);

/** A probe stands on a wire by its foot, and shows its value. */
const probeKind = definePart(
  (of: ParamSchemas) => of.object({ width: of.bits(), radix: of.oneOf(RADICES, 'hexadecimal') }),
  {
    kind: 'probe',
    family: 'Outputs',
    name: 'Probe',
    typed: ['probe'],
    says: 'Stands on a wire and shows what it carries: a column of the table and a lane of the diagram.',
    labelled: 'P',
    labelSide: 'right',
    isProbe: true,
    alwaysAllowed: true,
    settings: [widthSetting, radixSetting],
    typedWord: (word) => typedRadix(word) ?? typedWidth(word),
    ports: (params) => [
      { name: 'A', direction: 'in', width: params.width, x: 0, y: 2, side: 'bottom', lead: 0.9 },
    ],
    body: (params) => ({ x0: -probeHalf(params), y0: -0.9, x1: probeHalf(params), y1: 0.9 }),
    role: () => ({ role: 'output' }),
    symbol: (params, look) => [
      {
        shape: 'path',
        d: `${roundedBox(-probeHalf(params), -0.9, probeHalf(params), 0.9, 0.9)}M-0.5 0.9L0 1.5L0.5 0.9`,
        fill: 'raised',
        stroke: 'accent',
        weight: LINE,
      },
      {
        shape: 'text',
        x: 0,
        y: 0,
        text: wordText(valuesOf(look, params.width), params.radix),
        isSignal: true,
        size: 1.1,
        align: 'center',
        face: 'mono',
        bold: true,
      },
    ],
    build: () => {},
    spoken: (params) => (params.width === 1 ? 'probe' : `probe of ${counted(params.width, 'bit')}`),
  },
);

const numberKind = definePart(
  (of: ParamSchemas) =>
    of.object({ width: of.bits(1, MOST_BITS, 4), radix: of.oneOf(RADICES, 'hexadecimal') }),
  {
    kind: 'number',
    family: 'Outputs',
    name: 'Number',
    typed: ['number', 'value'],
    says: 'An output that shows a bus as a number.',
    labelled: 'N',
    labelSide: 'right',
    settings: [widthSetting, radixSetting],
    typedWord: (word) => typedRadix(word) ?? typedWidth(word),
    ports: (params) => [input(params.width, -numberHalf(params) - 1, 1)],
    body: (params) => ({ x0: -numberHalf(params), y0: -1, x1: numberHalf(params), y1: 1 }),
    role: () => ({ role: 'output' }),
    symbol: (params, look) => [
      outline(roundedBox(-numberHalf(params), -1, numberHalf(params), 1, 0.3)),
      {
        shape: 'text',
        x: 0,
        y: 0,
        text: wordText(valuesOf(look, params.width), params.radix),
        isSignal: true,
        size: 1.2,
        align: 'center',
        face: 'mono',
        bold: true,
      },
    ],
    build: () => {},
    spoken: (params) => `number of ${counted(params.width, 'bit')}, ${RADIX_NAMES[params.radix]}`,
  },
);

/** Half the width of the frame around the longest number. */
function numberHalf({ width, radix }: NumberParams): number {
  const digits =
    radix === 'binary'
      ? width
      : radix === 'hexadecimal'
        ? Math.ceil(width / 4)
        : String(2 ** width).length + (radix === 'signed' ? 1 : 0);
  return Math.max(1, Math.ceil((digits * 0.75 + 0.8) / 2));
}

/** The bars of a seven-segment display, a at the top and on clockwise, g in the middle. */
const BARS = [
  'M-1 -2.4H1',
  'M1.2 -2.2V-0.2',
  'M1.2 0.2V2.2',
  'M-1 2.4H1',
  'M-1.2 0.2V2.2',
  'M-1.2 -2.2V-0.2',
  'M-1 0H1',
];
/** Which bars each hexadecimal digit lights, bit 0 for a. */
const DIGITS = [
  0x3f, 0x06, 0x5b, 0x4f, 0x66, 0x6d, 0x7d, 0x07, 0x7f, 0x6f, 0x77, 0x7c, 0x39, 0x5e, 0x79, 0x71,
];

function bars(lit: (i: number) => boolean): Shape[] {
  return BARS.map((d, i) => ({
    shape: 'path',
    d,
    stroke: lit(i) ? 'one' : 'hairline',
    weight: lit(i) ? 0.5 : 0.3,
  }));
}

const segmentsKind = definePart((of: ParamSchemas) => of.object({}), {
  kind: 'segments',
  family: 'Outputs',
  name: 'Seven segments',
  typed: ['segments', 'seven segments', '7seg'],
  says: 'A digit of seven bars, each lit while its pin is 1: a at the top, on clockwise, g in the middle.',
  labelled: '',
  labelSide: 'top',
  ports: () =>
    [...'abcdefg'].map(
      (name, i): Port => ({
        name,
        direction: 'in',
        width: 1,
        x: -4,
        y: 2 * i - 6,
        side: 'left',
        lead: 1,
      }),
    ),
  body: () => ({ x0: -3, y0: -7, x1: 3, y1: 7 }),
  symbol: (_, look) => [
    outline(roundedBox(-3, -7, 3, 7, 0.5)),
    ...[...'abcdefg'].map(
      (text, i): Shape => ({
        shape: 'text',
        x: -2.6,
        y: 2 * i - 6,
        text,
        size: 0.85,
        align: 'left',
        paint: 'quiet',
      }),
    ),
    ...bars((i) => look.value('abcdefg'[i]!) === ONE).map((bar) =>
      bar.shape === 'path' ? { ...bar, d: moved(bar.d, 0.6) } : bar,
    ),
  ],
  build: () => {},
  verilog: () => [],
  spoken: () => 'seven-segment display, driven by its segments',
});

/** A bar moved to the right. */
function moved(d: string, by: number): string {
  return d.replace(/([MH])(-?[\d.]+)/g, (_, letter, x) => `${letter}${Number(x) + by}`);
}

const digitKind = definePart((of: ParamSchemas) => of.object({}), {
  kind: 'digit',
  family: 'Outputs',
  name: 'Digit',
  typed: ['digit', 'hex digit'],
  says: 'An output of seven bars that shows a value of four bits as a hexadecimal digit.',
  labelled: 'H',
  labelSide: 'right',
  ports: () => [input(4, -3, 1)],
  body: () => ({ x0: -2, y0: -3.2, x1: 2, y1: 3.2 }),
  role: () => ({ role: 'output' }),
  symbol: (_, look) => {
    const value = wordValue(valuesOf(look, 4));
    return [
      outline(roundedBox(-2, -3.2, 2, 3.2, 0.5)),
      ...bars((i) => value !== null && ((DIGITS[value]! >> i) & 1) === 1),
    ];
  },
  build: () => {},
  spoken: () => 'seven-segment display of a four-bit value',
});

export const outputs: readonly PartKind[] = [lampKind, numberKind, digitKind, segmentsKind, probeKind];
