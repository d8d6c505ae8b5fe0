import fc from 'fast-check';
import { emptyLesson, type Lesson } from '../circuit/lesson';
import type { Params, Part, Sheet } from '../circuit/sheet';
import { templateOf } from '../parts/template';
import { partOf, sheetOfParts } from './rig';

/** The features of a random design. */
export interface DesignWishes {
  readonly storage: boolean;
  readonly loops: boolean;
  readonly blocks: boolean;
  /**
   * Parts of every kind with any of their settings, and clocks from anywhere; or those without arithmetic, in which an
   * unknown bit has several ways to an output; or binary ones, in which nothing is unknown.
   */
  readonly every?: 'all' | 'without arithmetic' | 'binary';
}

const BUS = 4;

interface Choice {
  readonly kind: string;
  readonly params: Params;
}

const GATES = ['and', 'or', 'nand', 'nor', 'xor', 'xnor'].flatMap((kind): Choice[] => [
  { kind, params: { inputs: 2 } },
  { kind, params: { inputs: 3, inverted: [1] } },
  { kind, params: { inputs: 2, width: BUS } },
]);
const COMBINATIONAL: readonly Choice[] = [
  ...GATES,
  { kind: 'not', params: {} },
  { kind: 'buffer', params: { width: BUS } },
  { kind: 'mux', params: { select: 1, width: BUS } },
  { kind: 'mux', params: { select: 2 } },
  { kind: 'adder', params: { width: BUS } },
  { kind: 'comparator', params: { width: BUS } },
  { kind: 'slice', params: { width: BUS, high: 2, low: 2 } },
  { kind: 'join', params: { widths: [1, 1, 1, 1] } },
  { kind: 'extend', params: { from: 1, to: BUS, by: 'sign' } },
  { kind: 'rom', params: { address: BUS, width: BUS, content: [7, 3, 9, 1, 15, 8, 2] } },
  { kind: 'encoder', params: { select: 2 } },
];
const STORAGE: readonly Choice[] = [
  { kind: 'dff', params: {} },
  { kind: 'dff', params: { enable: 'yes', powerUp: '1' } },
  { kind: 'tff', params: {} },
  { kind: 'jkff', params: {} },
  { kind: 'register', params: { width: BUS, enable: 'yes' } },
  { kind: 'counter', params: { width: BUS, modulo: 11 } },
  { kind: 'shift', params: { width: BUS, direction: 'down' } },
];

const ACTIVE = ['none', 'high', 'low'];
const YES_NO = ['no', 'yes'];
const POWER_UP = ['lesson', '0', '1', 'X'];
const EDGE = ['rising', 'falling'];
const WAY = ['up', 'down', 'both'];

/** The settings that shift registers and counters share. */
const MOVING = { direction: WAY, load: YES_NO, edge: EDGE, enable: YES_NO, clear: ACTIVE, powerUp: POWER_UP };

/** The settings of parts, each one of a list. */
const SETTINGS: Readonly<Record<string, Readonly<Record<string, readonly Params[string][]>>>> = {
  ...Object.fromEntries(
    ['dff', 'jkff', 'tff', 'srff'].map((kind) => [
      kind,
      { edge: EDGE, enable: YES_NO, preset: ACTIVE, clear: ACTIVE, powerUp: POWER_UP },
    ]),
  ),
  dlatch: { gate: ['high', 'low'], preset: ACTIVE, clear: ACTIVE, powerUp: POWER_UP },
  srlatch: { enable: YES_NO, powerUp: POWER_UP },
  register: { width: [1, BUS], edge: EDGE, enable: YES_NO, clear: ACTIVE, powerUp: POWER_UP },
  shift: { width: [BUS], ...MOVING },
  counter: { width: [BUS], modulo: [0, 2, 11], ...MOVING },
  ram: { address: [1, 2], width: [1, BUS], edge: EDGE, content: [[], [1, 9]], powerUp: POWER_UP },
  ...Object.fromEntries(
    ['and', 'or', 'nand', 'nor', 'xor', 'xnor'].map((kind) => [
      kind,
      { inputs: [2, 3, 4], width: [1, 1, BUS], inverted: [[], [1], [0, 1]] },
    ]),
  ),
  not: { width: [1, BUS] },
  buffer: { width: [1, BUS] },
  constant: { width: [1, BUS], value: [0, 1], unknown: [0, 0, 1] },
  adder: { width: [1, BUS] },
  subtractor: { width: [1, BUS] },
  comparator: { width: [1, BUS], numbers: ['unsigned', 'signed'] },
  mux: { select: [1, 2], width: [1, BUS] },
  demux: { select: [1, 2], width: [1, BUS] },
  decoder: { select: [1, 2], enable: YES_NO },
  encoder: { select: [1, 2] },
  rom: { address: [1, BUS], width: [1, BUS], content: [[7, 3, 9, 1, 15, 8, 2]] },
  slice: { width: [BUS], high: [1, 2, 3], low: [0, 1] },
  join: {
    widths: [
      [1, 1, 1, 1],
      [BUS, 1],
    ],
  },
  extend: { from: [1, BUS], to: [BUS, BUS + 1], by: ['zero', 'sign'] },
};
const STORES = ['dff', 'jkff', 'tff', 'srff', 'dlatch', 'srlatch', 'register', 'shift', 'counter', 'ram'];
const DOES = Object.keys(SETTINGS).filter((kind) => !STORES.includes(kind));

