import { markedBy } from '@/core/exercise/found';
import { type HandIn, handInOfLesson } from '@/core/exercise/hand-in';
import { together } from '@/core/exercise/teacher-marks';
import { writeHandIn } from '@/core/formats/hand-in-file';
import type { MarkingFile } from '@/core/formats/marking-file';
import type { KeyPair } from '@/core/sealing/seal';
import { counted, listed } from '@/core/values/wording';
import { load } from '@/loading/load';
import { nextTask } from '@/loading/next-task';
import { changeMarks } from '@/store/class-marks';
import { type KeptExercise, keepExercise, keptExercises } from '@/store/exercises';
import { keepFound, keepHandIns } from '@/store/hand-ins';
import { ownKeys } from '@/store/keys';
import { readContent } from '@/ui/controls/read-content';
import { isArchive, type ReadFile, readFile } from '@/ui/controls/read-files';
import { sorter } from '@/workers/mark-client';
import type { LeftOut } from './LeftOutFiles';
import { openedHere } from './Unseal';

/** What came of files that were dropped or chosen. */
export interface TakenIn {
  readonly exercises: readonly KeptExercise[];
  /** The exercise that is to be shown now; null where there is none. */
  readonly show: KeptExercise | null;
  readonly leftOut: readonly LeftOut[];
  /** Markings that are sealed to another key than that of this browser. */
  readonly sealed: readonly DroppedMarking[];
  /** A sentence or two about it; empty where there is nothing to say. */
  readonly text: string;
  /** The hash of the text, where it is known. */
  readonly hash?: string;
}

