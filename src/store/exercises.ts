import type { Exercise } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { begunWork, renewedWork } from '@/core/exercise/begin';
import { isSealed } from '@/core/exercise/sealed';
import { exerciseFromJson, writeExercise } from '@/core/formats/exercise-file';
import { done, type Result, refused } from '@/core/values/result';
import { database, type ExerciseRecord, randomId } from './database';
import { openLesson, rawLesson, saveSnapshot } from './lessons';

/** An exercise that is kept here: being made, handed out, or marked. */
export interface KeptExercise {
  /** As it is now; it may have changed since it was handed out. */
  readonly exercise: Exercise;
  /** Ms since 1970; 0 where it never was. */
  readonly handedOut: number;
  /** The editions that were handed out, the last one behind. */
  readonly editions: readonly Exercise[];
}

const fileOf = (exercise: Exercise): unknown => JSON.parse(writeExercise(exercise));

function keptOf({ file, handedOut, editions }: ExerciseRecord): KeptExercise | null {
  const read = exerciseFromJson(file);
  if (!read.ok) return null;
  const older = (editions ?? (handedOut > 0 ? [file] : [])).flatMap((one) => {
    const edition = exerciseFromJson(one);
    return edition.ok ? [edition.value] : [];
  });
  return { exercise: read.value, handedOut, editions: older };
}

/** The exercise of that id, or null. */
export async function keptExercise(id: string): Promise<KeptExercise | null> {
  const record = await database.exercises.get(id);
  return record ? keptOf(record) : null;
}

/** All of them, the last first; unreadable ones are left out, and stay where they are. */
export async function keptExercises(): Promise<KeptExercise[]> {
  const records = await database.exercises.orderBy('handedOut').reverse().toArray();
  return records.flatMap((record) => keptOf(record) ?? []);
}

/** Keeps an exercise that is being made; what was handed out of it stays as it was. */
export async function saveExercise(exercise: Exercise): Promise<void> {
  const { exercises } = database;
  await database.transaction('rw', exercises, async () => {
    const before = await exercises.get(exercise.id);
    const kept = before && keptOf(before);
    await exercises.put({
      id: exercise.id,
      file: fileOf(exercise),
      handedOut: before?.handedOut ?? 0,
      editions: (kept?.editions ?? []).map(fileOf),
    });
  });
}

/** Whether two editions ask the same. */
const isSame = (a: Exercise, b: Exercise): boolean =>
  JSON.stringify({ ...a, edition: 0, made: '' }) === JSON.stringify({ ...b, edition: 0, made: '' });

/** Keeps an exercise as it is handed out: as the edition that was handed out last, or as a new one if it has changed. */
export async function handOut(exercise: Exercise): Promise<Exercise> {
  const { exercises } = database;
  return database.transaction('rw', exercises, async () => {
    const before = await exercises.get(exercise.id);
    const editions = (before && keptOf(before)?.editions) ?? [];
    const last = editions.at(-1);
    const isNew = !last || !isSame(last, exercise);
    const edition = last ? last.edition + 1 : exercise.edition;
    const out = isNew ? { ...exercise, edition, made: new Date().toISOString() } : last;
    await exercises.put({
      id: exercise.id,
      file: fileOf(out),
      handedOut: Date.now(),
      editions: [...editions, ...(isNew ? [out] : [])].map(fileOf),
    });
    return out;
  });
}

/** Keeps an exercise that came as a file, to mark it: the newest edition counts as it is now. */
export async function keepExercise(exercise: Exercise): Promise<void> {
  const { exercises } = database;
  await database.transaction('rw', exercises, async () => {
    const before = await exercises.get(exercise.id);
    const kept = before && keptOf(before);
    const same = kept?.editions.find((e) => e.edition === exercise.edition);
    // What was sealed when it was handed out is open here.
    const isKnown = same !== undefined && exercise.tasks.some(isSealed) && !same.tasks.some(isSealed);
    if (isKnown) return;
    const editions = [...(kept?.editions ?? []).filter((e) => e !== same), exercise].sort(
      (a, b) => a.edition - b.edition,
    );
    const now = kept && kept.exercise.edition > exercise.edition ? kept.exercise : exercise;
    await exercises.put({
      id: exercise.id,
      file: fileOf(now),
      handedOut: Date.now(),
      editions: editions.map(fileOf),
    });
  });
}

/** Takes an exercise off the shelf; the returned function puts it back. Its hand-ins stay. */
export async function removeExercise(id: string): Promise<() => Promise<void>> {
  const record = await database.exercises.get(id);
  await database.exercises.delete(id);
  return async () => {
    if (record) await database.exercises.put(record);
  };
}

/**
 * The student's work at an exercise: earlier work from this browser, or a sheet for each task. Earlier work that
 * cannot be read is refused with the code `damaged-work`, and is left as it is.
 */
export async function workAt(exercise: Exercise): Promise<Result<Lesson>> {
  const begun = await database.lessons.where('exerciseId').equals(exercise.id).first();
  const read = begun && (await openLesson(begun.id));
  if (!read) return done(await beginWork(exercise));
  if (read.ok) return done(await renewWork(read.value, exercise));
  return refused(
    'damaged-work',
    `your earlier work at this exercise cannot be opened: ${read.problem.message}`,
  );
}

/** Work at an earlier edition goes on with the newer one. */
async function renewWork(lesson: Lesson, exercise: Exercise): Promise<Lesson> {
  if (lesson.exercise && lesson.exercise.edition >= exercise.edition) return lesson;
  const renewed = renewedWork(lesson, exercise);
  await saveSnapshot(renewed);
  return renewed;
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
