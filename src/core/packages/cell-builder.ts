import type { LogicFamily } from '../parts/packages/package-type';

/** A net of the unfolded sheet by its number, or an end of the supply. */
export type Signal = number | '+' | '-';

/** One gate, one flip-flop, or one whole package that a sheet asks for. */
export interface Cell {
  /** The path of the part from which it comes: `and2`, `block1/and2` inside a block. */
  readonly part: string;
  /** `nand`, `dff`, or the number of a package that it fills. */
  readonly sort: string;
  /** Signals by the names of pins within a unit: `A`, `B`, `Y`. */
  readonly pins: ReadonlyMap<string, Signal>;
  /** Names of the pins that it drives. */
  readonly outputs: readonly string[];
  /** Whether the drawing shows it; otherwise it is inside a larger part, or an inverter at a bubble. */
  readonly isDrawn: boolean;
  /** Which bit of a wider gate it is. */
  readonly bit?: number;
  /** Where the drawing says which: `74HC08`, and the letter of the unit. */
  readonly fixed?: { readonly type: string; readonly unit: string };
}

/** Whether a cell is a gate that any unit of its kind can be. */
export const isGateCell = ({ sort, fixed }: Cell): boolean => GATES.has(sort) && !fixed;
const GATES: ReadonlySet<string> = new Set(['and', 'or', 'nand', 'nor', 'xor', 'xnor', 'not', 'buffer']);

/** Names of a gate's inputs. */
export const inputLetters = (count: number): string[] =>
  Array.from({ length: count }, (_, i) => String.fromCharCode(65 + i));

/** A package in the drawing: its name, the letter of a unit or none, and the pins that the part has. */
export interface PlannedPackage {
  readonly type: string;
  readonly unit: string;
  readonly pins: readonly { readonly name: string; readonly use: string }[];
}

interface DFlipFlop {
  readonly data: Signal;
  readonly clock: Signal;
  readonly isFalling: boolean;
  /** Both act at 1. */
  readonly preset?: Signal | undefined;
  readonly clear?: Signal | undefined;
  readonly q: Signal;
  readonly inverse?: Signal | undefined;
}

/** Names of the controls of a family's flip-flops, and the level at which they act. */
export const CONTROLS = {
  '74HC': { preset: "PRE'", clear: "CLR'", acts: 0 },
  '74LS': { preset: "PRE'", clear: "CLR'", acts: 0 },
  '4000B': { preset: 'S', clear: 'R', acts: 1 },
} as const satisfies Record<LogicFamily, object>;

/** Collects cells; nets that turn out to be one are joined, and inverters of one signal are made once. */
export class CellBuilder {
  private cells: Cell[] = [];
  private readonly parents = new Map<number, Signal>();
  private readonly inverters = new Map<Signal, Signal>();
  private readonly pulls: (readonly [Signal, '+' | '-'])[] = [];

  /** @param next the first number that is free for another net. */
  constructor(
    private next: number,
    private readonly family: LogicFamily,
  ) {}

  net(): number {
    return this.next++;
  }

  resolved(signal: Signal): Signal {
    let at = signal;
    for (let next = this.parents.get(at as number); next !== undefined; next = this.parents.get(at as number))
      at = next;
    return at;
  }

  /** Makes two signals one. */
  join(a: Signal, b: Signal): void {
    const [x, y] = [this.resolved(a), this.resolved(b)];
    if (x === y) return;
    if (typeof x === 'number') this.parents.set(x, y);
    else if (typeof y === 'number') this.parents.set(y, x);
  }

  tie(net: Signal, to: '+' | '-'): void {
    this.join(net, to);
  }

  /** Pulled where nothing drives it, which is known at the end. */
  pull(net: Signal, to: '+' | '-'): void {
    this.pulls.push([net, to]);
  }

  /** The complement of a signal. */
  inverse(part: string, of: Signal): Signal {
    const signal = this.resolved(of);
    if (signal === '+') return '-';
    if (signal === '-') return '+';
    const known = this.inverters.get(signal);
    if (known !== undefined) return known;
    const made = this.net();
    this.gate(part, 'not', [signal], made, false);
    return made;
  }

  gate(
    part: string,
    sort: string,
    inputs: readonly Signal[],
    output: Signal,
    isDrawn: boolean,
    bit = 0,
  ): void {
    const pins = new Map<string, Signal>(
      inputs.map((signal, i) => [inputLetters(inputs.length)[i]!, signal]),
    );
    pins.set('Y', output);
    if (sort === 'not') this.inverters.set(this.resolved(inputs[0]!), output);
    this.cells.push({ part, sort, pins, outputs: ['Y'], isDrawn, bit });
  }

  /** A flip-flop, or a package by its number. */
  unit(
    part: string,
    sort: string,
    pins: Readonly<Record<string, Signal>>,
    outputs: readonly string[] = ['Q', "Q'"],
  ): void {
    this.cells.push({ part, sort, pins: new Map(Object.entries(pins)), outputs, isDrawn: true });
  }

  /** A package, or a unit of one, that stands in the drawing as such. */
  fixed(part: string, { type, unit, pins }: PlannedPackage, pin: (port: string) => Signal): void {
    this.cells.push({
      part,
      sort: type,
      pins: new Map(pins.map(({ name }) => [name, pin(name)])),
      outputs: pins.filter(({ use }) => use === 'out').map(({ name }) => name),
      isDrawn: true,
      fixed: { type, unit },
    });
  }

