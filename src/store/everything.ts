import { together } from '@/core/exercise/teacher-marks';
import type { ArchivedFile } from '@/core/formats/archive';
import { readExercise } from '@/core/formats/exercise-file';
import { readHandIn } from '@/core/formats/hand-in-file';
import { readLesson } from '@/core/formats/lesson-file';
import { readMarking, writeMarking } from '@/core/formats/marking-file';
import { readJson } from '@/core/formats/read-json';
import { readReturned } from '@/core/formats/returned-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { mapped, type Result } from '@/core/values/result';
import { allMarks, changeMarks, keptMarks } from './class-marks';
import { database, isReturned } from './database';
import { exerciseFiles, isExerciseKept, keepExercise } from './exercises';
import { keepHandIns } from './hand-ins';
import { openLesson } from './lessons';
import { keepReturned } from './returned';
import { addLesson, rawLesson } from './shelf';

/*
 * All that this browser keeps, as files of one archive, and back.
 */

/** Stands in the archive, and says that it is one of these. */
const MANIFEST = 'manege-everything.json';

const plain = (title: string) => title.replaceAll(/[^\p{L}\p{N}]+/gu, '-').slice(0, 40) || 'untitled';

/** Everything as files: lessons as they are now, exercises and hand-ins; what cannot be read as it is kept. */
export async function everything(): Promise<ArchivedFile[]> {
  const files: ArchivedFile[] = [
    { name: MANIFEST, text: `${JSON.stringify({ format: 'manege-everything', version: 1 })}\n` },
  ];
  for (const { id, title } of await database.lessons.toArray()) {
    const read = await openLesson(id);
    files.push(
      read?.ok
        ? { name: `lessons/${plain(title)}.${id}.manege.json`, text: writeLesson(read.value) }
        : { name: `damaged/${id}.json`, text: JSON.stringify(await rawLesson(id)) },
    );
  }
  for (const { id, file } of await exerciseFiles())
    files.push({ name: `exercises/${id}.exercise.json`, text: JSON.stringify(file) });
  for (const { key, text } of await database.handIns.toArray())
    files.push({ name: `hand-ins/${key}.handin.json`, text });
  for (const [exercise, marks] of await allMarks())
    files.push({
      name: `markings/${exercise}.marking.json`,
      text: writeMarking({ id: exercise, title: exercise }, marks),
    });
  for (const { exercise, text } of await database.returned.toArray())
    files.push({ name: `returned/${exercise}.returned.json`, text });
  return files;
}

/** Whether the files of an archive are what `everything` gives. */
export const isEverything = (files: readonly ArchivedFile[]): boolean =>
  files.some(({ name }) => name === MANIFEST);

export interface BroughtBack {
  readonly lessons: number;
  readonly exercises: number;
  readonly handIns: number;
  /** What was given for the hand-ins of exercises. */
  readonly markings: number;
  /** Work that came back from a teacher. */
  readonly returned: number;
  /** How many of all were here already, as they are in the archive. */
  readonly known: number;
  readonly problems: readonly string[];
}

/** Brings everything back, beside what is here: nothing that is here is replaced. */
export async function bringBack(files: readonly ArchivedFile[]): Promise<BroughtBack> {
  const brought = { lessons: 0, exercises: 0, handIns: 0, markings: 0, returned: 0, known: 0 };
  const problems: string[] = [];
  const count = async (name: string, taken: Result<Promise<keyof typeof brought>>) => {
    if (taken.ok) brought[await taken.value]++;
    else problems.push(`${name}: ${taken.problem.message}.`);
  };
  for (const { name, text } of files) {
    const heading = name === MANIFEST ? null : headingOf(text);
    if (heading === 'manege-lesson')
      await count(
        name,
        mapped(readLesson(text), async (lesson) => {
          const here = await openLesson(lesson.id);
          if (here?.ok && writeLesson(here.value) === writeLesson(lesson)) return 'known';
          await addLesson(lesson);
          return 'lessons';
        }),
      );
    else if (heading === 'manege-exercise')
      await count(
        name,
        mapped(readExercise(text), async (exercise) => {
          if (await isExerciseKept(exercise.id)) return 'known';
          await keepExercise(exercise);
          return 'exercises';
        }),
      );
    else if (heading === 'manege-hand-in')
      await count(
        name,
        mapped(readHandIn(text), async (handIn) => {
          const fresh = await keepHandIns(handIn.exercise.id, [{ file: name, text }]);
          return fresh > 0 ? 'handIns' : 'known';
        }),
      );
    else if (heading === 'manege-marking')
      await count(
        name,
        mapped(readMarking(text), async ({ exercise, marks }) => {
          const here = await keptMarks(exercise.id);
          const all = marks ? together(marks, here) : here;
          if (JSON.stringify(all) === JSON.stringify(here)) return 'known';
          await changeMarks(exercise.id, () => all);
          return 'markings';
        }),
      );
    else if (heading === 'manege-returned')
      await count(
        name,
        mapped(readReturned(text), async (returned) => {
          if (await isReturned(returned.lesson.exercise!.id)) return 'known';
          await keepReturned(returned);
          return 'returned';
        }),
      );
    else if (name !== MANIFEST) problems.push(`${name}: it is none of our files, and was left out.`);
  }
  return { ...brought, problems };
}

function headingOf(text: string): unknown {
  const read = readJson(text);
  return read.ok && (read.value as { format?: unknown } | null)?.format;
}

/** Milliseconds after which what a deleted lesson has left behind is swept away. */
const KEPT_FOR = 86_400_000;

/**
 * Takes away what belongs to no lesson any more: leases, switch positions, edits of lessons that were deleted. Fences stay:
 * a page that was left open may still believe that it has the lesson.
 */
export async function sweep(now: number): Promise<void> {
  const { lessons, journal, setAside, moments, leases, lessonFiles } = database;
  await database.transaction('rw', [lessons, journal, setAside, moments, leases, lessonFiles], async () => {
    const there = new Set(await lessons.toCollection().primaryKeys());
    const gone = (await leases.toArray()).filter(
      ({ lesson, until }) => !there.has(lesson) && Math.abs(now - until) > KEPT_FOR,
    );
    const left = [...(await moments.toCollection().primaryKeys())].filter((id) => !there.has(id));
    await leases.bulkDelete(gone.map(({ lesson }) => lesson));
    await moments.bulkDelete(left);
    await lessonFiles.bulkDelete(
      (await lessonFiles.toCollection().primaryKeys()).filter((id) => !there.has(id)),
    );
    for (const table of [journal, setAside]) {
      const ids = (await table.orderBy('lesson').uniqueKeys()) as string[];
      await table
        .where('lesson')
        .anyOf(ids.filter((id) => !there.has(id)))
        .delete();
    }
  });
}
