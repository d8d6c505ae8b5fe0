import { basename } from 'node:path';
import type { Exercise } from '../src/core/circuit/exercise';
import { type Marked, markAll } from '../src/core/exercise/marking';
import { unsealedExercise } from '../src/core/exercise/sealing';
import { verdictsOn } from '../src/core/exercise/verdicts';
import { readExercise } from '../src/core/formats/exercise-file';
import { readAnyHandIn } from '../src/core/formats/hand-in-file';
import { readKeys } from '../src/core/formats/key-file';
import { type MarkedRow, markingCsv, pointsSoFar } from '../src/core/formats/marking-csv';
import { printable } from '../src/core/values/printable';
import { counted } from '../src/core/values/wording';
import { BadInput } from './bad-input';
import { textOf } from './open-circuit';
import { writeLines } from './write-out';

interface Options {
  readonly csv?: string;
  /** The file of the key to which answers are sealed; its passphrase is in the environment. */
  readonly key?: string;
}

/**
 * `manege mark`: checks hand-ins against their exercise, as the marking page does.
 * @returns whether all tasks of all of them are solved.
 * @throws BadInput for a file that cannot be read, or a hand-in of another exercise.
 */
export async function mark(file: string, handIns: readonly string[], options: Options): Promise<boolean> {
  const read = readExercise(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const exercise = options.key === undefined ? read.value : await opened(read.value, options.key);
  const rows: MarkedRow[] = [];
  for (const name of handIns) rows.push(await marked(name, exercise));
  await writeLines(rows.flatMap(lines));
  if (options.csv !== undefined) {
    await writeLines([markingCsv(exercise, rows).slice(0, -1)], options.csv);
  }
  return rows.every(({ marks }) => marks.every(({ mark: { solved } }) => solved));
}

/** The exercise with its sealed answers open. */
async function opened(exercise: Exercise, file: string): Promise<Exercise> {
  const passphrase = process.env.MANEGE_PASSPHRASE;
  if (!passphrase) throw new BadInput(`${file}: put its passphrase into MANEGE_PASSPHRASE`);
  const keys = readKeys(await textOf(file), passphrase);
  if (!keys.ok) throw new BadInput(`${file}: ${keys.problem.message}`);
  const read = unsealedExercise(exercise, keys.value);
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  return read.value;
}

async function marked(file: string, exercise: Exercise): Promise<MarkedRow> {
  const read = readAnyHandIn(
    await textOf(file),
    basename(file).replace(/(\.manege)?\.json$/i, ''),
    new Date(),
  );
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const handIn = read.value;
  if (handIn.exercise.id !== exercise.id)
    throw new BadInput(`${file}: it answers “${handIn.exercise.title}”, not “${exercise.title}”`);
  const verdicts = await verdictsOn(exercise.tasks, handIn.lesson);
  return { handIn, marks: markAll(exercise, handIn.lesson, verdicts) };
}

/** A line for a hand-in of one task; else one with the sum, and one a task. */
function lines({ handIn, marks }: MarkedRow): string[] {
  const [only] = marks;
  if (marks.length === 1) return [printable(`${handIn.name}: ${told(only!)}`)];
  const solved = marks.filter(({ mark: { solved } }) => solved).length;
  const { sure, open } = pointsSoFar(marks);
  const toGive = open > 0 ? `, ${open} to be given by you` : '';
  return [
    `${handIn.name}: ${solved} of ${counted(marks.length, 'task')} solved; ${counted(sure, 'point')}${toGive}`,
    ...marks.map((one, i) => `  ${i + 1}. ${one.task.title}: ${told(one)}`),
  ].map(printable);
}

function told({ mark: { right, of, word, gist, wrong, complaints, solved } }: Marked): string {
  const how = solved === null ? 'to be marked by you' : solved ? 'solved' : 'not solved';
  const words = [
    solved !== null && `${right} of ${counted(of, word)}`,
    gist,
    wrong && `wrong: ${wrong}`,
    ...complaints,
  ].filter(Boolean);
  return [how, ...words].join('; ');
}
