import type { Box, Point } from '../circuit/geometry';
import type { Params } from '../circuit/sheet';
import type { Logic } from '../values/logic';
import type { Schema } from '../values/schema';
import type { PinSide } from './limits';
import type { ParamSchemas } from './param-schemas';
import type { Delay, Primitive } from './primitive';
import type { Shape, TableLook } from './shape';

export type Family =
  | 'Gates'
  | 'Inputs'
  | 'Outputs'
  | 'Storage'
  | 'Registers'
  | 'Functions'
  | 'Wiring'
  | 'Time'
  | 'Notes'
  | 'Blocks';

/** One connection of a part, in the part's own coordinates before it is turned. */
export interface Port {
  readonly name: string;
  /** `both`: neither drives nor reads, as a net label does. */
  readonly direction: 'in' | 'out' | 'both';
  /** Bits. */
  readonly width: number;
  readonly x: number;
  readonly y: number;
  /** The way out of the part. */
  readonly side: 'left' | 'right' | 'top' | 'bottom';
  /** Length in grid steps of the line from the pin to the body, drawn as the signal is. */
  readonly lead: number;
}

/** A net as a part's behaviour names it: a bit of one of its pins, or one inside. */
export type Ref = number;

export type PowerUp = 'lesson' | '0' | '1' | 'X';

/** The recorder of a part's behaviour. Nets are single bits. */
export interface Builder {
  /** The net at a port's bit (bit 0 is the least significant). */
  pin(port: string, bit?: number): Ref;
  /** All bits of a port, the least significant first. */
  pins(port: string): Ref[];
  /** A primitive inside the part, which takes no time of its own. */
  gate(op: Primitive, inputs: readonly Ref[]): Ref;
  /** A primitive whose output is there already; the delay is the part's own to this output. */
  drive(output: Ref, op: Primitive, inputs: readonly Ref[], delay?: Delay): void;
  /** A net inside that is driven later, for feedback. */
  later(): Ref;
  /** Storage of one bit; its name is unique within the part. */
  store(
    op: Primitive,
    inputs: readonly Ref[],
    output: Ref,
    store: {
      readonly name: string;
      readonly powerUp?: PowerUp;
      readonly setup: number;
      readonly hold: number;
    },
  ): void;
  /** Makes two pin bits one and the same net. */
  join(a: Ref, b: Ref): void;
  /** Pulls a pin bit to a value that it has while nobody drives it. */
  pull(pin: Ref, to: 0 | 1): void;
}

/**
 * The role of a part at the border of the circuit. An input drives its port `Y`, an output shows its port
 * `A`.
 */
export type Role =
  | { readonly role: 'input'; readonly by: 'switch' | 'button' | 'port' }
  | { readonly role: 'input'; readonly by: 'clock'; readonly wave: ClockWave }
  | { readonly role: 'input'; readonly by: 'stimulus'; readonly levels: Levels }
  | { readonly role: 'constant'; readonly bits: readonly Logic[] }
  | { readonly role: 'output' };

/** A clock's course in ps. At time 0 it is `begun` into a period, which begins with the `first` level. */
export interface ClockWave {
  readonly low: number;
  readonly high: number;
  readonly first: 0 | 1;
  readonly begun: number;
}

/** The value of a part's pin at a time in ps, and when it next changes (Infinity: never). */
export type Levels = (time: number) => { readonly value: number; readonly next: number };

/** A parameter that people set, and how. */
export type Setting<Param extends string = string> =
  | {
      readonly param: Param;
      readonly label: string;
      readonly control: 'number';
      readonly least: number;
      readonly most: number;
      readonly unit?: string;
    }
  | {
      readonly param: Param;
      readonly label: string;
      /** `words`: whole numbers with blanks or commas between; `short`: a few letters on one line. */
      readonly control: 'text' | 'words' | 'short';
      readonly hint: string;
    }
  | {
      readonly param: Param;
      readonly label: string;
      readonly control: 'choice';
      readonly options: readonly { readonly value: string | number | boolean; readonly label: string }[];
    };

/** How a part looks now. */
export interface Appearance {
  readonly standard: 'distinctive' | 'rectangular';
  /** The value at a port's bit (0 unless asked); X where nothing runs. */
  value(port: string, bit?: number): Logic;
  /** Whether a button is held down. */
  readonly held: boolean;
  /** What drives a clock in place of itself, to be written as its caption. */
  readonly drivenAs?: string | undefined;
  /** The sheet's truth table, where there is one at hand. */
  readonly table?: (() => TableLook | null) | undefined;
}

export type LabelSide = 'left' | 'right' | 'top' | 'none';

