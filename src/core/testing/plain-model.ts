import type { Lesson } from '../circuit/lesson';
import type { Params, Part, Sheet } from '../circuit/sheet';

/*
 * A plain model of the parts: what each does as a textbook defines it, word by word, and a circuit of them settled by
 * going over all parts until nothing changes. It shares no code with the engine, which is held against it. One file, to be
 * read from top to bottom as the reference that it is.
 */

export type Bit = '0' | '1' | 'X' | 'Z';
/** Bits from the lowest to the highest. */
export type Word = readonly Bit[];
type Binary = 0 | 1;

interface Pin {
  readonly name: string;
  readonly way: 'in' | 'out' | 'both';
  readonly width: number;
}
type Read = (pin: string) => Word;

interface Behaviour {
  readonly pins: (p: Params) => readonly Pin[];
  /** The words at the outputs, from those at the inputs and what is stored. */
  readonly out?: (p: Params, read: Read, state: Word) => Readonly<Record<string, Word>>;
  readonly bits?: (p: Params) => number;
  /** What is stored at power-up where the part says it itself. */
  readonly content?: (p: Params) => Word;
  /** What is stored after a change, from the words before and after it. */
  readonly next?: (p: Params, state: Word, before: Read, after: Read) => Word;
}

const word = (of: unknown) => Number(of);
const inn = (name: string, width = 1): Pin => ({ name, way: 'in', width });
const outs = (name: string, width = 1): Pin => ({ name, way: 'out', width });
const many = (count: number, of: (i: number) => Pin) => Array.from({ length: count }, (_, i) => of(i));

const known = (bit: Bit): Bit => (bit === 'Z' ? 'X' : bit);
const same = (a: Bit, b: Bit): Bit => (known(a) === known(b) ? known(a) : 'X');
const bit = (value: boolean | number): Bit => (value ? '1' : '0');
const wordOf = (value: number, width: number): Bit[] =>
  Array.from({ length: width }, (_, i) => bit(Math.floor(value / 2 ** i) % 2));
const asNumber = (bits: readonly Binary[]) => bits.reduce<number>((sum, b, i) => sum + b * 2 ** i, 0);

/** More unknown bits than this are not tried out one by one: then all that follows from them is unknown. */
const MOST_UNKNOWN = 12;

/** What a function of bits gives whichever values the unknown ones have; X where that is not the same. */
function whichever(inputs: Word, f: (bits: readonly Binary[]) => Word): Word {
  const open = [...inputs.keys()].filter((i) => inputs[i] !== '0' && inputs[i] !== '1');
  const bits = inputs.map((b): Binary => (b === '1' ? 1 : 0));
  if (open.length > MOST_UNKNOWN) return f(bits).map(() => 'X');
  let all: Word | null = null;
  for (let choice = 0; choice < 2 ** open.length; choice++) {
    for (const [k, i] of open.entries()) bits[i] = ((choice >> k) & 1) as Binary;
    const now = f(bits);
    all = all ? all.map((b, i) => same(b, now[i]!)) : now;
  }
  return all!;
}

/** The same with the inputs as numbers, by pins. */
function numbers(read: Read, pins: readonly string[], f: (...values: number[]) => Word): Word {
  const words = pins.map(read);
  return whichever(words.flat(), (bits) => {
    let at = 0;
    const values = words.map(({ length }) => {
      at += length;
      return asNumber(bits.slice(at - length, at));
    });
    return f(...values);
  });
}

const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

function gate(of: (ones: number, count: number) => boolean): Behaviour {
  const count = (p: Params) => word(p.inputs);
  return {
    pins: (p) => [...many(count(p), (i) => inn(letters[i]!, word(p.width))), outs('Y', word(p.width))],
    out: (p, read) => ({
      Y: Array.from({ length: word(p.width) }, (_, lane) => {
        const inverted = p.inverted as readonly number[];
        const inputs = Array.from({ length: count(p) }, (_, i) => read(letters[i]!)[lane]!);
        return whichever(inputs, (bits) => {
          const ones = bits.filter((b, i) => (inverted.includes(i) ? !b : b)).length;
          return [bit(of(ones, bits.length))];
        })[0]!;
      }),
    }),
  };
}

