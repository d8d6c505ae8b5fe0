import fc from 'fast-check';
import { emptyLesson, type Lesson, type Params, type Part, type Sheet } from '../circuit/lesson';
import { templateOf } from '../parts/template';
import { partOf, sheetOfParts } from './rig';

/** The features of a random design. */
export interface DesignWishes {
  readonly storage: boolean;
  readonly loops: boolean;
  readonly blocks: boolean;
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
    const choices = wishes.storage && sort > 12 ? STORAGE : COMBINATIONAL;
    const { kind, params } = choices[choice % choices.length]!;
    this.add(kind, params, reads, choices === STORAGE ? { C: 'clk.Y' } : {});
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
      const block = new Growing();
      block.input('P', 1);
      block.input('Q', BUS);
      for (const p of inner) block.place(p, { storage: false, loops: false, blocks: false });
      const inside = block.sheet('inner', [
        ['Y', 1],
        ['Z', BUS],
      ]);
      const top = new Growing();
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
