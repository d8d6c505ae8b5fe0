import type { Expected } from '../../circuit/exercise';
import type { Lesson, Settings, Sheet } from '../../circuit/lesson';
import type { Stimulus } from '../../circuit/time-setup';
import type { Netlist } from '../../netlist/netlist';
import type { Result } from '../../values/result';
import type { Schema } from '../../values/schema';
import type { ExpectedRows } from '../expected-rows';

/** An input or output that the student's circuit must have. */
export interface ExpectedSignal {
  readonly name: string;
  /** Bits. */
  readonly width: number;
  /** Period in ps where it is a clock, else null. */
  readonly period: number | null;
}

/** What a circuit gives where an exercise expects something. */
export interface Given {
  /** For each expected output a word of bits a row: 0, 1, X, Z, or - where the output is missing. */
  readonly words: readonly (string | readonly string[])[];
  readonly hasAllInputs: boolean;
}

/** How time runs while a circuit is held against what is expected. */
export interface ExpectedDrive extends Pick<Settings, 'delays' | 'powerUp'> {
  /** What drives the inputs of a circuit; they are found by their names. */
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
  | { readonly control: 'text' }
  | { readonly control: 'number'; readonly least: number; readonly most: number }
  | { readonly control: 'choice'; readonly options: readonly (readonly [value: string, label: string])[] }
);
export type SetUpValues = Readonly<Record<string, string>>;

/** One way to come to what is expected. */
export interface SetUp<E extends Expected> {
  /** As it is chosen: `This sheet’s truth table`. */
  readonly name: string;
  /** Whether it is read off the teacher's sheet, or typed. */
  readonly from: 'sheet' | 'typed';
  /** Whether it can be chosen although nothing can be made of the sheet as it is. */
  readonly isAlwaysOffered: boolean;
  fields(source: SetUpSource): readonly SetUpField[];
  initial(source: SetUpSource): SetUpValues;
  /** @param before what was expected until a field was changed; what was filled in there is kept. */
  make(source: SetUpSource, values: SetUpValues, before: E | null): Result<E>;
  /** What to know and to do, above the rows. */
  hint(expected: E, source: SetUpSource): string;
  /** Changes a cell of an output that was pressed. @param made what `make` gave last. Without it cells stand. */
  readonly turn?: (expected: E, made: E, output: number, row: number) => E;
}

/**
 * A kind of exercise: what it holds, how a circuit is checked against it, what student and marker see of it, and how it is
 * set up. All code asks these questions; none asks for a kind by its name.
 */
export interface ExerciseKind<E extends Expected> {
  readonly kind: E['kind'];
  readonly schema: Schema<E>;
  /** The inputs and outputs that a circuit needs, in order. */
  signals(expected: E): {
    readonly inputs: readonly ExpectedSignal[];
    readonly outputs: readonly ExpectedSignal[];
  };
  /** What is expected, row by row, as student and marker see it. */
  rows(expected: E): ExpectedRows;
  /** What a circuit gives. @param complaints takes sentences about what is missing or does not fit. */
  given(expected: E, netlist: Netlist, complaints: string[]): Given;
  /** How time runs; null where the switches alone decide. */
  drive(expected: E): ExpectedDrive | null;
  readonly setUps: readonly SetUp<E>[];
}