function through(of: (b: Bit) => Bit): Behaviour {
  return {
    pins: (p) => [inn('A', word(p.width)), outs('Y', word(p.width))],
    out: (_, read) => ({ Y: read('A').map((b) => of(known(b))) }),
  };
}
const not = (b: Bit): Bit => (b === '0' ? '1' : b === '1' ? '0' : 'X');

/** Whether a clock edge has come; maybe, where a level before or after it is unknown. */
function edgeAt(p: Params, before: Read, after: Read): 'yes' | 'no' | 'maybe' {
  const turned = p.edge === 'falling' ? not : known;
  const [was, is] = [turned(before('C')[0]!), turned(after('C')[0]!)];
  if (was === is || is === '0' || was === '1') return 'no';
  return was === '0' && is === '1' ? 'yes' : 'maybe';
}

/** The level of a control pin: 1 where it acts, 0 where the part has none. */
function acting(p: Params, setting: string, pin: string, read: Read): Bit {
  if (p[setting] === undefined || p[setting] === 'none') return '0';
  return p[setting] === 'low' ? not(read(pin)[0]!) : known(read(pin)[0]!);
}

/** Lays asynchronous preset and clear over what would be stored; clear is the stronger. */
function forced(p: Params, after: Read, stored: Word): Word {
  const under = (act: Bit, to: Bit) => (b: Bit) => (act === '1' ? to : act === '0' ? b : same(b, to));
  const preset = under(acting(p, 'preset', 'PRE', after), '1');
  const clear = under(acting(p, 'clear', 'CLR', after), '0');
  return stored.map((b) => clear(preset(b)));
}

/** Storage on an edge: data are those that stood before the change. */
function clocked(
  pins: (p: Params) => readonly Pin[],
  bits: (p: Params) => number,
  taken: (p: Params, state: Word, read: Read) => Word,
  out: NonNullable<Behaviour['out']>,
): Behaviour {
  return {
    pins: (p) => [
      ...pins(p),
      inn('C'),
      ...(p.enable === 'yes' ? [inn('EN')] : []),
      ...(p.preset !== undefined && p.preset !== 'none' ? [inn('PRE')] : []),
      ...(p.clear !== undefined && p.clear !== 'none' ? [inn('CLR')] : []),
    ],
    bits,
    out,
    next: (p, state, before, after) => {
      const edge = edgeAt(p, before, after);
      let stored: Word = state;
      // As data do, presets and clears count as they stood before the edge.
      const isHeld = acting(p, 'preset', 'PRE', before) === '1' || acting(p, 'clear', 'CLR', before) === '1';
      if (edge !== 'no' && !isHeld) {
        const wanted = taken(p, state, after);
        stored = edge === 'yes' ? wanted : state.map((b, i) => same(b, wanted[i]!));
      }
      return forced(p, after, stored);
    },
  };
}

function flipFlop(data: readonly string[], next: (q: Binary, ...d: Binary[]) => Bit): Behaviour {
  return clocked(
    () => [...data.map((name) => inn(name)), outs('Q'), outs("Q'")],
    () => 1,
    (p, state, read) => {
      const enable = p.enable === 'yes' ? read('EN') : (['1'] as const);
      return whichever([state[0]!, enable[0]!, ...data.map((name) => read(name)[0]!)], ([q, on, ...d]) => [
        on ? next(q!, ...d) : bit(q!),
      ]);
    },
    (_, __, [q]) => ({ Q: [q!], "Q'": [not(q!)] }),
  );
}

const modulus = (p: Params) => {
  const all = 2 ** word(p.width);
  return word(p.modulo) >= 2 && word(p.modulo) < all ? word(p.modulo) : all;
};
const up = (p: Params, read: Read): Word =>
  p.direction === 'both' ? read('UP') : [p.direction === 'down' ? '0' : '1'];
const loading = (p: Params, read: Read): Word => (p.load === 'yes' ? read('LD') : ['0']);
const enabling = (p: Params, read: Read): Word => (p.enable === 'yes' ? read('EN') : ['1']);
const loadPins = (p: Params) => [
  ...(p.load === 'yes' ? [inn('D', word(p.width)), inn('LD')] : []),
  ...(p.direction === 'both' ? [inn('UP')] : []),
];

