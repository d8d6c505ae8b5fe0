import type { Box } from '../circuit/geometry';
import type { Params } from '../circuit/lesson';
import { whole, z } from '../values/schema';
import { gateDelay } from './delays';
import type { PartKind, Port } from './part-kind';
import { Primitive } from './primitive';
import { bubble, LINE, outline, type Shape } from './shape';

const MOST_INPUTS = 16;

const Inputs = z.object({ inputs: z._default(whole(2, MOST_INPUTS), 2) });
const inputsOf = (params: Params) => params.inputs as number;

/** Letters of a gate's inputs from the top: A, B, C ... */
export function inputName(index: number): string {
  return String.fromCharCode(65 + index);
}

const NUMBERS = ['', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/** Pins two steps apart, centred on the output's line. */
function gatePorts(inputs: number): Port[] {
  const ports: Port[] = [];
  for (let i = 0; i < inputs; i++)
    ports.push({
      name: inputName(i),
      direction: 'in',
      width: 1,
      x: -3,
      y: 2 * i - (inputs - 1),
      side: 'left',
      lead: 1.4,
    });
  ports.push({ name: 'Y', direction: 'out', width: 1, x: 3, y: 0, side: 'right', lead: 1.2 });
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

/** The outline shifted left where a bubble follows it, so that the output pin stays where it is. */
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
  return {
    kind,
    family: 'Gates',
    name: family.name,
    typed: [kind, ...(family.typed ?? [])],
    says: family.says,
    labelled: '',
    labelSide: 'top',
    params: Inputs,
    settings: [{ param: 'inputs', label: 'Inputs', control: 'number', least: 2, most: MOST_INPUTS }],
    typedWord: (word) => {
      const inputs = Number(word);
      return Number.isInteger(inputs) && inputs >= 2 && inputs <= MOST_INPUTS ? { inputs } : null;
    },
    ports: (params) => gatePorts(inputsOf(params)),
    body: (params) => gateBody(inputsOf(params)),
    symbol: (params, { standard }) => {
      const h = half(inputsOf(params));
      const drawn =
        standard === 'distinctive' ? look.distinctive(h) : rectangle(look.qualifier, h, look.inverted);
      const edge = standard === 'distinctive' ? 1.7 : 1.5;
      return look.inverted ? [...drawn, bubble(edge, 0)] : drawn;
    },
    build: (params, b) => {
      const inputs = inputsOf(params);
      const pins = Array.from({ length: inputs }, (_, i) => b.pin(inputName(i)));
      b.add(op, pins, b.pin('Y'), gateDelay(kind, inputs));
    },
    spoken: (params) => `${NUMBERS[inputsOf(params)] ?? inputsOf(params)}-input ${family.name}`,
  };
}

const inverter: PartKind = {
  kind: 'not',
  family: 'Gates',
  name: 'NOT',
  typed: ['not', 'inverter', 'inv'],
  says: 'Turns 0 into 1 and 1 into 0.',
  labelled: '',
  labelSide: 'top',
  params: z.object({}),
  ports: () => [
    { name: 'A', direction: 'in', width: 1, x: -2, y: 0, side: 'left', lead: 0.8 },
    { name: 'Y', direction: 'out', width: 1, x: 2, y: 0, side: 'right', lead: 0.6 },
  ],
  body: () => ({ x0: -1.2, y0: -1.1, x1: 1.4, y1: 1.1 }),
  symbol: (_, { standard }) =>
    standard === 'distinctive'
      ? [outline('M-1.2 -1.1L0.8 0L-1.2 1.1Z'), bubble(1.1, 0)]
      : [
          outline('M-1.2 -1.2H0.8V1.2H-1.2Z'),
          { shape: 'text', x: -0.2, y: 0, text: '1', size: 1.1, align: 'center', bold: true },
          bubble(1.1, 0),
        ],
  build: (_, b) => b.add(Primitive.NOT, [b.pin('A')], b.pin('Y'), gateDelay('not', 1)),
  spoken: () => 'NOT',
};

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
];
