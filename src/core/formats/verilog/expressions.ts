import type { Bit } from './cells';
import type { Gates, Value } from './gates';
import type { Scope, Signal } from './scope';
import type { Expression } from './syntax';
import type { Word } from './word';

/** What makes parts of expressions, as those see it that make some of them. */
export interface Expressions {
  readonly scope: Scope;
  readonly gates: Gates;
  /** The contents of memories that nothing writes, by the first of their bits. */
  readonly fixed: ReadonlyMap<Bit, readonly Word[]>;
  /** An expression by itself. */
  own(e: Expression): Value;
  /** An expression in a context of that width and sign. */
  value(e: Expression, width: number, signed: boolean): Value;
  truth(e: Expression): Bit;
  /** What signals hold now. */
  read(bits: readonly Bit[]): Bit[];
  /** Notes that a variable is read. */
  noted(signal: Signal): Signal;
}