/** A word after an edge: load is stronger than enable. */
function wordAfter(p: Params, state: Word, read: Read, moved: (q: number, isUp: boolean) => number): Word {
  const width = word(p.width);
  const data = p.load === 'yes' ? read('D') : [];
  const controls = [loading(p, read)[0]!, enabling(p, read)[0]!, up(p, read)[0]!];
  return whichever([...controls, ...state, ...data], ([load, on, isUp, ...rest]) => {
    const q = asNumber(rest.slice(0, width));
    if (load) return wordOf(asNumber(rest.slice(width)), width);
    return wordOf(on ? moved(q, isUp === 1) : q, width);
  });
}

const selects = (p: Params) => 2 ** word(p.select);
const address = (p: Params) => 2 ** word(p.address);
const contentAt = (p: Params, i: number) => wordOf((p.content as readonly number[])[i] ?? 0, word(p.width));

const BEHAVIOUR: Readonly<Record<string, Behaviour>> = {
  and: gate((ones, count) => ones === count),
  or: gate((ones) => ones > 0),
  nand: gate((ones, count) => ones < count),
  nor: gate((ones) => ones === 0),
  xor: gate((ones) => ones % 2 === 1),
  xnor: gate((ones) => ones % 2 === 0),
  not: through(not),
  buffer: through((b) => b),
  tri: {
    pins: (p) => [inn('A', word(p.width)), inn('EN'), outs('Y', word(p.width))],
    out: (p, read) => {
      const on = p.enable === 'low' ? not(read('EN')[0]!) : known(read('EN')[0]!);
      return { Y: read('A').map((b) => (on === '1' ? known(b) : on === '0' ? 'Z' : 'X')) };
    },
  },
  lamp: { pins: (p) => [inn('A', word(p.width))] },
  number: { pins: (p) => [inn('A', word(p.width))] },
  probe: { pins: (p) => [inn('A', word(p.width))] },
  digit: { pins: () => [inn('A', 4)] },
  segments: { pins: () => [...'abcdefg'].map((name) => inn(name)) },
  switch: { pins: (p) => [outs('Y', word(p.width))] },
  button: { pins: () => [outs('Y')] },
  clock: { pins: () => [outs('Y')] },
  stimulus: { pins: (p) => [outs('Y', word(p.width))] },
  port: { pins: (p) => [p.direction === 'in' ? outs('Y', word(p.width)) : inn('A', word(p.width))] },
  constant: {
    pins: (p) => [outs('Y', word(p.width))],
    out: (p) => {
      const unknown = wordOf(word(p.unknown), word(p.width));
      return { Y: wordOf(word(p.value), word(p.width)).map((b, i) => (unknown[i] === '1' ? 'X' : b)) };
    },
  },
  pull: { pins: (p) => [{ name: 'A', way: 'both', width: word(p.width) }] },
  label: { pins: (p) => [{ name: 'A', way: 'both', width: word(p.width) }] },
  slice: {
    pins: (p) => [inn('A', word(p.width)), outs('Y', slicedBits(p).length)],
  },
  join: {
    pins: (p) => {
      const widths = [...(p.widths as readonly number[])].reverse();
      return [
        ...widths.map((w, i) => inn(`I${i}`, w)),
        outs(
          'Y',
          widths.reduce((a, b) => a + b),
        ),
      ];
    },
  },
  extend: {
    pins: (p) => [inn('A', word(p.from)), outs('Y', Math.max(word(p.from), word(p.to)))],
    out: (p) => {
      const more = Math.max(0, word(p.to) - word(p.from));
      const none: Bit[] = Array(word(p.from)).fill('Z');
      return {
        Y:
          p.by === 'zero'
            ? [...none, ...Array<Bit>(more).fill('0')]
            : [...none, ...Array<Bit>(more).fill('Z')],
      };
    },
  },
  adder: {
    pins: (p) => [
      inn('A', word(p.width)),
      inn('B', word(p.width)),
      inn('CI'),
      outs('S', word(p.width)),
      outs('CO'),
    ],
    out: (p, read) => {
      const all = numbers(read, ['A', 'B', 'CI'], (a, b, c) => wordOf(a + b + c, word(p.width) + 1));
      return { S: all.slice(0, -1), CO: all.slice(-1) };
    },
  },
  subtractor: {
    pins: (p) => [
      inn('A', word(p.width)),
      inn('B', word(p.width)),
      inn('BI'),
      outs('D', word(p.width)),
      outs('BO'),
    ],
    out: (p, read) => {
      const all = numbers(read, ['A', 'B', 'BI'], (a, b, c) => {
        const difference = a - b - c;
        return [...wordOf(difference + 2 ** (word(p.width) + 1), word(p.width)), bit(difference < 0)];
      });
      return { D: all.slice(0, -1), BO: all.slice(-1) };
    },
  },
  comparator: {
    pins: (p) => [inn('A', word(p.width)), inn('B', word(p.width)), outs('LT'), outs('EQ'), outs('GT')],
    out: (p, read) => {
      const half = 2 ** (word(p.width) - 1);
      const signed = (n: number) => (p.numbers === 'signed' && n >= half ? n - 2 * half : n);
      const [less, equal, greater] = numbers(read, ['A', 'B'], (a, b) => [
        bit(signed(a) < signed(b)),
        bit(a === b),
        bit(signed(a) > signed(b)),
      ]);
      return { LT: [less!], EQ: [equal!], GT: [greater!] };
    },
  },
  mux: {
    pins: (p) => [
      ...many(selects(p), (i) => inn(`D${i}`, word(p.width))),
      inn('S', word(p.select)),
      outs('Y', word(p.width)),
    ],
    out: (p, read) => {
      // An unknown select leaves open which of the inputs is passed on.
      const open = read('S');
      const may = Array.from({ length: selects(p) }, (_, i) => i).filter((i) =>
        open.every((b, k) => known(b) === 'X' || b === bit((i >> k) & 1)),
      );
      return {
        Y: may.map((i) => read(`D${i}`).map(known)).reduce((a, b) => a.map((x, k) => same(x, b[k]!))),
      };
    },
  },
  demux: {
    pins: (p) => [
      inn('D', word(p.width)),
      inn('S', word(p.select)),
      ...many(selects(p), (i) => outs(`Y${i}`, word(p.width))),
    ],
    out: (p, read) =>
      Object.fromEntries(
        Array.from({ length: selects(p) }, (_, i) => [
          `Y${i}`,
          read('D').map(
            (d) => whichever([d, ...read('S')], ([one, ...s]) => [bit(asNumber(s) === i && one!)])[0]!,
          ),
        ]),
      ),
  },
  decoder: {
    pins: (p) => [
      inn('A', word(p.select)),
      ...(p.enable === 'yes' ? [inn('EN')] : []),
      ...many(selects(p), (i) => outs(`Y${i}`)),
    ],
    out: (p, read) =>
      Object.fromEntries(
        Array.from({ length: selects(p) }, (_, i) => [
          `Y${i}`,
          whichever([enabling(p, read)[0]!, ...read('A')], ([on, ...a]) => [bit(on! && asNumber(a) === i)]),
        ]),
      ),
  },
  encoder: {
    pins: (p) => [...many(selects(p), (i) => inn(`I${i}`)), outs('Y', word(p.select)), outs('V')],
    out: (p, read) => {
      const inputs = many(selects(p), (i) => inn(`I${i}`)).map(({ name }) => read(name)[0]!);
      const all = whichever(inputs, (bits) => [
        ...wordOf(Math.max(0, bits.lastIndexOf(1)), word(p.select)),
        bit(bits.includes(1)),
      ]);
      return { Y: all.slice(0, -1), V: all.slice(-1) };
    },
  },
  rom: {
    pins: (p) => [inn('A', word(p.address)), outs('Q', word(p.width))],
    out: (p, read) => ({ Q: numbers(read, ['A'], (a) => contentAt(p, a)) }),
  },
  ram: {
    pins: (p) => [
      inn('A', word(p.address)),
      inn('D', word(p.width)),
      inn('WE'),
      inn('C'),
      outs('Q', word(p.width)),
    ],
    bits: (p) => address(p) * word(p.width),
    content: (p) =>
      (p.content as readonly number[]).slice(0, address(p)).flatMap((_, i) => [...contentAt(p, i)]),
    out: (p, read, state) => {
      const words = Array.from({ length: address(p) }, (_, i) =>
        state.slice(i * word(p.width), (i + 1) * word(p.width)),
      );
      const a = read('A');
      const may = words.filter((_, i) => a.every((b, k) => known(b) === 'X' || b === bit((i >> k) & 1)));
      return { Q: may.reduce((x, y) => x.map((b, k) => same(b, y[k]!))) };
    },
    next: (p, state, before, after) => {
      const edge = edgeAt(p, before, after);
      if (edge === 'no') return state;
      const [a, d, we] = [after('A'), after('D'), known(after('WE')[0]!)];
      const width = word(p.width);
      return state.map((b, i) => {
        const at = Math.floor(i / width);
        const isMaybe = a.every((x, k) => known(x) === 'X' || x === bit((at >> k) & 1));
        if (!isMaybe || we === '0') return b;
        const isSure = edge === 'yes' && we === '1' && a.every((x) => known(x) !== 'X');
        return isSure ? known(d[i % width]!) : same(b, d[i % width]!);
      });
    },
  },
  dff: flipFlop(['D'], (_, d) => bit(d)),
  tff: flipFlop(['T'], (q, t) => bit(q !== t)),
  jkff: flipFlop(['J', 'K'], (q, j, k) => bit(q ? !k : j)),
  srff: flipFlop(['S', 'R'], (q, s, r) => (s && r ? 'X' : bit(s || (!r && q)))),
  dlatch: {
    pins: (p) => [
      inn('D'),
      inn('EN'),
      ...(p.preset === 'none' ? [] : [inn('PRE')]),
      ...(p.clear === 'none' ? [] : [inn('CLR')]),
      outs('Q'),
      outs("Q'"),
    ],
    bits: () => 1,
    out: (_, __, [q]) => ({ Q: [q!], "Q'": [not(q!)] }),
    next: (p, [q], _, after) => {
      const open = p.gate === 'low' ? not(after('EN')[0]!) : known(after('EN')[0]!);
      const d = known(after('D')[0]!);
      return forced(p, after, [open === '1' ? d : open === '0' ? q! : same(q!, d)]);
    },
  },
  srlatch: {
    pins: (p) => [inn('S'), inn('R'), ...(p.enable === 'yes' ? [inn('EN')] : []), outs('Q'), outs("Q'")],
    bits: () => 1,
    out: (_, __, [q]) => ({ Q: [q!], "Q'": [not(q!)] }),
    next: (p, [q], _, after) =>
      whichever([q!, enabling(p, after)[0]!, after('S')[0]!, after('R')[0]!], ([was, on, s, r]) =>
        on ? [s && r ? 'X' : bit(s || (!r && was!))] : [bit(was!)],
      ),
  },
  register: clocked(
    (p) => [inn('D', word(p.width)), outs('Q', word(p.width))],
    (p) => word(p.width),
    (p, state, read) =>
      state.map(
        (q, i) =>
          whichever([enabling(p, read)[0]!, q, read('D')[i]!], ([on, was, d]) => [bit(on ? d! : was!)])[0]!,
      ),
    (_, __, state) => ({ Q: state }),
  ),
  shift: clocked(
    (p) => [inn('SI'), ...loadPins(p), outs('Q', word(p.width))],
    (p) => word(p.width),
    (p, state, read) =>
      state.map((q, i) => {
        const from = [state[i - 1] ?? read('SI')[0]!, state[i + 1] ?? read('SI')[0]!];
        const d = p.load === 'yes' ? read('D')[i]! : '0';
        const inputs: Word = [loading(p, read)[0]!, enabling(p, read)[0]!, up(p, read)[0]!, d, q, ...from];
        return whichever(inputs, ([load, on, isUp, data, was, below, above]) => [
          bit(load ? data! : on ? (isUp ? below! : above!) : was!),
        ])[0]!;
      }),
    (_, __, state) => ({ Q: state }),
  ),
  counter: clocked(
    (p) => [...loadPins(p), outs('Q', word(p.width)), outs('CO')],
    (p) => word(p.width),
    (p, state, read) =>
      wordAfter(p, state, read, (q, isUp) => {
        const [all, last] = [2 ** word(p.width), modulus(p) - 1];
        return isUp ? (q === last ? 0 : (q + 1) % all) : q === 0 ? last : q - 1;
      }),
    (p, read, state) => ({
      Q: state,
      CO: whichever([enabling(p, read)[0]!, up(p, read)[0]!, ...state], ([on, isUp, ...q]) => [
        bit(on! && asNumber(q) === (isUp ? modulus(p) - 1 : 0)),
      ]),
    }),
  ),
};

