import type { Exercise } from '@/core/circuit/exercise';
import { emptyLesson, type Lesson } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';
import { database, type ExerciseRecord, type HandInRecord, randomId } from './database';
import { openLesson, saveSnapshot } from './lessons';

/** Keeps an exercise that was handed out or is to be marked here. */
export async function keepExercise(exercise: Exercise): Promise<void> {
  await database.exercises.put({ id: exercise.id, exercise, handedOut: Date.now() });
}

export async function keptExercises(): Promise<ExerciseRecord[]> {
  return database.exercises.orderBy('handedOut').reverse().toArray();
}

/** The student's work at an exercise: what was begun here before, or an empty sheet. */
export async function workAt(exercise: Exercise): Promise<Result<Lesson>> {
  const begun = await database.lessons.where('exerciseId').equals(exercise.id).first();
  const read = begun && (await openLesson(begun.id));
  if (read) return read;
  const lesson = { ...emptyLesson(randomId(), exercise.title), exercise };
  await saveSnapshot(lesson);
  return { ok: true, value: lesson };
}

export async function keptHandIns(exercise: string): Promise<HandInRecord[]> {
  return database.handIns.where('exercise').equals(exercise).toArray();
}

/** Keeps hand-ins of one exercise; gives them with their keys. */
export async function keepHandIns(
  exercise: string,
  files: readonly { file: string; text: string }[],
): Promise<void> {
  await database.handIns.bulkAdd(files.map((f) => ({ ...f, exercise })) as never);
}

/** Takes hand-ins off the page; calling what it gives puts them back. */
export async function dropHandIns(keys: readonly number[]): Promise<() => Promise<void>> {
  const records = (await database.handIns.bulkGet([...keys])).filter((r) => r !== undefined);
  await database.handIns.bulkDelete([...keys]);
  return async () => {
    await database.handIns.bulkPut(records);
  };
}
