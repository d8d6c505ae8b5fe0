import type { Box } from '../circuit/geometry';
import { counted } from '../values/wording';
import { definePart } from './define-part';
import { gateDelay, THREE_STATE } from './delays';
import type { ParamSchemas } from './param-schemas';
import type { PartKind, Port } from './part-kind';
import { Primitive } from './primitive';
import { bubble, LINE, outline, type Shape } from './shape';
import { choiceSetting, numberSetting, widthSetting } from './shared-settings';
import { typedOneOf, typedWhole, typedWidth } from './typed-words';

/** Most inputs of one gate. */
export const MOST_GATE_INPUTS = 16;

interface GateParams {
  readonly inputs: number;
  readonly width: number;
  /** Inputs with a bubble, by number from the top, the first being 0. */
  readonly inverted: readonly number[];
}

/** Letters of a gate's inputs from the top: A, B, C ... */
export function inputName(index: number): string {
  return String.fromCharCode(65 + index);
}

const NUMBERS = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/** Pins two steps apart, centred on the output's line. */
function gatePorts({ inputs, inverted, width }: GateParams): Port[] {
  const ports: Port[] = [];
  for (let i = 0; i < inputs; i++)
    ports.push({
      name: inputName(i),
      direction: 'in',
      width,
      x: -3,
      y: 2 * i - (inputs - 1),
      side: 'left',
      lead: inverted.includes(i) ? 0.5 : 1.4,
    });
  ports.push({ name: 'Y', direction: 'out', width, x: 3, y: 0, side: 'right', lead: 1.2 });
  return ports;
}

const half = (inputs: number) => Math.max(1.9, inputs - 0.1);
const gateBody = (inputs: number): Box => ({ x0: -2, y0: -half(inputs), x1: 2, y1: half(inputs) });

interface GateLook {
  readonly distinctive: (h: number) => readonly Shape[];
  /** The qualifying symbol of IEC 60617-12. */
  readonly qualifier: string;
  readonly inverted: boolean;
}

/** The outline shifted left if a bubble follows it, so that the output pin keeps its place. */
const andLook = (inverted: boolean): GateLook => ({
  qualifier: '&',
  inverted,
  distinctive: (h) => {
    const right = inverted ? 1.4 : 2;
    return [outline(`M-1.9 ${-h}H${right - 1.9}A1.9 ${h} 0 0 1 ${right - 1.9} ${h}H-1.9Z`)];
  },
});

const orCurve = (h: number, right: number) =>
  `M-2 ${-h}H-0.9C0.6 ${-h} ${right - 0.6} ${-h * 0.45} ${right} 0C${right - 0.6} ${h * 0.45} 0.6 ${h} -0.9 ${h}H-2` +
  `C-1.2 ${h * 0.45} -1.2 ${-h * 0.45} -2 ${-h}Z`;

const orLook = (inverted: boolean): GateLook => ({
  qualifier: '≥1',
  inverted,
  distinctive: (h) => [outline(orCurve(h, inverted ? 1.4 : 2))],
});

const xorLook = (inverted: boolean): GateLook => ({
  qualifier: '=1',
  inverted,
  distinctive: (h) => [
    outline(orCurve(h, inverted ? 1.4 : 2)),
    {
      shape: 'path',
      d: `M-2.5 ${-h}C-1.7 ${-h * 0.45} -1.7 ${h * 0.45} -2.5 ${h}`,
      stroke: 'ink',
      weight: LINE,
    },
  ],
});

function rectangle(qualifier: string, h: number, inverted: boolean): Shape[] {
  const right = inverted ? 1.2 : 1.8;
  return [
    outline(`M-1.6 ${-h}H${right}V${h}H-1.6Z`),
    { shape: 'text', x: (right - 1.6) / 2, y: 0, text: qualifier, size: 1.25, align: 'center', bold: true },
  ];
}