function slicedBits(p: Params): number[] {
  const [from, to] = [Math.min(word(p.high), word(p.low)), Math.max(word(p.high), word(p.low))];
  return Array.from({ length: word(p.width) }, (_, i) => i).filter((i) => i >= from && i <= to);
}

interface Instance {
  readonly key: string;
  readonly part: Part;
  readonly behaviour: Behaviour;
  /** The nets of each pin, by its name. */
  readonly nets: ReadonlyMap<string, readonly number[]>;
  state: Word;
}

/** Sets of names that are one net. */
class Joined {
  private readonly above = new Map<string, string>();

  of(name: string): string {
    let top = name;
    for (let up = this.above.get(top); up !== undefined; up = this.above.get(top)) top = up;
    return top;
  }

  join(a: string, b: string): void {
    const [x, y] = [this.of(a), this.of(b)];
    if (x !== y) this.above.set(x, y);
  }
}

/** A circuit by the plain model: settled at once after each change, without delays. */
export class PlainModel {
  private readonly instances: Instance[] = [];
  private readonly sources = new Map<string, Word>();
  private readonly joined = new Joined();
  /** Bits of each wire. */
  private readonly widths = new Map<string, number>();
  private readonly numberOf = new Map<string, number>();
  private readonly drivers: { readonly bits: Bit[]; readonly at: number }[][] = [];
  private readonly pulls = new Map<number, Bit>();
  private readonly driven = new Map<Instance, Map<string, Bit[]>>();
  private values: Bit[] = [];

