import type { Exercise } from '../src/core/circuit/exercise';
import { check, wrongRowsText } from '../src/core/exercise/check';
import { exerciseKindOf } from '../src/core/exercise/kinds';
import { readExercise } from '../src/core/formats/exercise-file';
import { readHandIn } from '../src/core/formats/hand-in-file';
import { type MarkedRow, markingCsv, partsText } from '../src/core/formats/marking-csv';
import { printable } from '../src/core/values/printable';
import { BadInput } from './bad-input';
import { textOf } from './open-circuit';
import { writeLines } from './write-out';

interface Options {
  readonly csv?: string;
}

/**
 * `manege mark`: checks hand-ins against their exercise, as the marking page does.
 * @returns whether all of them are solved.
 * @throws BadInput for a file that cannot be read, or a hand-in of another exercise.
 */
export async function mark(file: string, handIns: readonly string[], options: Options): Promise<boolean> {
  const read = readExercise(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const rows: MarkedRow[] = [];
  for (const name of handIns) rows.push(await marked(name, read.value));
  const { expected } = read.value;
  const { word } = exerciseKindOf(expected).rows(expected);
  await writeLines(rows.map((row) => line(row, word)));
  if (options.csv !== undefined) {
    await writeLines([markingCsv(rows).slice(0, -1)], options.csv);
  }
  return rows.every(({ check: { solved } }) => solved);
}

async function marked(file: string, exercise: Exercise): Promise<MarkedRow> {
  const read = readHandIn(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const handIn = read.value;
  if (handIn.exercise.id !== exercise.id)
    throw new BadInput(`${file}: it answers “${handIn.exercise.title}”, not “${exercise.title}”`);
  const { sheets } = handIn.lesson;
  return { handIn, check: check(sheets[0]!, exercise, sheets) };
}

function line({ handIn, check: made }: MarkedRow, word: string): string {
  const wrong = wrongRowsText(made, word);
  const words = [
    `${made.right} of ${made.rows} ${word}s`,
    partsText(made),
    wrong && `wrong: ${wrong}`,
    ...made.complaints,
  ].filter(Boolean);
  return printable(`${handIn.name}: ${made.solved ? 'solved' : 'not solved'}; ${words.join('; ')}`);
}
