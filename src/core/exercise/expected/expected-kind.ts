import type { Expected } from '../../circuit/exercise';
import type { Lesson } from '../../circuit/lesson';
import type { Settings, Sheet } from '../../circuit/sheet';
import type { Stimulus } from '../../circuit/time-setup';
import type { Row, Shown } from '../../logic/equivalence/prove';
import type { Netlist } from '../../netlist/netlist';
import type { Result } from '../../values/result';
import type { Schema } from '../../values/schema';
import type { ExpectedRows } from '../expected-rows';

/** An input or output that the student's circuit must have. */
export interface ExpectedSignal {
  readonly name: string;
  /** Bits. */
  readonly width: number;
  /** Period in ps of a clock, else null. */
  readonly period: number | null;
}

/** The outputs of a circuit, in the form in which an exercise expects them. */
export interface Given {
  /** For each expected output a word of bits a row: 0, 1, X, Z, or - where the output is missing. */
  readonly words: readonly (string | readonly string[])[];
  readonly hasAllInputs: boolean;
}

/** A case in which a circuit does something else than is wanted. */
export interface Difference {
  /** One row, or one a clock from power-up, the last one that at which they differ. */
  readonly inputs: readonly Row[];
  readonly wanted: Shown;
  readonly given: Shown;
}

/** How time runs while a circuit is checked. */
export interface ExpectedDrive extends Pick<Settings, 'delays' | 'powerUp'> {
  /** The stimulus for a circuit; inputs are found by their names. */
  stimulus(netlist: Netlist, name: string): Stimulus;
  /** When a row is read, in ps. */
  timeOf(row: number): number;
}

/** The sheet from which a teacher sets an exercise up. */
export interface SetUpSource {
  readonly sheet: Sheet;
  readonly sheets: Lesson['sheets'];
  readonly settings: Settings;
  /** Switches at 1, by `sourceKey`. */
  readonly on: ReadonlySet<string>;
}

/** Something that is asked of the teacher; its value is a text. */
export type SetUpField = { readonly id: string; readonly label: string } & (
  | { readonly control: 'text' | 'lines' }
  | { readonly control: 'number'; readonly least: number; readonly most: number }
  | { readonly control: 'choice'; readonly options: readonly (readonly [value: string, label: string])[] }
);
export type SetUpValues = Readonly<Record<string, string>>;

/** One way to set up the expectation. */
export interface SetUp<E extends Expected> {
  /** As it is chosen: `This sheet’s truth table`. */
  readonly name: string;
  /** Whether it is read off the teacher's sheet, or typed. */
  readonly from: 'sheet' | 'typed';
  /** Whether it can be chosen although nothing can be made of the sheet as it is. */
  readonly isAlwaysOffered: boolean;
  fields(source: SetUpSource): readonly SetUpField[];
  initial(source: SetUpSource): SetUpValues;
  /** @param before the expectation until a field was changed; cells that were filled in are kept. */
  make(source: SetUpSource, values: SetUpValues, before: E | null): Result<E>;
  /** Instructions above the rows. */
  hint(expected: E, source: SetUpSource): string;
  /**
   * Changes a cell of an output that was pressed.
   * @param made the last result of `make`. Without this function cells cannot be changed.
   */
  readonly turn?: (expected: E, made: E, output: number, row: number) => E;
}

/**
 * A kind of exercise: its schema, how a circuit is checked, the views of student and marker, and how it is
 * set up. Other code asks these questions, and never for a kind by its name.
 */
export interface ExpectedKind<E extends Expected> {
  readonly kind: E['kind'];
  readonly schema: Schema<E>;
  /** The inputs and outputs that a circuit needs, in order. */
  signals(expected: E): {
    readonly inputs: readonly ExpectedSignal[];
    readonly outputs: readonly ExpectedSignal[];
  };
  /** The expectation, row by row, as student and marker see it. */
  rows(expected: E): ExpectedRows;
  /** Looks up what a circuit in it is made of; absent where there is none. */
  content?(expected: E): Result<E>;
  /** Whether time runs while a circuit is checked. */
  isTimed(expected: E): boolean;
  /**
   * Whether a circuit does the same, proved; instead of rows, of which there is one for the whole.
   * @param complaints receives sentences about missing or unsuitable signals.
   */
  prove?(expected: E, netlist: Netlist, complaints: string[]): Difference | 'same' | 'other' | 'undecided';
  /** The outputs of a circuit. @param complaints receives sentences about missing or unsuitable signals. */
  given(expected: E, netlist: Netlist, complaints: string[]): Given;
  /** The expectation without the answers; absent where nothing would be left. Don't-cares stay. */
  blank?(expected: E): E;
  /** How time runs; null where the switches alone decide. */
  drive(expected: E): ExpectedDrive | null;
  readonly setUps: readonly SetUp<E>[];
}
