import { leaseOf, takeLease } from '../lease';
import { LessonStore } from '../lesson-store';
import type { WriterSurroundings } from '../lesson-writer';

/** The store of a lesson, with a lease that ran out long ago and that nobody has taken since. */
export async function storeOf(lesson: string, holder = 'test'): Promise<LessonStore> {
  const seen = (await leaseOf(lesson))?.token ?? 0;
  return new LessonStore(lesson, (await takeLease(lesson, holder, seen, 0))!);
}

const FULL = Object.assign(new Error('full'), { name: 'QuotaExceededError' });

/** The store of the browser with writes that fail when a test wants them to, and pauses that end when it says so. */
export class FailingStore {
  private readonly pauses = new Set<() => void>();
  private writes: Promise<unknown>[] = [];

  readonly surroundings: WriterSurroundings;

  /** @param refuses is asked before each write. */
  constructor(
    store: LessonStore,
    private readonly refuses: () => boolean,
  ) {
    this.surroundings = {
      journalEdits: this.guarded(store.journalEdits),
      saveSnapshot: this.guarded(store.saveSnapshot),
      later: (work) => {
        this.pauses.add(work);
        return () => this.pauses.delete(work);
      },
    };
  }

  private guarded<A extends unknown[], T>(write: (...args: A) => Promise<T>): (...args: A) => Promise<T> {
    return (...args) => {
      const made = this.refuses() ? Promise.reject(FULL) : write(...args);
      this.writes.push(made.catch(() => {}));
      return made;
    };
  }

  /** Lets all writes that are under way end. */
  async rest(): Promise<void> {
    do {
      const { writes } = this;
      this.writes = [];
      await Promise.all(writes);
      await new Promise((resolve) => setImmediate(resolve));
    } while (this.writes.length > 0);
  }

  /** Lets the time come at which a write is tried again. */
  async endPauses(): Promise<void> {
    const due = [...this.pauses];
    this.pauses.clear();
    for (const work of due) work();
    await this.rest();
  }
}
