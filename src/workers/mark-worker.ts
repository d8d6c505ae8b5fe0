import '@/core/simulate/with-kernel';
import { expose } from 'comlink';
import type { Exercise } from '@/core/circuit/exercise';
import { type FoundHandIn, foundIn, marksIn, traitsOf } from '@/core/exercise/found';
import type { HandIn } from '@/core/exercise/hand-in';
import { asAsked, type Marked } from '@/core/exercise/marking';
import { verdictsOn } from '@/core/exercise/verdicts';
import { readHandIn } from '@/core/formats/hand-in-file';
import { type LikePair, likePairs } from '@/core/likeness/likeness';
import { textHash } from '@/core/values/text-hash';

/** A hand-in as it is kept. */
export interface KeptText {
  readonly key: number;
  readonly text: string;
}

/** What is found of a hand-in that is kept. */
export interface FoundKept {
  readonly key: number;
  readonly found: FoundHandIn;
}

/** An opened hand-in: its work and all findings. */
export interface OpenedHandIn {
  readonly handIn: HandIn;
  readonly marks: readonly Marked[];
}

/** What a text is that was dropped: a hand-in to that exercise; null for something else. */
export type Sorted = {
  readonly id: string;
  readonly exercise: HandIn['exercise'];
  /** What is found of it; null where its exercise is not known. */
  readonly found: FoundHandIn | null;
} | null;

/** An exercise by which hand-ins are marked as they come. */
export interface KnownExercise {
  readonly exercise: Exercise;
  readonly editions: readonly Exercise[];
}

async function opened(
  text: string,
  exercise: Exercise,
  editions: readonly Exercise[],
): Promise<OpenedHandIn | null> {
  const read = readHandIn(text);
  return read.ok ? marked(read.value, { exercise, editions }) : null;
}

async function marked(handIn: HandIn, { exercise, editions }: KnownExercise): Promise<OpenedHandIn> {
  const { tasks } = asAsked(exercise, editions, handIn.exercise.edition);
  const verdicts = await verdictsOn(tasks, handIn.lesson);
  return { handIn, marks: marksIn(handIn, exercise, editions, verdicts) };
}

let known: ReadonlyMap<string, KnownExercise> = new Map();

const work = {
  /** Makes exercises known, by which hand-ins are marked as they come. */
  know(exercises: readonly KnownExercise[]): void {
    known = new Map(exercises.map((one) => [one.exercise.id, one]));
  },

  /** Tells hand-ins from all else, and marks them. */
  async sort(texts: readonly string[]): Promise<Sorted[]> {
    const sorted: Sorted[] = [];
    for (const text of texts) {
      const read = text.includes('manege-hand-in') ? readHandIn(text) : null;
      if (!read?.ok) {
        sorted.push(null);
        continue;
      }
      const { exercise } = read.value;
      const id = textHash(text);
      const by = known.get(exercise.id);
      const one = by && (await marked(read.value, by));
      sorted.push({ id, exercise, found: one ? foundIn(id, one.handIn, one.marks) : null });
    }
    return sorted;
  },

  /** Marks hand-ins by what each of them was asked; what cannot be read is passed over. */
  async mark(
    handIns: readonly KeptText[],
    exercise: Exercise,
    editions: readonly Exercise[],
  ): Promise<FoundKept[]> {
    const found: FoundKept[] = [];
    for (const { key, text } of handIns) {
      const one = await opened(text, exercise, editions);
      if (one) found.push({ key, found: foundIn(textHash(text), one.handIn, one.marks) });
    }
    return found;
  },

  /** One hand-in to be looked at; null where it cannot be read. */
  open: opened,

  /** The pairs of a class that are more alike than chance would have it. */
  pairs: (class_: readonly FoundHandIn[]): LikePair[] =>
    likePairs(class_.map(({ answers }) => answers.map(traitsOf))),
};

export type MarkWork = typeof work;

expose(work);
