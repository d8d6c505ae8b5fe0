import type { Box } from '../circuit/geometry';
import type { Params } from '../circuit/lesson';
import type { Logic } from '../values/logic';
import type { Schema } from '../values/schema';
import type { Delay, Primitive } from './primitive';
import type { Shape } from './shape';

export type Family = 'Gates' | 'Inputs' | 'Outputs' | 'Storage' | 'Time';

/** One connection of a part, in the part's own coordinates before it is turned. */
export interface Port {
  readonly name: string;
  readonly direction: 'in' | 'out';
  /** Bits. */
  readonly width: number;
  readonly x: number;
  readonly y: number;
  /** The way out of the part. */
  readonly side: 'left' | 'right' | 'top' | 'bottom';
  /** Length in grid steps of the line from the pin to the body, drawn as the signal is. */
  readonly lead: number;
}

/** What a part's behaviour is given by the compiler, and tells it. Nets are single bits. */
export interface Builder {
  /** The net at a port's bit (bit 0 is the least significant). */
  pin(port: string, bit?: number): number;
  /** A new net inside the part. */
  inner(name: string): number;
  add(op: Primitive, inputs: readonly number[], output: number, delay: Delay): void;
}

/** A part that is moved from outside while the circuit runs. */
export type Role =
  | { readonly role: 'input'; readonly by: 'switch' | 'button' }
  | { readonly role: 'input'; readonly by: 'clock'; readonly halves: ClockHalves }
  | { readonly role: 'constant'; readonly value: Logic }
  | { readonly role: 'output' };

/** Lengths in ps of a clock's low and high half; time 0 begins with the low one. */
export interface ClockHalves {
  readonly low: number;
  readonly high: number;
}

/** A parameter that people set, and how. */
export type Setting =
  | {
      readonly param: string;
      readonly label: string;
      readonly control: 'number';
      readonly least: number;
      readonly most: number;
      readonly unit?: string;
    }
  | {
      readonly param: string;
      readonly label: string;
      readonly control: 'choice';
      readonly options: readonly { readonly value: string | number; readonly label: string }[];
    };

/** How a part looks now. */
export interface Appearance {
  readonly standard: 'distinctive' | 'rectangular';
  /** The value at a port's bit 0; X where nothing runs. */
  value(port: string): Logic;
  /** Whether a button is held down. */
  readonly held: boolean;
}

/**
 * Everything about one kind of part. The methods take parameters that have been through `params`, so that every
 * field is there.
 */
export interface PartKind {
  readonly kind: string;
  readonly family: Family;
  /** The name in the ring and in sentences. */
  readonly name: string;
  /** What may be typed to place it, lower case; the first is shown. */
  readonly typed: readonly string[];
  /** One sentence for someone who has not met it. */
  readonly says: string;
  /** Start of the label that a new one gets; empty where it gets none and words behind its name are no label. */
  readonly labelled: string;
  readonly params: Schema<Params>;
  readonly settings?: readonly Setting[];
  /** The parameters that one word typed behind the name (lower case) sets, or null where it sets none. */
  readonly typedWord?: (word: string) => Params | null;
  ports(params: Params): readonly Port[];
  /** The body, without leads and label. */
  body(params: Params): Box;
  symbol(params: Params, look: Appearance): readonly Shape[];
  /** Which side of the body the label stands on. */
  readonly labelSide: 'left' | 'right' | 'top' | 'none';
  readonly role?: (params: Params) => Role;
  build(params: Params, builder: Builder): void;
  /** In words, without the label: "two-input AND". */
  spoken(params: Params): string;
}
