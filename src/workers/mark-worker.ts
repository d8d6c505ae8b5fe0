import { expose } from 'comlink';
import type { Exercise } from '@/core/circuit/exercise';
import type { HandIn } from '@/core/exercise/hand-in';
import { asAsked, circuitDrawn, type Marked, markAll, saidBy } from '@/core/exercise/marking';
import { verdictsOn } from '@/core/exercise/verdicts';
import { readHandIn } from '@/core/formats/hand-in-file';
import { textHash } from '@/core/values/text-hash';

/** A hand-in as it is kept. */
export interface KeptText {
  readonly key: number;
  readonly file: string;
  readonly text: string;
}

/** A hand-in with its marks. */
export interface MarkedHandIn {
  readonly key: number;
  readonly file: string;
  /** The hash of what was handed in. */
  readonly id: string;
  readonly handIn: HandIn;
  readonly marks: readonly Marked[];
  /** By the tasks the hashes of what the answers say; null where nothing was done. */
  readonly said: readonly (string | null)[];
  /** By the tasks the signatures of the circuits that were built; null where none was, or none is asked for. */
  readonly drawn: readonly (string | null)[];
}

const work = {
  /** Marks hand-ins one after the other, each told as it is done; what cannot be read is passed over. */
  async mark(
    handIns: readonly KeptText[],
    exercise: Exercise,
    editions: readonly Exercise[],
    tell: (marked: MarkedHandIn) => unknown,
  ): Promise<void> {
    // Calls of the page come to it by themselves: the work ends when it has had them all.
    const told: unknown[] = [];
    for (const { key, file, text } of handIns) {
      const read = readHandIn(text);
      if (!read.ok) continue;
      const handIn = read.value;
      const asked = asAsked(exercise, editions, handIn.exercise.edition);
      const verdicts = await verdictsOn(asked.tasks, handIn.lesson);
      const marks = markAll(asked, handIn.lesson, verdicts);
      told.push(
        tell({
          key,
          file,
          id: textHash(text),
          handIn,
          marks,
          said: marks.map(saidBy),
          drawn: asked.tasks.map((task) => circuitDrawn(task, handIn.lesson)),
        }),
      );
    }
    await Promise.all(told);
  },
};

export type MarkWork = typeof work;

expose(work);
