import { letterOf } from '../values/logic';
import type { Infer } from '../values/schema';
import { definePart } from './define-part';
import { CLOCK_TO_Q, HOLD, SETUP } from './delays';
import type { ParamSchemas } from './param-schemas';
import type { Appearance, Builder, PartKind, Port, Ref } from './part-kind';
import { Primitive } from './primitive';
import { bubble, LINE, outline, roundedBox, type Shape } from './shape';
import { activeSetting, choiceSetting, edgeSetting, enableSetting, powerUpSetting } from './shared-settings';
import { typedEdge, typedEnable, typedOneOf } from './typed-words';

/** The level at which an optional control input acts. */
type Active = 'none' | 'high' | 'low';
interface Asynchronous {
  readonly preset: Active;
  readonly clear: Active;
}

/** Words that set the parameters common to all flip-flops: `fall`, `enable`, `preset`, `clear-low`. */
function typedAsynchronous(word: string): Partial<Asynchronous> | null {
  const found = /^(preset|clear)(?:-(high|low))?$/.exec(word);
  if (!found) return null;
  const level = found[2] === 'low' ? 'low' : 'high';
  return found[1] === 'preset' ? { preset: level } : { clear: level };
}

/** The asynchronous inputs as a storage primitive wants them: preset and clear, active at 1; none where there are none. */
function asynchronous({ preset, clear }: Asynchronous, b: Builder): Ref[] {
  if (preset === 'none' && clear === 'none') return [];
  const ref = (active: Active, pin: string) => {
    if (active === 'none') return b.gate(Primitive.CONST_0, []);
    return active === 'low' ? b.gate(Primitive.NOT, [b.pin(pin)]) : b.pin(pin);
  };
  return [ref(preset, 'PRE'), ref(clear, 'CLR')];
}

/** Where the pins of the left side are: two of them as far apart as the outputs. */
function leftY(i: number, n: number): number {
  return n === 2 ? 4 * i - 2 : 2 * i - (n - 1);
}

interface StorageLook extends Asynchronous {
  readonly left: readonly { readonly name: string; readonly clock?: boolean; readonly inverted?: boolean }[];
}

const halfHeight = (look: StorageLook) => Math.max(3.4, look.left.length + 0.4);
const reach = (look: StorageLook) => Math.ceil(halfHeight(look) + 0.5);

function storagePorts(look: StorageLook): Port[] {
  const n = look.left.length;
  const upright = (name: string, active: Active, side: 'top' | 'bottom'): Port[] => {
    if (active === 'none') return [];
    const lead = reach(look) - halfHeight(look) - (active === 'low' ? 0.6 : 0);
    return [
      { name, direction: 'in', width: 1, x: 0, y: side === 'top' ? -reach(look) : reach(look), side, lead },
    ];
  };
  return [
    ...look.left.map(
      ({ name }, i): Port => ({
        name,
        direction: 'in',
        width: 1,
        x: -4,
        y: leftY(i, n),
        side: 'left',
        lead: 1,
      }),
    ),
    ...upright('PRE', look.preset, 'top'),
    ...upright('CLR', look.clear, 'bottom'),
    { name: 'Q', direction: 'out', width: 1, x: 4, y: -2, side: 'right', lead: 1 },
    { name: "Q'", direction: 'out', width: 1, x: 4, y: 2, side: 'right', lead: 1 },
  ];
}

function storageSymbol(look: StorageLook, seen: Appearance): Shape[] {
  const h = halfHeight(look);
  const held = seen.value('Q');
  const shapes: Shape[] = [outline(roundedBox(-3, -h, 3, h, 0.4))];
  for (const [i, pin] of look.left.entries()) {
    const y = leftY(i, look.left.length);
    if (pin.clock) {
      shapes.push({
        shape: 'path',
        d: `M-3 ${y - 0.6}L-2.1 ${y}L-3 ${y + 0.6}`,
        stroke: 'ink',
        weight: LINE,
      });
      if (pin.inverted) shapes.push(bubble(-3.3, y));
    } else {
      if (pin.inverted) shapes.push(bubble(-3.3, y));
      shapes.push({ shape: 'text', x: -2.5, y, text: pin.name, size: 1, align: 'left' });
    }
  }
  for (const [active, text, y, into] of [
    [look.preset, 'PRE', -h, 1],
    [look.clear, 'CLR', h, -1],
  ] as const) {
    if (active === 'none') continue;
    if (active === 'low') shapes.push(bubble(0, y - 0.3 * into));
    shapes.push({ shape: 'text', x: 0, y: y + 0.75 * into, text, size: 0.8, align: 'center' });
  }
  shapes.push(
    { shape: 'text', x: 2.5, y: -2, text: 'Q', size: 1, align: 'right' },
    { shape: 'text', x: 2.5, y: 2, text: 'Q′', size: 1, align: 'right' },
    {
      shape: 'circle',
      x: 0,
      y: 0,
      r: 0.85,
      fill: held === 1 ? 'one' : 'paper',
      stroke: 'hairline',
      weight: LINE,
    },
    {
      shape: 'text',
      x: 0,
      y: 0,
      text: letterOf(held),
      isSignal: true,
      size: 1,
      align: 'center',
      face: 'mono',
      bold: true,
    },
  );
  return shapes;
}

