import type { Point } from '../circuit/geometry';
import { type Logic, ONE, X } from '../values/logic';
import { readWord, wordText, wordValue } from '../values/radix';
import { counted } from '../values/wording';
import { definePart } from './define-part';
import { captionShapes, keyShapes } from './input-shapes';
import { MOST_BITS } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { PartKind, Port } from './part-kind';
import { LINE, outline, roundedBox, type Shape } from './shape';
import { captionSetting, choiceSetting, keySetting, numberSetting, widthSetting } from './shared-settings';
import { typedWidth } from './typed-words';

const output: Port = { name: 'Y', direction: 'out', width: 1, x: 2, y: 0, side: 'right', lead: 0.7 };

/** Half the height of a bank of switches: one under the other, a grid step and a half each. */
const bankHalf = (width: number) => Math.ceil(width * 0.75);

/** The left edge of a bank; it is wider where each bit's worth is written beside its lever. */
const bankLeft = (params: { readonly values: boolean; readonly width: number }) =>
  params.values ? -1.6 - 0.5 * String(2 ** (params.width - 1)).length : -1.3;

/** The weight of a bit of a bank. */
const worth = (y: number, bit: number): Shape => ({
  shape: 'text',
  x: -1.3,
  y,
  text: String(2 ** bit),
  size: 0.75,
  align: 'right',
  face: 'mono',
  paint: 'quiet',
});

const valuesSetting = choiceSetting('values', 'Place values', [
  [false, 'not shown'],
  [true, 'shown'],
]);

/** One lever of a bank of switches and the value beside it. */
function lever(y: number, on: boolean): Shape[] {
  return [
    {
      shape: 'path',
      d: roundedBox(-1, y - 0.5, 0.2, y + 0.5, 0.5),
      fill: 'paper',
      stroke: 'ink',
      weight: LINE,
    },
    { shape: 'circle', x: on ? -0.3 : -0.5, y, r: 0.4, fill: on ? 'one' : 'ink' },
    {
      shape: 'text',
      x: 0.9,
      y,
      text: on ? '1' : '0',
      isSignal: true,
      size: 0.8,
      align: 'center',
      face: 'mono',
      bold: on,
    },
  ];
}

/** The one bit of a round switch or button, where it is pressed; its frame's corners are beside it. */
const onRound = ({ x, y }: Point) => (Math.hypot(x, y) <= 1.3 ? 0 : null);

const roundBody = { x0: -1.3, y0: -1.3, x1: 1.3, y1: 1.3 };