/** A place on the edge of a sheet where a signal enters or leaves it, once the sheet is used as a block. */
export interface Boundary {
  readonly direction: 'in' | 'out';
  readonly width: number;
  /** The side of the block that it stands on. */
  readonly side: PinSide;
}

/** The Verilog of a part. */
export interface VerilogWires {
  /** The expression on a port. */
  of(port: string): string;
  /** One bit of it. */
  bit(port: string, bit: number): string;
  /** A range of its bits, the most significant first. */
  bits(port: string, high: number, low: number): string;
  /** A gate instance of that primitive: its name and the part's delay put between the word and the terminals. */
  instance(word: string, terminals: readonly string[]): string;
}

/** The content that a part takes from the rest of the sheet, or from another one, and follows by itself. */
export type Follows = 'pins of a sheet' | 'truth table' | 'formulas';

/** How a part with parameters of type `P` is drawn. */
export interface Drawn<P> {
  ports(params: P): readonly Port[];
  /** The body, without leads and label. */
  body(params: P): Box;
  symbol(params: P, look: Appearance): readonly Shape[];
}

/**
 * Everything else about one kind of part, its parameters being of type `P`. The methods take parameters that have been
 * through the kind's schema, so that every field is there.
 */
export interface PartEntry<P> {
  readonly kind: string;
  readonly family: Family;
  /** The name in the ring and in sentences. */
  readonly name: string;
  /** The texts that place it, lower case; the first is shown. */
  readonly typed: readonly string[];
  /** One sentence for someone who does not know it. */
  readonly says: string;
  /** Start of the label of a new one; empty if it gets none. */
  readonly labelled: string;
  /** The parameter that takes all that is typed behind the name. */
  readonly typedText?: keyof P & string;
  readonly settings?: readonly Setting<keyof P & string>[];
  /** Reads one word, in lower case: the parameters that it sets, null for none; a clause that names the limits if it is outside them. */
  readonly typedWord?: (word: string) => Partial<P> | string | null;
  /** Whether a name, besides those in `typed`, is one of its sorts, which `typedWord` reads, or the beginning of one. */
  readonly typedAs?: (name: string) => 'whole' | 'begun' | null;
  /** Which side of the body the label stands on. */
  readonly labelSide: LabelSide | ((params: P) => LabelSide);
  readonly role?: (params: P) => Role;
  /** Parts of this kind with the same label on a sheet are joined at their first port. */
  readonly joinsByLabel?: boolean;
  /** The bit whose lever or button stands at a place in the part's own coordinates; null beside them. */
  readonly bitAt?: (params: P, at: Point) => number | null;
  build(params: P, builder: Builder): void;
  /** In words, without the label: "two-input AND". */
  spoken(params: P): string;

  /*
   * The questions that other code asks of a part; it never asks for the name of a kind.
   */

  /** One primitive a bit of its output: formulas are drawn with it and gate counts include it. */
  readonly isGate?: boolean;
  /** The kind of storage it is: its outputs depend on the past. */
  readonly stores?: 'flip-flop' | 'latch' | 'register' | 'memory';
  /** Read by people only: it has no pins, and no behaviour depends on it. */
  readonly isNote?: boolean;
  /** Shows a wire's value and is no output of the circuit. */
  readonly isProbe?: boolean;
  /** Alternates by itself, so it can replace a clock input. */
  readonly isClock?: boolean;
  /** Every exercise allows it: without it nothing can be tried, described, or connected. */
  readonly alwaysAllowed?: boolean;
  /** It is brought up to date with every edit. */
  readonly follows?: Follows;
  /** The id of the sheet that it stands for. */
  readonly insideSheet?: (params: P) => string;
  readonly boundary?: (params: P) => Boundary;
  /**
   * Its statements in structural Verilog (IEEE Std 1364-2005), none for a part that only labels or shows. A part
   * without this, or whose parameters give null, is written as an instance of a module of its gates.
   */
  readonly verilog?: (params: P, wires: VerilogWires) => readonly string[] | null;
  /** The logic package that it is, by name, the letter of its unit or none, and the pins that it has. */
  readonly plannedAs?: (params: P) => {
    readonly type: string;
    readonly unit: string;
    readonly pins: readonly { readonly name: string; readonly use: string }[];
  };
  /** What such a module is called; as the kind is named if it does not say. */
  readonly moduleName?: (params: P) => string;
}

/** A kind of part as the catalogue holds it. */
export interface PartKind extends PartEntry<Params>, Drawn<Params> {
  /** The schema of its parameters; `params.ts` reads with it. */
  readonly params: (of: ParamSchemas) => Schema<Params>;
}
