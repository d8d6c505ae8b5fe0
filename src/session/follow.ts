import { liveQuery } from 'dexie';
import type { Lesson } from '@/core/circuit/lesson';
import { isOnShelf, readKept, stampOf } from '@/store/lessons';

/** Something that is watched until it is ended. */
export interface Watch {
  end(): void;
}

/** Tells whether a lesson is on the shelf: at once, and whenever a tab may have changed it. */
export function watchWhetherThere(id: string, tell: (isThere: boolean) => void): Watch {
  const watching = liveQuery(() => isOnShelf(id)).subscribe({
    next: tell,
    // A store that fails now is told of by the writes.
    error: () => {},
  });
  return { end: () => watching.unsubscribe() };
}

/**
 * Tells a kept lesson as it is: at once, and after each change made by a tab; null once it is deleted. Changes that arrive
 * during a reading are told together.
 */
export function watchKept(id: string, tell: (lesson: Lesson | null) => void): Watch {
  let isEnded = false;
  let isReading = false;
  let isBehind = false;
  const look = async () => {
    isBehind = true;
    if (isReading) return;
    isReading = true;
    while (isBehind && !isEnded) {
      isBehind = false;
      const read = await readKept(id).catch(() => undefined);
      // One that cannot be read now stays as it was told until its next change.
      if (!isEnded && (read === null || read?.ok)) tell(read === null ? null : read.value.lesson);
    }
    isReading = false;
  };
  const watching = liveQuery(() => stampOf(id)).subscribe({ next: () => void look(), error: () => {} });
  return {
    end: () => {
      isEnded = true;
      watching.unsubscribe();
    },
  };
}