/** The name of a file without its folders and endings. */
const studentIn = (file: string): string => file.replace(/^.*\//, '').replace(/(\.manege)?\.json$/i, '');

/** A hand-in whose exercise is not here, or not yet. */
interface Waiting {
  readonly file: string;
  readonly of: HandIn['exercise'];
  readonly text: string;
}

/** How files that are taken in are told of meanwhile. */
export interface TellTaking {
  /** How many of them are read. */
  readonly read: (done: number, of: number) => void;
  /** There are more hand-ins of an exercise, marked already. */
  readonly more: (exercise: KeptExercise) => Promise<void>;
  /** Ends the reading: what was taken in until then stays. */
  readonly stop: AbortSignal;
}

/**
 * Takes files in: hand-ins go to their own exercises, whichever is shown, and are marked as they come; those that are dropped
 * together with their exercise find it. What cannot be taken is named with the reason, and the rest goes on.
 * @param shown the exercise that is shown.
 */
export async function takeIn(
  dropped: readonly (File | ReadFile)[],
  shown: string | null,
  tell: TellTaking,
): Promise<TakenIn> {
  const out: LeftOut[] = [];
  const markings: DroppedMarking[] = [];
  const waiting: Waiting[] = [];
  const [first, rest] = await unpacked(dropped);
  let chosen = shown;
  const takeOther = async (file: ReadFile) => {
    await nextTask();
    const read = await readContent(file, 'marking');
    if (!read.ok) out.push({ file: file.name, problem: read.problem.message });
    else if (read.value.is === 'exercise') {
      const opened = await openedHere(read.value.exercise);
      await keepExercise(opened);
      chosen = opened.id;
    } else if (read.value.is === 'marking') markings.push({ file: file.name, marking: read.value.marking });
    else if (read.value.is === 'hand-in' && file.text.ok)
      waiting.push({ file: file.name, of: read.value.handIn.exercise, text: file.text.value });
    else if (read.value.is === 'lesson') {
      // A student's saved lesson will do as well; its file says whose it is.
      const handIn = handInOfLesson(read.value.lesson, studentIn(file.name), new Date());
      if (handIn) waiting.push({ file: file.name, of: handIn.exercise, text: writeHandIn(handIn) });
      else out.push({ file: file.name, problem: 'it is a lesson that answers no exercise' });
    }
  };
  for (const file of first) await takeOther(file);
  const before = await keptExercises();
  const files: ReadFile[] = [];
  const textOf = async (at: number): Promise<string> => {
    const one = rest[at]!;
    await nextTask();
    const [file] = one instanceof File ? await readFile(one) : [one];
    files[at] = file!;
    return file!.text.ok ? file!.text.value : '';
  };
  const others: ReadFile[] = [];
  const ids = new Set<string>();
  let [all, fresh, done] = [0, 0, 0];
  const keep = async (id: string, some: readonly { file: string; text: string; hash?: string }[]) => {
    ids.add(id);
    all += some.length;
    // Several of these go on at once: the sum is read when it is added to.
    const more = await keepHandIns(id, some);
    fresh += more;
  };
  const job = sorter(rest.length, textOf, before, async (numbers, sorted) => {
    const found = numbers.map((at, i) => ({ file: files[at]!, sorted: sorted[i]! }));
    for (const { file, sorted } of found)
      if (!sorted) others.push(file);
      else if (!sorted.found)
        waiting.push({ file: file.name, of: sorted.exercise, text: file.text.ok ? file.text.value : '' });
    for (const kept of before) {
      const { id } = kept.exercise;
      const own = found.filter(({ sorted }) => sorted?.found && sorted.exercise.id === id);
      if (own.length === 0) continue;
      await keepFound(
        markedBy(kept.exercise, kept.editions),
        own.map(({ sorted }) => sorted!.found!),
      );
      await keep(
        id,
        own.map(({ file, sorted }) => ({
          file: file.name,
          text: file.text.ok ? file.text.value : '',
          hash: sorted!.id,
        })),
      );
      if (id === chosen || ids.size === 1) await tell.more(kept);
    }
    // What is kept need not be held here as well.
    for (const at of numbers) delete files[at];
    done += numbers.length;
    // What was under way when it was stopped may come after the end.
    if (!tell.stop.aborted) tell.read(done, rest.length);
  });
  await Promise.race([
    job.result,
    new Promise<void>((end) => {
      tell.stop.addEventListener('abort', () => {
        job.cancel();
        end();
      });
    }),
  ]);
  for (const file of others) await takeOther(file);
  const { taken, out: unread, sealed } = await takeMarkings(markings);
  out.push(...unread);
  const exercises = await keptExercises();
  const titleOf = (id: string) => exercises.find((e) => e.exercise.id === id)?.exercise.title;
  // Those of an exercise that is not here are named.
  for (const { file, of, text } of waiting)
    if (titleOf(of.id) !== undefined) await keep(of.id, [{ file, text }]);
    else
      out.push({ file, problem: `its exercise, “${of.title}”, is not here: drop the exercise file as well` });
  // One that is shown stays; else the one that has hand-ins now.
  const isFor = chosen !== null && (ids.size === 0 || ids.has(chosen));
  const id = isFor ? chosen : ([...ids][0] ?? chosen);
  const elsewhere = [...ids].filter((other) => other !== id);
  const again = all - fresh;
  const told = [
    takenText(taken),
    fresh > 0 && `${counted(fresh, 'hand-in')} taken in.`,
    elsewhere.length > 0 &&
      `Some of them answer ${listed(elsewhere.map((one) => `“${titleOf(one)}”`))}: choose it above.`,
    again > 0 && `${counted(again, 'hand-in')} ${again === 1 ? 'was' : 'were'} here already.`,
  ];
  return {
    exercises,
    show: exercises.find((e) => e.exercise.id === id) ?? null,
    leftOut: out,
    sealed,
    text: told.filter(Boolean).join(' '),
  };
}

/** The files that were dropped, those of archives one by one: first those that are exercises by their names. */
async function unpacked(
  dropped: readonly (File | ReadFile)[],
): Promise<readonly [first: ReadFile[], rest: (File | ReadFile)[]]> {
  const first: ReadFile[] = [];
  const rest: (File | ReadFile)[] = [];
  const isFirst = ({ name }: { readonly name: string }) => /\.exercise(\.json)?$/i.test(name);
  for (const one of dropped) {
    const files = one instanceof File && (isArchive(one) || isFirst(one)) ? await readFile(one) : [one];
    for (const file of files)
      if (!(file instanceof File) && isFirst(file)) first.push(file);
      else rest.push(file);
  }
  return [first, rest];
}

/** A marking that came as a file. */
export interface DroppedMarking {
  readonly file: string;
  readonly marking: MarkingFile;
}

/**
 * Takes markings of another marker, or of another computer, in beside what was given here.
 * @param keys open those that are sealed; null for the keys of this browser.
 * @returns how many, and those that other keys open.
 */
export async function takeMarkings(
  markings: readonly DroppedMarking[],
  keys: KeyPair | null = null,
): Promise<{ readonly taken: number; readonly out: LeftOut[]; readonly sealed: DroppedMarking[] }> {
  const out: LeftOut[] = [];
  const sealed: DroppedMarking[] = [];
  let taken = 0;
  for (const dropped of markings) {
    const { file, marking } = dropped;
    const { marksIn } = await load('the reader of a marking', () => import('@/core/formats/marking-file'));
    const read = marksIn(marking, keys ?? (await ownKeys()));
    if (read.ok) {
      await changeMarks(marking.exercise.id, (here) => together(here, read.value));
      taken++;
    } else if (read.problem.code === 'other-key') sealed.push(dropped);
    else out.push({ file, problem: read.problem.message });
  }
  return { taken, out, sealed };
}

/** What is said of markings that were taken in; empty for none. */
export const takenText = (count: number): string =>
  count > 0 ? `${counted(count, 'marking')} taken in beside what was given here.` : '';
