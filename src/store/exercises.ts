import type { Exercise } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { begunWork } from '@/core/exercise/begin';
import { exerciseFromJson, writeExercise } from '@/core/formats/exercise-file';
import { done, type Result, refused } from '@/core/values/result';
import { database, type HandInRecord, randomId } from './database';
import { openLesson, rawLesson, saveSnapshot } from './lessons';

/** An exercise that was handed out or is marked here. */
export interface KeptExercise {
  readonly exercise: Exercise;
  /** Ms since 1970. */
  readonly handedOut: number;
}

/** Keeps an exercise that was handed out or is marked here. */
export async function keepExercise(exercise: Exercise): Promise<void> {
  const file: unknown = JSON.parse(writeExercise(exercise));
  await database.exercises.put({ id: exercise.id, file, handedOut: Date.now() });
}

/** All of them, the last first; unreadable ones are left out, and stay where they are. */
export async function keptExercises(): Promise<KeptExercise[]> {
  const records = await database.exercises.orderBy('handedOut').reverse().toArray();
  return records.flatMap(({ file, handedOut }) => {
    const read = exerciseFromJson(file);
    return read.ok ? [{ exercise: read.value, handedOut }] : [];
  });
}

/**
 * The student's work at an exercise: earlier work from this browser, or a sheet for each task. Earlier work that
 * cannot be read is refused with the code `damaged-work`, and is left as it is.
 */
export async function workAt(exercise: Exercise): Promise<Result<Lesson>> {
  const begun = await database.lessons.where('exerciseId').equals(exercise.id).first();
  const read = begun && (await openLesson(begun.id));
  if (!read) return done(await beginWork(exercise));
  if (read.ok) return read;
  return refused(
    'damaged-work',
    `your earlier work at this exercise cannot be opened: ${read.problem.message}`,
  );
}

async function beginWork(exercise: Exercise): Promise<Lesson> {
  const lesson = begunWork(exercise, randomId());
  await saveSnapshot(lesson);
  return lesson;
}

/** Begins work at an exercise again, and leaves damaged earlier work on the shelf as a lesson of its own. */
export async function beginAgain(exercise: Exercise): Promise<Lesson> {
  await database.lessons.where('exerciseId').equals(exercise.id).modify({ exerciseId: '' });
  return beginWork(exercise);
}

/** The damaged work at an exercise as the browser holds it. */
export async function rawWork(exercise: Exercise): Promise<unknown> {
  const begun = await database.lessons.where('exerciseId').equals(exercise.id).first();
  return begun && rawLesson(begun.id);
}

export async function keptHandIns(exercise: string): Promise<HandInRecord[]> {
  return database.handIns.where('exercise').equals(exercise).toArray();
}

/** Keeps hand-ins of one exercise, each only once. @returns how many were not here yet. */
export async function keepHandIns(
  exercise: string,
  files: readonly { file: string; text: string }[],
): Promise<number> {
  const { handIns } = database;
  return database.transaction('rw', handIns, async () => {
    const known = new Set((await keptHandIns(exercise)).map((h) => h.text));
    const fresh = files.filter(({ text }) => !known.has(text) && known.add(text));
    await handIns.bulkAdd(fresh.map((f) => ({ ...f, exercise })) as never);
    return fresh.length;
  });
}

/** Removes hand-ins from the page; the returned function puts them back. */
export async function dropHandIns(keys: readonly number[]): Promise<() => Promise<void>> {
  const records = (await database.handIns.bulkGet([...keys])).filter((r) => r !== undefined);
  await database.handIns.bulkDelete([...keys]);
  return async () => {
    await database.handIns.bulkPut(records);
  };
}