  /**
   * @param sheet the sheet that runs.
   * @param sources words of its inputs at power-up, by part; those that are not given are 0.
   */
  constructor(
    private readonly lesson: Lesson,
    sheet: Sheet,
    sources: ReadonlyMap<string, Word> = new Map(),
  ) {
    const flat: { readonly key: string; readonly part: Part }[] = [];
    this.gather(sheet, '', flat);
    for (const { key, part } of flat) this.place(key, part);
    for (const { key, part } of flat)
      if (part.kind === 'pull')
        for (let i = 0; i < word(part.params.width); i++)
          this.pulls.set(this.net(`${key}.A#${i}`), part.params.to === 'up' ? '1' : '0');
    this.values = this.drivers.map(() => 'X');
    for (const i of this.instances)
      if (i.key === i.part.id && isSource(i.part)) {
        const width = i.nets.get('Y')!.length;
        this.sources.set(i.key, sources.get(i.key) ?? wordOf(0, width));
      }
    this.rest();
  }

  /** Lets everything come to rest where no edge has come. */
  private rest(): void {
    this.settle();
    this.followStorage([...this.values]);
  }

  /** Joins the pins of a sheet, and lists its parts with those inside its blocks. */
  private gather(sheet: Sheet, around: string, flat: { key: string; part: Part }[]): void {
    const pinBits = (id: string, port: string) => {
      const part = sheet.parts.get(id)!;
      const pins = part.kind === 'block' ? blockPins(part.params) : BEHAVIOUR[part.kind]!.pins(part.params);
      const { width } = pins.find((pin) => pin.name === port)!;
      return Array.from({ length: width }, (_, i) => `${around}${id}.${port}#${i}`);
    };
    const bitsOfWire = (id: string): string[] => {
      const { from, to } = sheet.wires.get(id)!;
      const end = [from, to].find((e) => 'part' in e);
      if (end && 'part' in end) return pinBits(end.part, end.port);
      return bitsOfWire((from as { wire: string }).wire);
    };
    for (const { id, from, to } of sheet.wires.values()) {
      this.widths.set(around + id, bitsOfWire(id).length);
      for (const end of [from, to]) {
        const bits = 'part' in end ? pinBits(end.part, end.port) : bitsOfWire(end.wire);
        for (const [i, name] of bits.entries())
          this.joined.join(name, 'part' in end ? `${around}~${id}#${i}` : `${around}~${end.wire}#${i}`);
        if (!('part' in end))
          for (const i of bits.keys()) this.joined.join(`${around}~${id}#${i}`, `${around}~${end.wire}#${i}`);
      }
    }
    for (const part of sheet.parts.values()) this.gatherPart(part, around, flat);
  }

