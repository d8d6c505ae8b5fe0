import type { Builder, Ref } from '../part-kind';
import { type Delay, Primitive } from '../primitive';

/*
 * A logic package as its data sheet describes it: pins by number and name, the units inside, behaviour and typical delays.
 * Names that end in an apostrophe are active at 0.
 */

/** A logic family: fast CMOS, low-power Schottky TTL, and buffered CMOS of the 4000 series. */
export const LOGIC_FAMILIES = ['74HC', '74LS', '4000B'] as const;
export type LogicFamily = (typeof LOGIC_FAMILIES)[number];

/** `plus` and `minus` are the supply, `none` is not connected inside. A pin that is `both` is pulled up, and an output or an input. */
export type PinUse = 'in' | 'out' | 'both' | 'plus' | 'minus' | 'none';

export interface PackagePin {
  /** From 1, counted anticlockwise from the notch. */
  readonly number: number;
  /** As on the data sheet: `1A`, `VCC`, `CLR'`. */
  readonly name: string;
  readonly use: PinUse;
}

/** One of the independent circuits in a package. */
export interface PackageUnit {
  /** a, b, c ... in the order of their numbers on the data sheet. */
  readonly letter: string;
  /** Pins by their names within the unit: `A`, `B`, `Y`. */
  readonly pins: ReadonlyMap<string, PackagePin>;
}

/** The gate that every unit of a package is. */
export interface UnitGate {
  /** The kind of the gate in the parts catalogue. */
  readonly kind: 'and' | 'or' | 'nand' | 'nor' | 'xor' | 'xnor' | 'not' | 'buffer';
  readonly inputs: number;
}

export interface PackageType {
  /** `08` of the 74 series, `4011` of the 4000 series. */
  readonly number: string;
  /** One line on what it is. */
  readonly says: string;
  readonly pins: readonly PackagePin[];
  readonly units: readonly PackageUnit[];
  readonly gate?: UnitGate;
  /** Whether its outputs only pull to 0, so that each needs a pull-up resistor. */
  readonly isOpenCollector: boolean;
  /** Names of pins within a unit that can be exchanged with one another, by group. */
  readonly exchangeable: readonly (readonly string[])[];
  /** Typical propagation delay at 5 V and 25 °C, in ns, in each family in which it is made. */
  readonly ns: Readonly<Partial<Record<LogicFamily, number>>>;
  /** Records what one unit does. */
  behaviour(unit: UnitBuilder): void;
}

/** Setup and hold times in ps that hold for the storage of a family. */
const WINDOWS: Readonly<Record<LogicFamily, { readonly setup: number; readonly hold: number }>> = {
  '74HC': { setup: 12_000, hold: 0 },
  '74LS': { setup: 20_000, hold: 5_000 },
  '4000B': { setup: 40_000, hold: 10_000 },
};

/** The recorder of a unit's behaviour; pins are named as within the unit. */
export class UnitBuilder {
  /** Delay and storage times. */
  private readonly delay: Delay;
  private readonly window: { readonly setup: number; readonly hold: number };

  /**
   * @param pinOf the net of a pin by its name within the unit.
   * @param tag put behind the names of stored bits where several units stand in one part.
   */
  constructor(
    readonly b: Builder,
    private readonly pinOf: (name: string) => Ref,
    readonly isOpenCollector: boolean,
    family: LogicFamily,
    ns: number,
    private readonly tag: string,
  ) {
    this.delay = { rise: ns * 1000, fall: ns * 1000 };
    this.window = WINDOWS[family];
  }

  pin(name: string): Ref {
    return this.pinOf(name);
  }

  /** Several pins as a word, in the order in which they are named. */
  word(names: string): Ref[] {
    return names.split(' ').map((name) => this.pin(name));
  }

  /** 1 while a pin that is active at 0 acts. */
  low(name: string): Ref {
    return this.b.gate(Primitive.NOT, [this.pin(name)]);
  }