function gate(
  kind: string,
  op: Primitive,
  family: { name: string; says: string; typed?: readonly string[] },
  look: GateLook,
): PartKind {
  return definePart(
    (of: ParamSchemas) =>
      of.object({
        inputs: of.whole(2, MOST_GATE_INPUTS, 2),
        width: of.bits(),
        inverted: of.wholes(0, MOST_GATE_INPUTS - 1, MOST_GATE_INPUTS, []),
        ...of.ownDelay,
      }),
    {
      kind,
      family: 'Gates',
      name: family.name,
      typed: [kind, ...(family.typed ?? [])],
      says: family.says,
      labelled: '',
      labelSide: 'top',
      isGate: true,
      settings: [
        numberSetting('inputs', 'Inputs', 2, MOST_GATE_INPUTS),
        widthSetting,
        { param: 'inverted', label: 'Bubbles at', control: 'words', hint: 'inputs from the top, 0 1 2' },
      ],
      typedWord: (word) => {
        const inputs = typedWhole(word);
        return inputs === null ? typedWidth(word) : { inputs };
      },
      ports: gatePorts,
      body: ({ inputs }) => gateBody(inputs),
      symbol: ({ inputs, inverted }, { standard }) => {
        const h = half(inputs);
        const drawn =
          standard === 'distinctive' ? look.distinctive(h) : rectangle(look.qualifier, h, look.inverted);
        const edge = standard === 'distinctive' ? 1.7 : 1.5;
        const left = standard === 'distinctive' ? -2.1 : -1.9;
        const bubbles = [...new Set(inverted)].filter((i) => i < inputs);
        return [
          ...drawn,
          ...(look.inverted ? [bubble(edge, 0)] : []),
          ...bubbles.map((i) => bubble(left, 2 * i - (inputs - 1))),
        ];
      },
      build: ({ inputs, inverted, width }, b) => {
        for (let bit = 0; bit < width; bit++) {
          const pins = Array.from({ length: inputs }, (_, i) => {
            const pin = b.pin(inputName(i), bit);
            return inverted.includes(i) ? b.gate(Primitive.NOT, [pin]) : pin;
          });
          b.drive(b.pin('Y', bit), op, pins, gateDelay(kind, inputs));
        }
      },
      verilog: ({ inputs, inverted, width }, wires) => {
        if (width > 1) return null;
        const pins = Array.from({ length: inputs }, (_, i) => {
          const pin = wires.of(inputName(i));
          return inverted.includes(i) ? `~${pin}` : pin;
        });
        return [wires.instance(kind, [wires.of('Y'), ...pins])];
      },
      spoken: ({ inputs, inverted, width }) => {
        const names = [...new Set(inverted)].map(inputName);
        const bubbles = names.length ? `, ${names.join(' and ')} inverted` : '';
        return `${wide(width)}${NUMBERS[inputs] ?? inputs}-input ${family.name}${bubbles}`;
      },
    },
  );
}

/** `8 bits wide, ` before the name of a part that is. */
const wide = (width: number) => (width > 1 ? `${counted(width, 'bit')} wide, ` : '');

/** A triangle with one input and one output. */
function single(
  kind: string,
  op: Primitive,
  words: { name: string; typed: readonly string[]; says: string },
): PartKind {
  const inverts = op === Primitive.NOT;
  return definePart((of: ParamSchemas) => of.object({ width: of.bits(), ...of.ownDelay }), {
    kind,
    family: 'Gates',
    ...words,
    labelled: '',
    labelSide: 'top',
    isGate: true,
    settings: [widthSetting],
    typedWord: typedWidth,
    ports: ({ width }) => [
      { name: 'A', direction: 'in', width, x: -2, y: 0, side: 'left', lead: 0.8 },
      { name: 'Y', direction: 'out', width, x: 2, y: 0, side: 'right', lead: inverts ? 0.6 : 1.2 },
    ],
    body: () => ({ x0: -1.2, y0: -1.1, x1: 1.4, y1: 1.1 }),
    symbol: (_, { standard }) => [
      ...(standard === 'distinctive'
        ? [outline('M-1.2 -1.1L0.8 0L-1.2 1.1Z')]
        : [
            outline('M-1.2 -1.2H0.8V1.2H-1.2Z'),
            { shape: 'text', x: -0.2, y: 0, text: '1', size: 1.1, align: 'center', bold: true } as const,
          ]),
      ...(inverts ? [bubble(1.1, 0)] : []),
    ],
    build: ({ width }, b) => {
      for (let bit = 0; bit < width; bit++)
        b.drive(b.pin('Y', bit), op, [b.pin('A', bit)], gateDelay(kind, 1));
    },
    verilog: ({ width }, wires) =>
      width > 1 ? null : [wires.instance(inverts ? 'not' : 'buf', [wires.of('Y'), wires.of('A')])],
    spoken: ({ width }) => `${wide(width)}${words.name}`,
  });
}