  private gatherPart(part: Part, around: string, flat: { key: string; part: Part }[]): void {
    const { params } = part;
    const key = around + part.id;
    const alias = (a: string, b: string) => this.joined.join(`${key}.${a}`, b);
    if (part.kind === 'block') {
      const inside = this.lesson.sheets.find(({ id }) => id === params.sheet)!;
      this.gather(inside, `${key}/`, flat);
      for (const port of inside.parts.values()) {
        if (port.kind !== 'port') continue;
        const pin = port.params.direction === 'in' ? 'Y' : 'A';
        for (let i = 0; i < word(port.params.width); i++)
          alias(`${port.label}#${i}`, `${key}/${port.id}.${pin}#${i}`);
      }
      return;
    }
    if (!(part.kind in BEHAVIOUR)) return;
    flat.push({ key, part });
    if (part.kind === 'label')
      for (let i = 0; i < word(params.width); i++) alias(`A#${i}`, `${around}“${part.label}”#${i}`);
    if (part.kind === 'slice')
      for (const [i, from] of slicedBits(params).entries()) alias(`Y#${i}`, `${key}.A#${from}`);
    if (part.kind === 'join') {
      let at = 0;
      for (const pin of BEHAVIOUR.join!.pins(params).filter(({ way }) => way === 'in'))
        for (let i = 0; i < pin.width; i++) alias(`Y#${at++}`, `${key}.${pin.name}#${i}`);
    }
    if (part.kind === 'extend')
      for (let i = 0; i < Math.max(word(params.from), word(params.to)); i++)
        if (i < word(params.from) || params.by === 'sign')
          alias(`Y#${i}`, `${key}.A#${Math.min(i, word(params.from) - 1)}`);
  }

