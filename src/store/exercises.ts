import type { Exercise } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { begunWork, renewedWork } from '@/core/exercise/begin';
import { isSealed } from '@/core/exercise/sealed';
import { exerciseFromJson, writeExercise } from '@/core/formats/exercise-file';
import { done, type Result, refused } from '@/core/values/result';
import { database, type ExerciseDraftRecord, type ExerciseRecord, noteWork, randomId } from './database';
import { openLesson, saveSnapshot } from './lessons';
import { rawLesson } from './shelf';
import { putAtOnce } from './write-at-once';

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

/** The files of all editions of a record. Older records have no list: their own file is the only edition. */
const editionsIn = ({ file, handedOut, editions }: ExerciseRecord): readonly unknown[] =>
  editions ?? (handedOut > 0 ? [file] : []);

function keptOf(record: ExerciseRecord): KeptExercise | null {
  const { file, handedOut } = record;
  const read = exerciseFromJson(file);
  if (!read.ok) return null;
  const older = editionsIn(record).flatMap((one) => {
    const edition = exerciseFromJson(one);
    return edition.ok ? [edition.value] : [];
  });
  return { exercise: read.value, handedOut, editions: older };
}

/** The record of an exercise with the changes made since it was written; undefined where there is neither. */
async function recordOf(id: string): Promise<ExerciseRecord | undefined> {
  const [record, draft] = await Promise.all([database.exercises.get(id), database.exerciseDrafts.get(id)]);
  return drafted(record, draft);
}

const drafted = (
  record: ExerciseRecord | undefined,
  draft: ExerciseDraftRecord | undefined,
): ExerciseRecord | undefined => {
  if (!draft) return record;
  const { id, file } = draft;
  if (!record) return { id, file, handedOut: 0, editions: [] };
  return { id, file, handedOut: record.handedOut, editions: editionsIn(record) };
};

/** The records of all, the last handed out first, as they are now. */
async function records(): Promise<ExerciseRecord[]> {
  const [kept, drafts] = await Promise.all([
    database.exercises.orderBy('handedOut').reverse().toArray(),
    database.exerciseDrafts.toArray(),
  ]);
  const draftOf = new Map(drafts.map((draft) => [draft.id, draft]));
  const ids = new Set(kept.map(({ id }) => id));
  return [
    ...kept.map((record) => drafted(record, draftOf.get(record.id))!),
    ...drafts.filter(({ id }) => !ids.has(id)).map((draft) => drafted(undefined, draft)!),
  ];
}

/** Changes a record, whatever another tab made of it meanwhile, and all that was changed since it was written. */
function changeRecord<T>(id: string, change: (before: ExerciseRecord | undefined) => Promise<T>): Promise<T> {
  const { exercises, exerciseDrafts } = database;
  return database.transaction('rw', exercises, exerciseDrafts, async () => {
    const changed = await change(await recordOf(id));
    await exerciseDrafts.delete(id);
    return changed;
  });
}

/** Whether there is an exercise of that id. */
export const isExerciseKept = async (id: string): Promise<boolean> => (await recordOf(id)) !== undefined;

/** The exercises as their files, by id. */
export const exerciseFiles = async (): Promise<{ id: string; file: unknown }[]> =>
  (await records()).map(({ id, file }) => ({ id, file }));

/** The exercise of that id, or null. */
export async function keptExercise(id: string): Promise<KeptExercise | null> {
  const record = await recordOf(id);
  return record ? keptOf(record) : null;
}

/** All of them, the last first; unreadable ones are left out, and stay where they are. */
export const keptExercises = async (): Promise<KeptExercise[]> =>
  (await records()).flatMap((record) => keptOf(record) ?? []);

/** Keeps an exercise that is being made, at once (see `putAtOnce`); the editions that were handed out stay as they were. */
export const saveExercise = (exercise: Exercise): Promise<void> =>
  putAtOnce('exerciseDrafts', exercise.id, { id: exercise.id, file: fileOf(exercise) }).then(noteWork);

/** Whether two editions ask the same. */
const isSame = (a: Exercise, b: Exercise): boolean =>
  JSON.stringify({ ...a, edition: 0, made: '' }) === JSON.stringify({ ...b, edition: 0, made: '' });

/** Keeps an exercise as it is handed out: as the edition that was handed out last, or as a new one if it has changed. */
export function handOut(exercise: Exercise): Promise<Exercise> {
  return changeRecord(exercise.id, async (before) => {
    const editions = (before && keptOf(before)?.editions) ?? [];
    const last = editions.at(-1);
    const isNew = !last || !isSame(last, exercise);
    const edition = last ? last.edition + 1 : exercise.edition;
    const out = isNew ? { ...exercise, edition, made: new Date().toISOString() } : last;
    await database.exercises.put({
      id: exercise.id,
      file: fileOf(out),
      handedOut: Date.now(),
      editions: [...editions, ...(isNew ? [out] : [])].map(fileOf),
    });
    return out;
  });
}

/** Keeps an exercise that came as a file, to mark it: the newest edition counts as it is now. */
export function keepExercise(exercise: Exercise): Promise<void> {
  return changeRecord(exercise.id, async (before) => {
    const kept = before && keptOf(before);
    const same = kept?.editions.find((e) => e.edition === exercise.edition);
    // What was sealed when it was handed out is open here.
    const isKnown = same !== undefined && exercise.tasks.some(isSealed) && !same.tasks.some(isSealed);
    if (isKnown) {
      await database.exercises.put(before!);
      return;
    }
    const editions = [...(kept?.editions ?? []).filter((e) => e !== same), exercise].sort(
      (a, b) => a.edition - b.edition,
    );
    const now = kept && kept.exercise.edition > exercise.edition ? kept.exercise : exercise;
    await database.exercises.put({
      id: exercise.id,
      file: fileOf(now),
      handedOut: Date.now(),
      editions: editions.map(fileOf),
    });
  });
}

/** Takes an exercise off the shelf; the returned function puts it back. Its hand-ins stay. */
export async function removeExercise(id: string): Promise<() => Promise<void>> {
  const record = await changeRecord(id, async (before) => {
    await database.exercises.delete(id);
    return before;
  });
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