  /** `select ? at1 : at0`, of gates. */
  choose(part: string, [select, at0, at1]: readonly [Signal, Signal, Signal], output: Signal): void {
    const [first, second] = [this.net(), this.net()];
    this.gate(part, 'nand', [at0, this.inverse(part, select)], first, false);
    this.gate(part, 'nand', [at1, select], second, false);
    this.gate(part, 'nand', [first, second], output, false);
  }

  /** A latch that is open at 1, of NAND gates. */
  latch(part: string, [data, open, preset, clear]: readonly Signal[], output: Signal): void {
    const [sets, resets, inverse] = [this.net(), this.net(), this.net()];
    const controls = (acts: Signal | undefined) => {
      const at = acts === undefined ? '-' : this.resolved(acts);
      return at === '-' ? [] : [this.inverse(part, at)];
    };
    const notClear = controls(clear);
    const notPreset = controls(preset);
    this.gate(part, 'nand', [data!, open!, ...notClear], sets, false);
    this.gate(part, 'nand', [this.inverse(part, data!), open!, ...notPreset], resets, false);
    this.gate(part, 'nand', [sets, inverse, ...notPreset], output, false);
    this.gate(part, 'nand', [resets, output, ...notClear], inverse, false);
  }

  /** A control of a flip-flop that acts at 1, as the family's package wants it. */
  control(part: string, acts: Signal | undefined): Signal {
    const low = CONTROLS[this.family].acts === 0;
    const signal = acts === undefined ? '-' : this.resolved(acts);
    return low ? this.inverse(part, signal) : signal;
  }

  dFlipFlop(part: string, { data, clock, isFalling, preset, clear, q, inverse }: DFlipFlop): void {
    const names = CONTROLS[this.family];
    this.unit(part, 'dff', {
      D: data,
      CLK: isFalling ? this.inverse(part, clock) : clock,
      [names.preset]: this.control(part, preset),
      [names.clear]: this.control(part, clear),
      Q: q,
      ...(inverse === undefined ? {} : { "Q'": inverse }),
    });
  }

  /**
   * The cells with their signals joined. Gates that are not drawn are left out if constants decide them or nothing reads them.
   * @param kept signals read from outside.
   */
  finished(kept: readonly Signal[]): Cell[] {
    this.foldConstants();
    this.dropUnread(kept);
    this.applyPulls();
    return this.cells.map((cell) => ({
      ...cell,
      pins: new Map([...cell.pins].map(([name, signal]) => [name, this.resolved(signal)])),
    }));
  }

  private foldConstants(): void {
    for (;;) {
      const before = this.cells;
      this.cells = [];
      let isChanged = false;
      for (const cell of before) {
        if (!cell.isDrawn && this.fold(cell)) isChanged = true;
        else this.cells.push(cell);
      }
      if (!isChanged) return;
    }
  }

  private dropUnread(kept: readonly Signal[]): void {
    for (;;) {
      const read = new Set(kept.map((signal) => this.resolved(signal)));
      for (const { pins, outputs } of this.cells)
        for (const [name, signal] of pins) if (!outputs.includes(name)) read.add(this.resolved(signal));
      const used = this.cells.filter((cell) => cell.isDrawn || read.has(this.resolved(cell.pins.get('Y')!)));
      if (used.length === this.cells.length) return;
      this.cells = used;
    }
  }

  private applyPulls(): void {
    const driven = new Set(
      this.cells.flatMap(({ pins, outputs }) => outputs.map((name) => this.resolved(pins.get(name) ?? '-'))),
    );
    for (const [net, to] of this.pulls) if (!driven.has(this.resolved(net))) this.tie(net, to);
  }

  /** Whether a gate inside a part is decided by constants, or is smaller for them: then that takes its place. */
  private fold(cell: Cell): boolean {
    if (!isGateCell(cell) || cell.sort === 'buffer') return false;
    const { sort, part } = cell;
    const output = cell.pins.get('Y')!;
    const inputs = [...cell.pins].flatMap(([name, of]) => (name === 'Y' ? [] : [this.resolved(of)]));
    const isInverting = sort === 'nand' || sort === 'nor' || sort === 'not' || sort === 'xnor';
    const take = (signal: Signal) => {
      this.join(output, isInverting ? this.inverse(part, signal) : signal);
      return true;
    };
    if (sort === 'not') return typeof inputs[0] === 'number' ? false : take(inputs[0]!);
    if (sort === 'xor' || sort === 'xnor') {
      const open = inputs.filter((signal) => typeof signal === 'number');
      if (open.length > 1) return false;
      const isOdd = inputs.filter((signal) => signal === '+').length % 2 === 1;
      const is = open[0] ?? '-';
      return take(isOdd ? this.inverse(part, is) : is);
    }
    const [decides, neutral] =
      sort === 'or' || sort === 'nor' ? (['+', '-'] as const) : (['-', '+'] as const);
    const open = [...new Set(inputs.filter((signal) => signal !== neutral))];
    if (open.includes(decides)) return take(decides);
    if (open.length <= 1) return take(open[0] ?? neutral);
    if (open.length === inputs.length) return false;
    this.gate(part, sort, open, output, false);
    return true;
  }
}