  private net(name: string): number {
    const top = this.joined.of(name);
    let number = this.numberOf.get(top);
    if (number === undefined) {
      number = this.numberOf.size;
      this.numberOf.set(top, number);
      this.drivers.push([]);
    }
    return number;
  }

  private place(key: string, part: Part): void {
    const behaviour = BEHAVIOUR[part.kind]!;
    const nets = new Map<string, number[]>();
    const driven = new Map<string, Bit[]>();
    for (const pin of behaviour.pins(part.params)) {
      const own = Array.from({ length: pin.width }, (_, i) => this.net(`${key}.${pin.name}#${i}`));
      nets.set(pin.name, own);
      const isDriver = pin.way === 'out' && (behaviour.out || isSource(part)) && !isInsidePort(key, part);
      if (!isDriver) continue;
      const bits: Bit[] = own.map(() => 'X');
      driven.set(pin.name, bits);
      for (const [at, net] of own.entries()) this.drivers[net]!.push({ bits, at });
    }
    const count = behaviour.bits?.(part.params) ?? 0;
    const powerUp = part.params.powerUp === 'lesson' ? this.lesson.settings.powerUp : part.params.powerUp;
    const content = behaviour.content?.(part.params) ?? [];
    const state = Array.from({ length: count }, (_, i): Bit => content[i] ?? (powerUp as Bit) ?? '0');
    const instance = { key, part, behaviour, nets, state };
    this.instances.push(instance);
    this.driven.set(instance, driven);
  }

  /** The value of a net: Z gives way, and drivers that are not alike make X. */
  private resolve(net: number): Bit {
    let value: Bit = 'Z';
    for (const { bits, at } of this.drivers[net]!) {
      const b = bits[at]!;
      if (b !== 'Z') value = value === 'Z' || value === b ? b : 'X';
    }
    return value === 'Z' ? (this.pulls.get(net) ?? 'Z') : value;
  }