  /** Puts a net on an output pin, after the package's delay. */
  show(name: string, net: Ref, op: Primitive = Primitive.BUF, more: readonly Ref[] = [], factor = 1): void {
    const delay = { rise: this.delay.rise * factor, fall: this.delay.fall * factor };
    if (!this.isOpenCollector) {
      this.b.drive(this.pin(name), op, [net, ...more], delay);
      return;
    }
    const high = op === Primitive.BUF && more.length === 0 ? net : this.b.gate(op, [net, ...more]);
    this.pullDown(name, this.b.gate(Primitive.NOT, [high]), delay);
  }

  /** Pulls a pin to 0 while a net is 1, and leaves it alone otherwise. */
  pullDown(name: string, acts: Ref, delay = this.delay): void {
    this.b.drive(this.pin(name), Primitive.TRI, [this.b.gate(Primitive.CONST_0, []), acts], delay);
  }

  /** Puts a net on an output pin while an enable is 1; the pin is undriven otherwise. */
  showWhile(name: string, net: Ref, enable: Ref): void {
    this.b.drive(this.pin(name), Primitive.TRI, [net, enable], this.delay);
  }

  /** Stores one bit on an edge, with preset and clear that act at 1; the net that holds it is `state`. */
  store(
    name: string,
    op: Primitive,
    data: Ref,
    clock: Ref,
    state: Ref,
    controls: { readonly preset?: Ref; readonly clear?: Ref } = {},
  ): void {
    const never = () => this.b.gate(Primitive.CONST_0, []);
    const { preset, clear } = controls;
    const both = preset === undefined && clear === undefined ? [] : [preset ?? never(), clear ?? never()];
    this.b.store(op, [data, clock, ...both], state, { name: `${name}${this.tag}`, ...this.window });
  }
}

/** What a data sheet says, as it is written down here. */
export interface PackageData {
  readonly number: string;
  readonly says: string;
  /**
   * The names of the pins from number 1 on. Outputs are marked `>`, a pin that is both `*`; `NC` is not connected. Where every
   * pin but the supply begins with a digit and a letter, the digit is the number of its unit.
   */
  readonly pins: string;
  readonly ns: PackageType['ns'];
  readonly isOpenCollector?: boolean;
  readonly exchangeable?: readonly string[];
}

const SUPPLY: Readonly<Record<string, PinUse>> = {
  VCC: 'plus',
  VDD: 'plus',
  GND: 'minus',
  VSS: 'minus',
  VEE: 'minus',
  NC: 'none',
};
const MARKS: Readonly<Record<string, PinUse>> = { '>': 'out', '*': 'both' };
const OF_UNIT = /^(\d)([A-Z].*)$/;

function pinsOf(written: string): PackagePin[] {
  return written.split(' ').map((text, i) => {
    const marked = MARKS[text[0]!];
    const name = marked ? text.slice(1) : text;
    return { number: i + 1, name, use: marked ?? SUPPLY[name] ?? 'in' };
  });
}

const isSignal = ({ use }: PackagePin) => use === 'in' || use === 'out' || use === 'both';

function unitsOf(pins: readonly PackagePin[]): PackageUnit[] {
  const signals = pins.filter(isSignal);
  if (!signals.every(({ name }) => OF_UNIT.test(name)))
    return [{ letter: 'a', pins: new Map(signals.map((pin) => [pin.name, pin])) }];
  const units = new Map<number, Map<string, PackagePin>>();
  for (const pin of signals) {
    const [, unit, name] = OF_UNIT.exec(pin.name)!;
    const at = Number(unit);
    units.set(at, (units.get(at) ?? new Map()).set(name!, pin));
  }
  return [...units]
    .sort(([a], [b]) => a - b)
    .map(([number, of]) => ({ letter: String.fromCharCode(96 + number), pins: of }));
}

export function definePackage(data: PackageData, behaviour: PackageType['behaviour']): PackageType {
  const pins = pinsOf(data.pins);
  return {
    number: data.number,
    says: data.says,
    pins,
    units: unitsOf(pins),
    isOpenCollector: data.isOpenCollector ?? false,
    exchangeable: (data.exchangeable ?? []).map((group) => group.split(' ')),
    ns: data.ns,
    behaviour,
  };
}