function drawnAs<P>(look: (params: P) => StorageLook) {
  return {
    ports: (params: P) => storagePorts(look(params)),
    body: (params: P) => {
      const h = halfHeight(look(params));
      return { x0: -3, y0: -h, x1: 3, y1: h };
    },
    symbol: (params: P, seen: Appearance) => storageSymbol(look(params), seen),
  };
}

/** Both outputs of a stored bit. */
function outputs(b: Builder, state: Ref): void {
  b.drive(b.pin('Q'), Primitive.BUF, [state], CLOCK_TO_Q);
  b.drive(b.pin("Q'"), Primitive.NOT, [state], CLOCK_TO_Q);
}

function spokenAsynchronous(params: Asynchronous): string[] {
  return (['preset', 'clear'] as const).flatMap((p) =>
    params[p] === 'none' ? [] : [`${p} at ${params[p] === 'low' ? 0 : 1}`],
  );
}

const flipFlopParams = (of: ParamSchemas) =>
  of.object({
    edge: of.edge,
    enable: of.yesNo,
    preset: of.active,
    clear: of.active,
    powerUp: of.powerUp,
    ...of.ownDelay,
    ...of.ownWindow,
  });
type FlipFlopParams = Infer<ReturnType<typeof flipFlopParams>>;

/**
 * An edge-triggered flip-flop.
 * @param next its characteristic equation, from its data inputs and its state.
 */
function flipFlop(
  letters: string,
  data: readonly string[],
  words: { name: string; typed: readonly string[]; says: string },
  next: (b: Builder, state: Ref) => Ref,
): PartKind {
  const look = (params: FlipFlopParams): StorageLook => {
    const clock = { name: 'C', clock: true, inverted: params.edge === 'falling' };
    const inputs = data.map((name) => ({ name }));
    const all = data.length > 1 ? [inputs[0]!, clock, inputs[1]!] : [...inputs, clock];
    if (params.enable === 'yes') all.splice(data.length > 1 ? 3 : 1, 0, { name: 'EN' });
    return { left: all, preset: params.preset, clear: params.clear };
  };
  return definePart(flipFlopParams, {
    kind: letters,
    family: 'Storage',
    ...words,
    labelled: '',
    labelSide: 'top',
    stores: 'flip-flop',
    settings: [
      edgeSetting,
      enableSetting,
      activeSetting('preset', 'Preset'),
      activeSetting('clear', 'Clear'),
      powerUpSetting,
    ],
    typedWord: (word) => typedEdge(word) ?? typedEnable(word) ?? typedAsynchronous(word),
    ...drawnAs(look),
    build: (params, b) => {
      const state = b.later();
      const wanted = next(b, state);
      const taken = params.enable === 'yes' ? b.gate(Primitive.MUX, [b.pin('EN'), state, wanted]) : wanted;
      const op = params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE;
      b.store(op, [taken, b.pin('C'), ...asynchronous(params, b)], state, {
        name: 'Q',
        powerUp: params.powerUp,
        setup: SETUP,
        hold: HOLD,
      });
      outputs(b, state);
    },
    spoken: (params) =>
      [
        words.name,
        `${params.edge} edge`,
        ...(params.enable === 'yes' ? ['with enable'] : []),
        ...spokenAsynchronous(params),
      ].join(', '),
  });
}

const dFlipFlop = flipFlop(
  'dff',
  ['D'],
  {
    name: 'D flip-flop',
    typed: ['d', 'dff', 'd flip-flop'],
    says: 'At the clock edge it takes the value of D, shows it on Q, and keeps it until the next edge.',
  },
  (b) => b.pin('D'),
);

const tFlipFlop = flipFlop(
  'tff',
  ['T'],
  {
    name: 'T flip-flop',
    typed: ['t', 'tff', 't flip-flop'],
    says: 'At the clock edge it toggles if T is 1, and keeps its state if T is 0.',
  },
  (b, state) => b.gate(Primitive.XOR, [b.pin('T'), state]),
);