  /** Goes over all parts until nothing changes. @throws Error where that never comes. */
  private settle(): void {
    for (const net of this.values.keys()) this.values[net] = this.resolve(net);
    for (let round = 0; round < 4 * this.instances.length + 8; round++) {
      let isAtRest = true;
      for (const instance of this.instances) {
        const { part, behaviour, state } = instance;
        const made = isSource(part)
          ? { Y: this.sources.get(instance.key) ?? [] }
          : behaviour.out?.(part.params, this.reader(instance, this.values), state);
        for (const [pin, bits] of this.driven.get(instance)!)
          for (const [i, b] of (made![pin] ?? []).entries()) {
            if (bits[i] === b) continue;
            bits[i] = b;
            const net = instance.nets.get(pin)![i]!;
            const value = this.resolve(net);
            if (this.values[net] !== value) isAtRest = false;
            this.values[net] = value;
          }
      }
      if (isAtRest) return;
    }
    throw new Error('the circuit never comes to rest');
  }

  private reader({ nets }: Instance, values: readonly Bit[]): Read {
    return (pin) => nets.get(pin)!.map((net) => values[net]!);
  }

  /** Lets storage take what a change has brought, all at once, and what follows from that, until nothing changes. */
  private followStorage(before: readonly Bit[]): void {
    let was = before;
    for (let round = 0; round < 64; round++) {
      const after = this.values;
      const changes = this.instances.flatMap((instance) => {
        const { part, behaviour, state } = instance;
        if (!behaviour.next) return [];
        const next = behaviour.next(
          part.params,
          state,
          this.reader(instance, was),
          this.reader(instance, after),
        );
        return next.some((b, i) => b !== state[i]) ? [{ instance, next }] : [];
      });
      if (changes.length === 0) return;
      was = [...after];
      for (const { instance, next } of changes) instance.state = next;
      this.settle();
    }
    throw new Error('storage never comes to rest');
  }

  /** Puts inputs, by part, all in one instant. */
  put(changes: ReadonlyMap<string, Word>): void {
    const before = [...this.values];
    for (const [part, bits] of changes) this.sources.set(part, bits);
    this.settle();
    this.followStorage(before);
  }

  /** The bits of a pin of the sheet that runs, or of a part inside its blocks by its way: `block/part`. */
  pin(part: string, name: string): Word {
    return this.instances
      .find(({ key }) => key === part)!
      .nets.get(name)!
      .map((net) => this.values[net]!);
  }

  /** The bits of a wire; undefined on one that leads to no part. */
  wire(id: string): (Bit | undefined)[] {
    return Array.from({ length: this.widths.get(id)! }, (_, i) => {
      const net = this.numberOf.get(this.joined.of(`~${id}#${i}`));
      return net === undefined ? undefined : this.values[net];
    });
  }

  /** What a part has stored, from the lowest bit. */
  stored(part: string): Word {
    return this.instances.find(({ key }) => key === part)!.state;
  }

  /** Puts storage to bits, as if it had always held them. */
  putStored(words: ReadonlyMap<string, Word>): void {
    for (const instance of this.instances) instance.state = words.get(instance.key) ?? instance.state;
    this.rest();
  }

  /** The parts that store. */
  get stores(): readonly string[] {
    return this.instances.filter(({ state }) => state.length > 0).map(({ key }) => key);
  }
}

const SOURCES = new Set(['switch', 'button', 'clock', 'stimulus']);
const isSource = ({ kind, params }: Part) =>
  SOURCES.has(kind) || (kind === 'port' && params.direction === 'in');
/** A port inside a block only passes on what is outside. */
const isInsidePort = (key: string, { kind }: Part) => kind === 'port' && key.includes('/');

/** The pins of a block, from its lists `P, Q[3:0]`. */
function blockPins({ inputs, outputs }: Params): Pin[] {
  return (
    [
      ['in', inputs],
      ['out', outputs],
    ] as const
  ).flatMap(([way, list]) =>
    String(list)
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean)
      .map((name) => {
        const [, short, high] = /^(.*?)(?:\[(\d+):0\])?$/.exec(name)!;
        return { name: short!, way, width: high ? Number(high) + 1 : 1 };
      }),
  );
}
