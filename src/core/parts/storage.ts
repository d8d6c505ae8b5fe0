import type { Params } from '../circuit/lesson';
import { letterOf } from '../values/logic';
import { z } from '../values/schema';
import { ownDelay, ownWindow, powerUp, powerUpSetting } from './common';
import { CLOCK_TO_Q, HOLD, SETUP } from './delays';
import type { Appearance, Builder, PartKind, Port, PowerUp, Ref, Setting } from './part-kind';
import { Primitive } from './primitive';
import { bubble, LINE, outline, roundedBox, type Shape } from './shape';

const ACTIVE = z._default(z.enum(['none', 'high', 'low']), 'none');

const edgeSetting: Setting = {
  param: 'edge',
  label: 'Changes on the',
  control: 'choice',
  options: [
    { value: 'rising', label: 'rising edge' },
    { value: 'falling', label: 'falling edge' },
  ],
};

const activeSetting = (param: string, label: string): Setting => ({
  param,
  label,
  control: 'choice',
  options: [
    { value: 'none', label: 'none' },
    { value: 'high', label: 'acts at 1' },
    { value: 'low', label: 'acts at 0' },
  ],
});

const enableSetting: Setting = {
  param: 'enable',
  label: 'Enable',
  control: 'choice',
  options: [
    { value: 'no', label: 'none' },
    { value: 'yes', label: 'with enable' },
  ],
};

/** Words that set what all flip-flops have: `fall`, `enable`, `preset`, `clear-low`. */
function typedStorage(word: string): Params | null {
  if (word === 'rise' || word === 'rising') return { edge: 'rising' };
  if (word === 'fall' || word === 'falling') return { edge: 'falling' };
  if (word === 'enable' || word === 'en') return { enable: 'yes' };
  const found = /^(preset|clear)(?:-(high|low))?$/.exec(word);
  return found ? { [found[1]!]: found[2] ?? 'high' } : null;
}

/** The asynchronous inputs as a storage primitive wants them: preset and clear, active at 1; none where there are none. */
export function asynchronous(params: Params, b: Builder): Ref[] {
  if (params.preset === 'none' && params.clear === 'none') return [];
  const active = (param: 'preset' | 'clear', pin: string) => {
    if (params[param] === 'none' || params[param] === undefined) return b.gate(Primitive.CONST_0, []);
    return params[param] === 'low' ? b.gate(Primitive.NOT, [b.pin(pin)]) : b.pin(pin);
  };
  return [active('preset', 'PRE'), active('clear', 'CLR')];
}

/** Where the pins of the left side are: two of them as far apart as the outputs. */
function leftY(i: number, n: number): number {
  return n === 2 ? 4 * i - 2 : 2 * i - (n - 1);
}

interface StorageLook {
  readonly left: readonly { readonly name: string; readonly clock?: boolean; readonly inverted?: boolean }[];
  readonly preset: unknown;
  readonly clear: unknown;
}

const halfHeight = (look: StorageLook) => Math.max(3.4, look.left.length + 0.4);
const reach = (look: StorageLook) => Math.ceil(halfHeight(look) + 0.5);

function storagePorts(look: StorageLook): Port[] {
  const n = look.left.length;
  const upright = (name: string, active: unknown, side: 'top' | 'bottom'): Port[] => {
    if (active === 'none' || active === undefined) return [];
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
    if (active === 'none' || active === undefined) continue;
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
    { shape: 'text', x: 0, y: 0, text: letterOf(held), size: 1, align: 'center', face: 'mono', bold: true },
  );
  return shapes;
}

function drawnAs(look: (params: Params) => StorageLook) {
  return {
    ports: (params: Params) => storagePorts(look(params)),
    body: (params: Params) => ({
      x0: -3,
      y0: -halfHeight(look(params)),
      x1: 3,
      y1: halfHeight(look(params)),
    }),
    symbol: (params: Params, seen: Appearance) => storageSymbol(look(params), seen),
  };
}

/** Both outputs of a stored bit. */
function outputs(b: Builder, state: Ref): void {
  b.drive(b.pin('Q'), Primitive.BUF, [state], CLOCK_TO_Q);
  b.drive(b.pin("Q'"), Primitive.NOT, [state], CLOCK_TO_Q);
}