const switchKind = definePart(
  (of: ParamSchemas) =>
    of.object({ width: of.bits(), values: of.flag(false), caption: of.caption, key: of.boundKey }),
  {
    kind: 'switch',
    family: 'Inputs',
    name: 'Switch',
    typed: ['switch', 'sw', 'input'],
    says: 'An input that stays where it is put. With several bits it is a bank of switches, the highest on top.',
    labelled: 'S',
    labelSide: 'left',
    alwaysAllowed: true,
    settings: [widthSetting, captionSetting, keySetting, valuesSetting],
    typedWord: typedWidth,
    ports: (params) => [{ ...output, width: params.width }],
    body: (params) =>
      params.width === 1
        ? roundBody
        : { x0: bankLeft(params), y0: -bankHalf(params.width), x1: 1.3, y1: bankHalf(params.width) },
    role: () => ({ role: 'input', by: 'switch' }),
    bitAt: (params, at) => {
      const width = params.width;
      if (width === 1) return onRound(at);
      const { y } = at;
      if (Math.abs(y) > bankHalf(width) || at.x > 1.3) return null;
      const pitch = (2 * bankHalf(width)) / width;
      return Math.min(width - 1, Math.max(0, width - 1 - Math.floor((y + bankHalf(width)) / pitch)));
    },
    symbol: (params, look) => {
      const width = params.width;
      if (width > 1) {
        const half = bankHalf(width);
        const pitch = (2 * half) / width;
        return [
          ...captionShapes(params, -half),
          outline(roundedBox(bankLeft(params), -half, 1.3, half, 0.4)),
          ...(params.values
            ? Array.from({ length: width }, (_, bit) => worth(half - pitch * (bit + 0.5), bit))
            : []),
          ...Array.from({ length: width }, (_, bit) =>
            lever(half - pitch * (bit + 0.5), look.value('Y', bit) === ONE),
          ).flat(),
        ];
      }
      const on = look.value('Y') === ONE;
      return [
        ...captionShapes(params, -1.3),
        ...keyShapes(params, 1.3),
        ...(on ? [{ shape: 'circle', x: 0, y: 0, r: 1.42, stroke: 'one', weight: 0.1 } as const] : []),
        { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
        { shape: 'path', d: on ? 'M0 0L0.7 -0.55' : 'M0 0L-0.7 -0.55', stroke: 'ink', weight: 0.32 },
        { shape: 'circle', x: 0, y: 0, r: 0.32, fill: 'ink' },
        {
          shape: 'text',
          x: 0,
          y: 2.15,
          text: on ? '1' : '0',
          isSignal: true,
          size: 1,
          align: 'center',
          face: 'mono',
          bold: true,
        },
      ];
    },
    build: () => {},
    spoken: (params) => (params.width === 1 ? 'switch' : `bank of ${params.width} switches`),
  },
);

const buttonKind = definePart((of: ParamSchemas) => of.object({ caption: of.caption, key: of.boundKey }), {
  kind: 'button',
  family: 'Inputs',
  name: 'Button',
  typed: ['button', 'push', 'btn'],
  says: 'An input that is 1 only while it is held. Shift-click keeps it held.',
  labelled: 'B',
  labelSide: 'left',
  settings: [captionSetting, keySetting],
  ports: () => [output],
  body: () => roundBody,
  role: () => ({ role: 'input', by: 'button' }),
  bitAt: (_, at) => onRound(at),
  symbol: (params, look) => [
    ...captionShapes(params, -1.3),
    ...keyShapes(params, 1.3),
    { shape: 'circle', x: 0, y: 0, r: 1.25, fill: 'raised', stroke: 'ink', weight: LINE },
    {
      shape: 'circle',
      x: 0,
      y: 0,
      r: look.held ? 0.6 : 0.75,
      fill: look.held ? 'one' : 'paper',
      stroke: 'ink',
      weight: LINE,
    },
    {
      shape: 'text',
      x: 0,
      y: 2.15,
      text: look.held ? '1' : '0',
      isSignal: true,
      size: 1,
      align: 'center',
      face: 'mono',
      bold: true,
    },
  ],
  build: () => {},
  spoken: () => 'push button',
});

interface ConstantParams {
  readonly value: number;
  /** Bits that are X, as a number. */
  readonly unknown: number;
  readonly width: number;
}

/** Half the width of a constant's frame in grid steps, its pin at x = 2 or further right. */
/** As far to the left as its digits need. */
const constantLeft = (params: ConstantParams) =>
  -0.9 - Math.max(0, constantText(params).length * CONSTANT_DIGIT + 0.6 - 2.2);
/** The width of a digit of a constant of several bits. */
const CONSTANT_DIGIT = 0.55;
const constantText = (params: ConstantParams) =>
  wordText(constantBits(params), params.width > 4 ? 'hexadecimal' : 'binary');
const bitOf = (number: number, bit: number) => Math.floor(number / 2 ** bit) % 2;
const constantBits = (params: ConstantParams): Logic[] =>
  Array.from(
    { length: params.width },
    (_, bit) => (bitOf(params.unknown, bit) ? X : bitOf(params.value, bit)) as Logic,
  );

const constantKind = definePart(
  (of: ParamSchemas) =>
    of.object({
      value: of.whole(0, 2 ** 32 - 1, 1),
      unknown: of.whole(0, 2 ** 32 - 1, 0),
      width: of.bits(),
    }),
  {
    kind: 'constant',
    family: 'Inputs',
    name: 'Constant',
    typed: ['constant', 'const'],
    says: 'Always the same value.',
    labelled: '',
    labelSide: 'left',
    settings: [numberSetting('value', 'Value', 0, 2 ** 32 - 1), widthSetting],
    typedWord: (word) => {
      const sized = /^(\d{1,2})'/.exec(word);
      if (/bit/.test(word)) return typedWidth(word);
      const found = readWord(word, sized ? Math.min(MOST_BITS, Math.max(1, Number(sized[1]))) : MOST_BITS);
      const value = found && wordValue(found);
      if (value === null) return null;
      const needed = Math.max(1, Math.ceil(Math.log2(value + 1)));
      return { value, width: sized ? Number(sized[1]) : needed };
    },
    ports: (params) => [{ ...output, width: params.width }],
    body: (params) => ({ x0: constantLeft(params), y0: -0.9, x1: 1.3, y1: 0.9 }),
    role: (params) => ({ role: 'constant', bits: constantBits(params) }),
    symbol: (params) => [
      outline(roundedBox(constantLeft(params), -0.9, 1.3, 0.9, 0.35)),
      {
        shape: 'text',
        x: (constantLeft(params) + 1.3) / 2,
        y: 0,
        text: constantText(params),
        size: params.width === 1 ? 1.1 : 0.9,
        align: 'center',
        face: 'mono',
        bold: true,
      },
    ],
    build: () => {},
    spoken: (params) =>
      params.width === 1
        ? `constant ${params.value}`
        : `constant ${params.value}, ${counted(params.width, 'bit')}`,
  },
);

export const inputs: readonly PartKind[] = [switchKind, buttonKind, constantKind];