const inverter = single('not', Primitive.NOT, {
  name: 'NOT',
  typed: ['not', 'inverter', 'inv'],
  says: 'Turns 0 into 1 and 1 into 0.',
});

const buffer = single('buffer', Primitive.BUF, {
  name: 'Buffer',
  typed: ['buffer', 'buf'],
  says: 'Passes its input on after a delay.',
});

const threeState = definePart(
  (of: ParamSchemas) =>
    of.object({
      width: of.bits(),
      /** The active level of the enable. */
      enable: of.oneOf(['high', 'low'], 'high'),
      ...of.ownDelay,
    }),
  {
    kind: 'tri',
    family: 'Gates',
    name: 'Three-state buffer',
    typed: ['three-state', 'tri', 'three-state buffer'],
    says: 'Passes its input on while it is enabled; otherwise it leaves the wire undriven.',
    labelled: '',
    labelSide: 'top',
    isGate: true,
    settings: [
      widthSetting,
      choiceSetting('enable', 'Drives while the enable is', [
        ['high', '1'],
        ['low', '0'],
      ]),
    ],
    typedWord: (word) => {
      const enable = typedOneOf(word, ['low', 'high']);
      return enable ? { enable } : typedWidth(word);
    },
    ports: ({ width, enable }) => [
      { name: 'A', direction: 'in', width, x: -2, y: 0, side: 'left', lead: 0.8 },
      {
        name: 'EN',
        direction: 'in',
        width: 1,
        x: 0,
        y: 2,
        side: 'bottom',
        lead: enable === 'low' ? 0.8 : 1.5,
      },
      { name: 'Y', direction: 'out', width, x: 2, y: 0, side: 'right', lead: 1.2 },
    ],
    body: () => ({ x0: -1.2, y0: -1.1, x1: 1.4, y1: 1.1 }),
    symbol: ({ enable }, { standard }) => [
      ...(standard === 'distinctive'
        ? [outline('M-1.2 -1.1L0.8 0L-1.2 1.1Z')]
        : [
            outline('M-1.2 -1.2H0.8V1.2H-1.2Z'),
            { shape: 'path', d: 'M-0.6 -0.3H0.2L-0.2 0.4Z', stroke: 'ink', weight: LINE } as const,
          ]),
      ...(enable === 'low' ? [bubble(0, standard === 'distinctive' ? 0.85 : 1.5)] : []),
    ],
    build: ({ width, enable }, b) => {
      const on = enable === 'low' ? b.gate(Primitive.NOT, [b.pin('EN')]) : b.pin('EN');
      for (let bit = 0; bit < width; bit++)
        b.drive(b.pin('Y', bit), Primitive.TRI, [b.pin('A', bit), on], THREE_STATE);
    },
    verilog: ({ width, enable }, wires) =>
      width > 1
        ? null
        : [wires.instance(enable === 'low' ? 'bufif0' : 'bufif1', ['Y', 'A', 'EN'].map(wires.of))],
    spoken: ({ width, enable }) => `${wide(width)}three-state buffer, enabled at ${enable === 'low' ? 0 : 1}`,
  },
);

export const gates: readonly PartKind[] = [
  gate('and', Primitive.AND, { name: 'AND', says: '1 only while all inputs are 1.' }, andLook(false)),
  gate('or', Primitive.OR, { name: 'OR', says: '1 while at least one input is 1.' }, orLook(false)),
  inverter,
  gate('nand', Primitive.NAND, { name: 'NAND', says: '0 only while all inputs are 1.' }, andLook(true)),
  gate('nor', Primitive.NOR, { name: 'NOR', says: '1 only while all inputs are 0.' }, orLook(true)),
  gate('xor', Primitive.XOR, { name: 'XOR', says: '1 while an odd number of inputs is 1.' }, xorLook(false)),
  gate(
    'xnor',
    Primitive.XNOR,
    { name: 'XNOR', says: '1 while an even number of inputs is 1.' },
    xorLook(true),
  ),
  buffer,
  threeState,
];
