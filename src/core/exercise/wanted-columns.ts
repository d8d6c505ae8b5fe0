import type { Wanted, WantedRun } from '../circuit/exercise';
import { inputAt } from '../logic/truth-table';
import { waveLevels } from '../simulate/drive';
import { timeText } from '../values/time';

/** What is wanted, as a table: a row for each combination of the inputs, or for each reading of a run. */
export interface WantedColumns {
  /** Names of the inputs that have a column: a clock has none, as it stands the same whenever it is read. */
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: number;
  /** What a row is: `row`, or `reading`. */
  readonly word: 'row' | 'reading';
  /** When each row is read; null where rows have no time. */
  readonly when: ((row: number) => string) | null;
  readonly input: (column: number, row: number) => string;
  /** A word of 0, 1 and x, the highest bit first. */
  readonly output: (column: number, row: number) => string;
}

export function columnsOf(wanted: Wanted | WantedRun): WantedColumns {
  if (wanted.is !== 'run') {
    const { inputs, outputs } = wanted;
    return {
      inputs,
      outputs: outputs.map((o) => o.name),
      rows: 2 ** inputs.length,
      word: 'row',
      when: null,
      input: (column, row) => String(inputAt(inputs.length, column, row)),
      output: (column, row) => outputs[column]!.rows[row]!,
    };
  }
  const { outputs, readings } = wanted;
  const shown = wanted.inputs.filter((i) => i.wave.pattern !== 'periodic');
  const levels = shown.map(({ wave, width }) => waveLevels(wave, width));
  return {
    inputs: shown.map((i) => i.name),
    outputs: outputs.map((o) => o.name),
    rows: readings.length,
    word: 'reading',
    when: (row) => timeText(readings[row]! + 1),
    input: (column, row) => String(levels[column]!(readings[row]!).value),
    output: (column, row) => outputs[column]!.values[row]!,
  };
}

/** A word of bits as people read it: one bit as it is, several as a number where all of them are known. */
export function readingText(word: string): string {
  return word.length > 1 && /^[01]+$/.test(word) ? BigInt(`0b${word}`).toString() : word;
}

/** Whether a value is as wanted, bit by bit; an x takes any. */
export function isAsWanted(wanted: string, given: string): boolean {
  return (
    wanted.length === given.length &&
    [...wanted].every((w, i) => (w === 'x' ? given[i] !== '-' : w === given[i]))
  );
}

/** What is wanted with a word of an output turned: `x` for all its bits, or back to what it was before. */
export function readingTurned(wanted: WantedRun, of: WantedRun, output: number, row: number): WantedRun {
  const outputs = wanted.outputs.map((o, i) => {
    if (i !== output) return o;
    const free = 'x'.repeat(o.width);
    const word = o.values[row] === free ? of.outputs[output]!.values[row]! : free;
    return { ...o, values: o.values.with(row, word) };
  });
  return { ...wanted, outputs };
}