function active(params: Params): string[] {
  return (['preset', 'clear'] as const).flatMap((p) =>
    params[p] === 'high' || params[p] === 'low' ? [`${p} at ${params[p] === 'low' ? 0 : 1}`] : [],
  );
}

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
  const look = (params: Params): StorageLook => {
    const clock = { name: 'C', clock: true, inverted: params.edge === 'falling' };
    const inputs = data.map((name) => ({ name }));
    const all = data.length > 1 ? [inputs[0]!, clock, inputs[1]!] : [...inputs, clock];
    if (params.enable === 'yes') all.splice(data.length > 1 ? 3 : 1, 0, { name: 'EN' });
    return { left: all, preset: params.preset, clear: params.clear };
  };
  return {
    kind: letters,
    family: 'Storage',
    ...words,
    labelled: '',
    named: true,
    labelSide: 'top',
    params: z.object({
      edge: z._default(z.enum(['rising', 'falling']), 'rising'),
      enable: z._default(z.enum(['no', 'yes']), 'no'),
      preset: ACTIVE,
      clear: ACTIVE,
      powerUp,
      ...ownDelay,
      ...ownWindow,
    }),
    settings: [
      edgeSetting,
      enableSetting,
      activeSetting('preset', 'Preset'),
      activeSetting('clear', 'Clear'),
      powerUpSetting,
    ],
    typedWord: typedStorage,
    ...drawnAs(look),
    build: (params, b) => {
      const state = b.later();
      const wanted = next(b, state);
      const taken = params.enable === 'yes' ? b.gate(Primitive.MUX, [b.pin('EN'), state, wanted]) : wanted;
      const op = params.edge === 'falling' ? Primitive.DFF_FALL : Primitive.DFF_RISE;
      b.store(op, [taken, b.pin('C'), ...asynchronous(params, b)], state, {
        name: 'Q',
        powerUp: params.powerUp as PowerUp,
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
        ...active(params),
      ].join(', '),
  };
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
    says: 'At the clock edge it changes over while T is 1, and keeps its state while T is 0.',
  },
  (b, state) => b.gate(Primitive.XOR, [b.pin('T'), state]),
);

const jkFlipFlop = flipFlop(
  'jkff',
  ['J', 'K'],
  {
    name: 'JK flip-flop',
    typed: ['jk', 'jkff', 'jk flip-flop'],
    says: 'At the clock edge J sets it, K resets it, both change it over.',
  },
  // Selected by the state, so that setting or resetting works from an unknown state too.
  (b, state) => b.gate(Primitive.MUX, [state, b.pin('J'), b.gate(Primitive.NOT, [b.pin('K')])]),
);

/** 1 where set, 0 where reset, unknown where both, else what it was. */
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

const gateLook = (params: Params) => ({ name: 'EN', inverted: params.gate === 'low' });

const dLatch: PartKind = {
  kind: 'dlatch',
  family: 'Storage',
  name: 'D latch',
  typed: ['d latch', 'dlatch', 'latch'],
  says: 'While EN is active Q follows D; otherwise Q keeps what it was.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({
    /** The level of EN at which it is open. */
    gate: z._default(z.enum(['high', 'low']), 'high'),
    preset: ACTIVE,
    clear: ACTIVE,
    powerUp,
    ...ownDelay,
    ...ownWindow,
  }),
  settings: [
    {
      param: 'gate',
      label: 'Open while EN is',
      control: 'choice',
      options: [
        { value: 'high', label: '1' },
        { value: 'low', label: '0' },
      ],
    },
    activeSetting('preset', 'Preset'),
    activeSetting('clear', 'Clear'),
    powerUpSetting,
  ],
  typedWord: (word): Params | null =>
    word === 'low' || word === 'high' ? { gate: word } : typedStorage(word),
  ...drawnAs((params) => ({
    left: [{ name: 'D' }, gateLook(params)],
    preset: params.preset,
    clear: params.clear,
  })),
  build: (params, b) => {
    const state = b.later();
    const open = params.gate === 'low' ? b.gate(Primitive.NOT, [b.pin('EN')]) : b.pin('EN');
    b.store(Primitive.LATCH, [b.pin('D'), open, ...asynchronous(params, b)], state, {
      name: 'Q',
      powerUp: params.powerUp as PowerUp,
      setup: SETUP,
      hold: HOLD,
    });
    outputs(b, state);
  },
  spoken: (params) => ['D latch', `open at ${params.gate === 'low' ? 0 : 1}`, ...active(params)].join(', '),
};

const srLatch: PartKind = {
  kind: 'srlatch',
  family: 'Storage',
  name: 'SR latch',
  typed: ['sr latch', 'srlatch'],
  says: 'S sets it and R resets it, at once. Both together are not allowed and leave it unknown.',
  labelled: '',
  named: true,
  labelSide: 'top',
  params: z.object({ enable: z._default(z.enum(['no', 'yes']), 'no'), powerUp, ...ownDelay }),
  settings: [enableSetting, powerUpSetting],
  typedWord: (word): Params | null => (word === 'enable' || word === 'en' ? { enable: 'yes' } : null),
  ...drawnAs((params) => ({
    left:
      params.enable === 'yes'
        ? [{ name: 'S' }, { name: 'EN' }, { name: 'R' }]
        : [{ name: 'S' }, { name: 'R' }],
    preset: 'none',
    clear: 'none',
  })),
  build: (params, b) => {
    const state = b.later();
    const asked = b.gate(Primitive.OR, [b.pin('S'), b.pin('R')]);
    const open = params.enable === 'yes' ? b.gate(Primitive.AND, [asked, b.pin('EN')]) : asked;
    b.store(Primitive.LATCH, [setReset(b, state), open], state, {
      name: 'Q',
      powerUp: params.powerUp as PowerUp,
      setup: 0,
      hold: 0,
    });
    outputs(b, state);
  },
  spoken: (params) => (params.enable === 'yes' ? 'SR latch with enable' : 'SR latch'),
};

export const storage: readonly PartKind[] = [dFlipFlop, jkFlipFlop, tFlipFlop, srFlipFlop, dLatch, srLatch];