/** Kinds in which an unknown bit may go several ways to an output. */
const ARITHMETIC = ['adder', 'subtractor', 'comparator', 'encoder', 'counter'];
/** Kinds that may make something unknown by themselves. */
const CONTRADICTING = ['srff', 'srlatch', 'constant'];

/** A part of one of some kinds with any of its settings, by a number. */
function anyOf(all: readonly string[], choice: number, every: DesignWishes['every']): Choice {
  const without = every === 'binary' ? CONTRADICTING : every === 'all' ? [] : ARITHMETIC;
  const kinds = all.filter((kind) => !without.includes(kind));
  const kind = kinds[choice % kinds.length]!;
  let rest = Math.floor(choice / kinds.length);
  const params = Object.entries(SETTINGS[kind]!).map(([name, values]) => {
    const value = values[rest % values.length]!;
    rest = Math.floor(rest / values.length);
    return [name, every === 'binary' && value === 'X' ? '1' : value] as const;
  });
  return { kind, params: Object.fromEntries(params) };
}

interface Pick {
  readonly choice: number;
  readonly reads: readonly number[];
  /** Below 2 of 20 a block, below 3 a loop. */
  readonly sort: number;
}

const pick: fc.Arbitrary<Pick> = fc.record({
  choice: fc.nat(),
  reads: fc.array(fc.nat(), { minLength: 8, maxLength: 8 }),
  sort: fc.nat(19),
});

/** Grows a sheet part by part; each reads existing outputs, so nothing is loose and nothing loops unasked. */
class Growing {
  readonly parts: Part[] = [];
  readonly joins: string[] = [];
  /** Pins that can be read, by width. */
  private readonly pool = new Map<number, string[]>();

  /** @param clock the pin that clocks. */
  constructor(private readonly clock: string) {}

  input(id: string, width: number): void {
    this.parts.push(partOf('port', id, { direction: 'in', width }, this.parts.length));
    if (id !== 'clk') this.offer(`${id}.Y`, width);
  }

  private offer(pin: string, width: number): void {
    this.pool.set(width, [...(this.pool.get(width) ?? []), pin]);
  }

  /** A pin of that width; if there is none, bits are joined. */
  private read(width: number, choice: number): string {
    const there = this.pool.get(width);
    if (there) return there[choice % there.length]!;
    const id = this.add('join', { widths: Array(width).fill(1) }, []);
    for (let i = 0; i < width; i++) this.joins.push(`${this.read(1, choice + i)}-${id}.I${i}`);
    this.offer(`${id}.Y`, width);
    return `${id}.Y`;
  }

  private add(
    kind: string,
    params: Params,
    reads: readonly number[],
    fixed: Record<string, string> = {},
  ): string {
    const part = partOf(kind, `u${this.parts.length}`, params, 0, '');
    const { ports } = templateOf(part);
    this.parts.push(part);
    if (kind === 'join' && reads.length === 0) return part.id;
    for (const [i, port] of ports.entries()) {
      if (port.direction !== 'in') continue;
      const from = fixed[port.name] ?? this.read(port.width, reads[i % reads.length]!);
      this.joins.push(`${from}-${part.id}.${port.name}`);
    }
    for (const port of ports) if (port.direction === 'out') this.offer(`${part.id}.${port.name}`, port.width);
    return part.id;
  }

