import '../src/core/simulate/with-kernel';
import { mkdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { Exercise } from '../src/core/circuit/exercise';
import { attendanceOf, type Student } from '../src/core/exercise/class-list';
import { byStudent, type FoundHandIn, foundIn, marksIn, traitsOf } from '../src/core/exercise/found';
import type { HandIn } from '../src/core/exercise/hand-in';
import type { Marked } from '../src/core/exercise/marking';
import { returnedWork } from '../src/core/exercise/returned';
import { unsealedExercise } from '../src/core/exercise/sealing';
import {
  type Answered,
  type ClassMarks,
  NO_MARKS,
  pointsFor,
  remarksOn,
} from '../src/core/exercise/teacher-marks';
import { verdictsOn } from '../src/core/exercise/verdicts';
import { readClassList } from '../src/core/formats/class-list';
import { readExercise } from '../src/core/formats/exercise-file';
import { readAnyHandIn } from '../src/core/formats/hand-in-file';
import { readKeys } from '../src/core/formats/key-file';
import { likenessCsv } from '../src/core/formats/likeness-csv';
import { type Given, markingCsv, pointsSoFar } from '../src/core/formats/marking-csv';
import { marksIn as marksInFile, readMarking } from '../src/core/formats/marking-file';
import { writeReturned } from '../src/core/formats/returned-file';
import { likePairs } from '../src/core/likeness/likeness';
import type { KeyPair } from '../src/core/sealing/seal';
import { printable } from '../src/core/values/printable';
import { textHash } from '../src/core/values/text-hash';
import { counted } from '../src/core/values/wording';
import { BadInput } from './bad-input';
import { textOf } from './open-circuit';
import { complain, writeLines } from './write-out';

interface Options {
  readonly csv?: string;
  /** The file of the key to which answers are sealed; its passphrase is in the environment. */
  readonly key?: string;
  /** A class list. */
  readonly class?: string;
  /** A marking file (points and remarks). */
  readonly marking?: string;
  /** The directory into which the marked work of each student is written. */
  readonly back?: string;
  readonly likeness?: string;
}

/** A hand-in, its marks with their details, and its row in the list. */
interface MarkedHandIn {
  readonly handIn: HandIn;
  readonly marks: readonly Marked[];
  readonly found: FoundHandIn;
}

/**
 * `manege mark`: checks hand-ins against their exercise, as the marking page does. A file that cannot be marked is complained of,
 * and the rest goes on; the same hand-in twice counts once.
 * @returns 0 where all tasks of all of them are solved, 1 where not, 2 where a file could not be marked.
 * @throws BadInput where the exercise, the key, the class list or the marking cannot be read.
 */
export async function mark(file: string, handIns: readonly string[], options: Options): Promise<0 | 1 | 2> {
  const read = readExercise(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const keys = options.key === undefined ? null : await keysIn(options.key);
  const exercise = keys ? opened(read.value, keys, options.key!) : read.value;
  const students = options.class === undefined ? null : await studentsIn(options.class);
  const given = options.marking === undefined ? NO_MARKS : await markingIn(options.marking, exercise, keys);
  const all = new Map<string, MarkedHandIn>();
  let bad = 0;
  for (const name of handIns) {
    try {
      const { id, one } = await marked(name, exercise);
      if (!all.has(id)) all.set(id, one);
    } catch (error) {
      if (!(error instanceof BadInput)) throw error;
      complain(error.message);
      bad++;
    }
  }
  await writeLines([...all.values()].flatMap((one) => lines(one)));
  const latest = byStudent([...all.values()]).map(([one]) => one!);
  const attendance =
    students &&
    attendanceOf(
      { students, joined: {} },
      latest.map(({ handIn }) => handIn.name),
    );
  if (attendance) {
    await writeLines(attendance.missing.map(({ name }) => printable(`${name}: nothing handed in`)));
    for (const { name, like } of attendance.unknown)
      complain(`${name} is not in the class list${like ? `; is it ${like.name}?` : ''}`);
  }
  if (options.csv !== undefined) {
    const told = (one: MarkedHandIn): Given => ({
      ...(attendance ? { student: attendance.students.get(one.handIn.name) ?? null } : {}),
      points: answersOf(one).map((answer) => pointsFor(given, answer)),
      remarks: answersOf(one).flatMap((answer) => remarksOn(given, answer).map(({ text }) => text)),
    });
    await writeLines([markingCsv(exercise, latest, told).slice(0, -1)], options.csv);
  }
  if (options.back !== undefined) await giveBack(options.back, latest, given, read.value);
  if (options.likeness !== undefined) {
    const pairs = likePairs(latest.map(({ found }) => found.answers.map(traitsOf)));
    const names = latest.map(({ handIn }) => handIn.name);
    await writeLines([likenessCsv(pairs, names).slice(0, -1)], options.likeness);
  }
  if (bad > 0) return 2;
  const isSolved = ({ marks }: MarkedHandIn) => marks.every(({ mark: { solved } }) => solved);
  return [...all.values()].every(isSolved) ? 0 : 1;
}

async function keysIn(file: string): Promise<KeyPair> {
  const passphrase = process.env.MANEGE_PASSPHRASE;
  if (!passphrase) throw new BadInput(`${file}: put its passphrase into MANEGE_PASSPHRASE`);
  const keys = readKeys(await textOf(file), passphrase);
  if (!keys.ok) throw new BadInput(`${file}: ${keys.problem.message}`);
  return keys.value;
}

/** The exercise with its sealed answers open. */
function opened(exercise: Exercise, keys: KeyPair, file: string): Exercise {
  const read = unsealedExercise(exercise, keys);
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  return read.value;
}

async function studentsIn(file: string): Promise<Student[]> {
  const read = readClassList(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  return read.value;
}

async function markingIn(file: string, exercise: Exercise, keys: KeyPair | null): Promise<ClassMarks> {
  const read = readMarking(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const { id, title } = read.value.exercise;
  if (id !== exercise.id) throw new BadInput(`${file}: it marks “${title}”, not “${exercise.title}”`);
  const marks = marksInFile(read.value, keys);
  if (!marks.ok) throw new BadInput(`${file}: ${marks.problem.message}`);
  return marks.value;
}

async function marked(file: string, exercise: Exercise): Promise<{ id: string; one: MarkedHandIn }> {
  const text = await textOf(file);
  const read = readAnyHandIn(text, basename(file).replace(/(\.manege)?\.json$/i, ''), new Date());
  if (!read.ok) throw new BadInput(`${file}: ${read.problem.message}`);
  const handIn = read.value;
  if (handIn.exercise.id !== exercise.id)
    throw new BadInput(
      handIn.exercise.title === exercise.title
        ? `${file}: it answers another exercise that is called “${exercise.title}” as well`
        : `${file}: it answers “${handIn.exercise.title}”, not “${exercise.title}”`,
    );
  const verdicts = await verdictsOn(exercise.tasks, handIn.lesson);
  const marks = marksIn(handIn, exercise, [], verdicts);
  const id = textHash(text);
  return { id, one: { handIn, marks, found: foundIn(id, handIn, marks) } };
}

const answersOf = ({ marks, found: { id, answers } }: MarkedHandIn): Answered[] =>
  marks.map(({ task, mark }, at) => ({ task, mark, handIn: id, said: answers[at]!.said }));

/** Writes a file of marked work for each student; it holds nothing of the others. */
async function giveBack(
  folder: string,
  all: readonly MarkedHandIn[],
  given: ClassMarks,
  exercise: Exercise,
): Promise<void> {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    throw new BadInput(`${folder}: ${(error as Error).message}`);
  }
  const now = new Date();
  for (const [i, one] of all.entries()) {
    const plain = one.handIn.name.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60);
    const text = writeReturned(returnedWork(one.handIn, answersOf(one), given, exercise, now));
    await writeLines(
      [text.trimEnd()],
      join(folder, `${String(i + 1).padStart(3, '0')}-${plain}.returned.json`),
    );
  }
}

/** A line for a hand-in of one task; else one with the sum, and one a task. */
function lines({ handIn, marks }: MarkedHandIn): string[] {
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