const jkFlipFlop = flipFlop(
  'jkff',
  ['J', 'K'],
  {
    name: 'JK flip-flop',
    typed: ['jk', 'jkff', 'jk flip-flop'],
    says: 'At the clock edge J sets it, K resets it, and both together toggle it.',
  },
  // Selected by the state, so setting or resetting works from an unknown state too.
  (b, state) => b.gate(Primitive.MUX, [state, b.pin('J'), b.gate(Primitive.NOT, [b.pin('K')])]),
);

/** 1 when set, 0 when reset, unknown when both, else unchanged. */
function setReset(b: Builder, state: Ref): Ref {
  const set = b.gate(Primitive.MUX, [
    b.pin('R'),
    b.gate(Primitive.CONST_1, []),
    b.gate(Primitive.CONST_X, []),
  ]);
  const reset = b.gate(Primitive.MUX, [b.pin('R'), state, b.gate(Primitive.CONST_0, [])]);
  return b.gate(Primitive.MUX, [b.pin('S'), reset, set]);
}

const srFlipFlop = flipFlop(
  'srff',
  ['S', 'R'],
  {
    name: 'SR flip-flop',
    typed: ['sr', 'srff', 'sr flip-flop'],
    says: 'At the clock edge S sets it and R resets it. Both together are not allowed and leave it unknown.',
  },
  setReset,
);

interface DLatchParams extends Asynchronous {
  /** The level of EN at which it is transparent. */
  readonly gate: 'high' | 'low';
}

const dLatch = definePart(
  (of: ParamSchemas) =>
    of.object({
      gate: of.oneOf(['high', 'low'], 'high'),
      preset: of.active,
      clear: of.active,
      powerUp: of.powerUp,
      ...of.ownDelay,
      ...of.ownWindow,
    }),
  {
    kind: 'dlatch',
    family: 'Storage',
    name: 'D latch',
    typed: ['d latch', 'dlatch', 'latch'],
    says: 'While EN is active Q follows D; otherwise Q keeps what it was.',
    labelled: '',
    labelSide: 'top',
    stores: 'latch',
    settings: [
      choiceSetting('gate', 'Open while EN is', [
        ['high', '1'],
        ['low', '0'],
      ]),
      activeSetting('preset', 'Preset'),
      activeSetting('clear', 'Clear'),
      powerUpSetting,
    ],
    typedWord: (word) => {
      const gate = typedOneOf(word, ['low', 'high']);
      return gate ? { gate } : typedAsynchronous(word);
    },
    ...drawnAs(({ gate, preset, clear }: DLatchParams) => ({
      left: [{ name: 'D' }, { name: 'EN', inverted: gate === 'low' }],
      preset,
      clear,
    })),
    build: (params, b) => {
      const state = b.later();
      const open = params.gate === 'low' ? b.gate(Primitive.NOT, [b.pin('EN')]) : b.pin('EN');
      b.store(Primitive.LATCH, [b.pin('D'), open, ...asynchronous(params, b)], state, {
        name: 'Q',
        powerUp: params.powerUp,
        setup: SETUP,
        hold: HOLD,
      });
      outputs(b, state);
    },
    spoken: (params) =>
      ['D latch', `open at ${params.gate === 'low' ? 0 : 1}`, ...spokenAsynchronous(params)].join(', '),
  },
);

const srLatch = definePart(
  (of: ParamSchemas) => of.object({ enable: of.yesNo, powerUp: of.powerUp, ...of.ownDelay }),
  {
    kind: 'srlatch',
    family: 'Storage',
    name: 'SR latch',
    typed: ['sr latch', 'srlatch'],
    says: 'S sets it and R resets it, at once. Both together are not allowed and leave it unknown.',
    labelled: '',
    labelSide: 'top',
    stores: 'latch',
    settings: [enableSetting, powerUpSetting],
    typedWord: typedEnable,
    ...drawnAs(({ enable }: { readonly enable: 'no' | 'yes' }) => ({
      left:
        enable === 'yes' ? [{ name: 'S' }, { name: 'EN' }, { name: 'R' }] : [{ name: 'S' }, { name: 'R' }],
      preset: 'none',
      clear: 'none',
    })),
    build: (params, b) => {
      const state = b.later();
      const asked = b.gate(Primitive.OR, [b.pin('S'), b.pin('R')]);
      const open = params.enable === 'yes' ? b.gate(Primitive.AND, [asked, b.pin('EN')]) : asked;
      b.store(Primitive.LATCH, [setReset(b, state), open], state, {
        name: 'Q',
        powerUp: params.powerUp,
        setup: 0,
        hold: 0,
      });
      outputs(b, state);
    },
    spoken: (params) => (params.enable === 'yes' ? 'SR latch with enable' : 'SR latch'),
  },
);

export const storage: readonly PartKind[] = [dFlipFlop, jkFlipFlop, tFlipFlop, srFlipFlop, dLatch, srLatch];