  place({ choice, reads, sort }: Pick, wishes: DesignWishes): void {
    if (wishes.blocks && sort < 3) {
      this.add(
        'block',
        { sheet: 'inner', title: 'inner', inputs: `P, Q[${BUS - 1}:0]`, outputs: `Y, Z[${BUS - 1}:0]` },
        reads,
      );
      return;
    }
    if (wishes.loops && sort < 6) {
      // A multiplexer that reads itself while its select, an input of the sheet, is 0.
      const from = this.read(1, reads[0]!);
      const id = this.add('mux', { select: 1 }, reads, { S: 'hold.Y', D0: 'hold.Y', D1: from });
      this.joins.splice(this.joins.indexOf(`hold.Y-${id}.D0`), 1, `${id}.Y-${id}.D0`);
      return;
    }
    if (wishes.every) {
      if (sort === 3 && wishes.every !== 'binary') this.placeBus(reads);
      else if (sort === 4) this.placeLabel(reads[0]!);
      else if (wishes.storage && sort > 11) {
        // Most clocks are the clock; others come out of gates or of other storage.
        const isClocked = reads[7]! % 3 > 0;
        const { kind, params } = anyOf(STORES, choice, wishes.every);
        this.add(kind, params, reads, isClocked ? { C: this.clock, EN: this.read(1, reads[6]!) } : {});
      } else {
        const { kind, params } = anyOf(DOES, choice, wishes.every);
        this.add(kind, params, reads);
      }
      return;
    }
    const choices = wishes.storage && sort > 12 ? STORAGE : COMBINATIONAL;
    const { kind, params } = choices[choice % choices.length]!;
    this.add(kind, params, reads, choices === STORAGE ? { C: this.clock } : {});
  }

  /** Two drivers of one wire that take turns or not, and now and then a pull resistor. */
  private placeBus(reads: readonly number[]): void {
    const width = reads[0]! % 2 ? 1 : BUS;
    // Chosen before either is there, so that neither reads the wire that it drives.
    const read = [0, 2].map((i) => ({ A: this.read(width, reads[i + 1]!), EN: this.read(1, reads[i + 2]!) }));
    const [first, second] = ['high', 'low'].map((enable, i) =>
      this.add('tri', { width, enable }, reads, read[i]),
    );
    this.joins.push(`${first}.Y-${second}.Y`);
    if (reads[5]! % 3 > 0) return;
    const pull = this.add('pull', { width, to: reads[5]! % 2 ? 'up' : 'down' }, []);
    this.joins.push(`${first}.Y-${pull}.A`);
  }

  /** A signal that goes on elsewhere under its name. */
  private placeLabel(choice: number): void {
    const name = `N${this.parts.length}`;
    const ends = [0, 1].map(() => {
      const part = partOf('label', `u${this.parts.length}`, {}, 0, name);
      this.parts.push(part);
      return part.id;
    });
    this.joins.push(`${this.read(1, choice)}-${ends[0]}.A`);
    this.offer(`${ends[1]}.A`, 1);
  }

  sheet(id: string, outputs: readonly (readonly [name: string, width: number])[]): Sheet {
    for (const [i, [name, width]] of outputs.entries()) {
      const all = this.pool.get(width) ?? [];
      const from = all.at(-1 - (i % Math.max(1, all.length))) ?? this.read(width, i);
      this.parts.push(partOf('port', name, { direction: 'out', width }, 100 + i));
      this.joins.push(`${from}-${name}.A`);
    }
    return sheetOfParts(this.parts, this.joins, id);
  }
}

/** A lesson whose first sheet is a random circuit of buses and bits, with blocks of a second one. */
export function randomDesign(wishes: DesignWishes, most = 25): fc.Arbitrary<Lesson> {
  return fc
    .record({
      inner: fc.array(pick, { minLength: 1, maxLength: 6 }),
      outer: fc.array(pick, { minLength: 3, maxLength: most }),
    })
    .map(({ inner, outer }) => {
      const block = new Growing('P.Y');
      block.input('P', 1);
      block.input('Q', BUS);
      const within = {
        ...wishes,
        storage: wishes.every !== undefined && wishes.storage,
        loops: false,
        blocks: false,
      };
      for (const p of inner) block.place(p, within);
      const inside = block.sheet('inner', [
        ['Y', 1],
        ['Z', BUS],
      ]);
      const top = new Growing('clk.Y');
      if (wishes.storage) top.input('clk', 1);
      if (wishes.loops) top.input('hold', 1);
      for (const id of ['a', 'b']) top.input(id, 1);
      for (const id of ['m', 'n']) top.input(id, BUS);
      for (const p of outer) top.place(p, wishes);
      const sheet = top.sheet('top', [
        ['y', 1],
        ['z', 1],
        ['w', BUS],
      ]);
      return { ...emptyLesson('random-lesson', 'Random'), sheets: [sheet, inside] };
    });
}
