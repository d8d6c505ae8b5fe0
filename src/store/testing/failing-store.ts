import type { WriterSurroundings } from '../lesson-writer';
import { journalEdits, saveSnapshot } from '../lessons';

const FULL = Object.assign(new Error('full'), { name: 'QuotaExceededError' });

/** The store of the browser with writes that fail when a test wants them to, and pauses that end when it says so. */
export class FailingStore {
  private readonly pauses = new Set<() => void>();
  private writes: Promise<unknown>[] = [];

  /** @param refuses is asked before each write. */
  constructor(private readonly refuses: () => boolean) {}

  readonly surroundings: WriterSurroundings = {
    journalEdits: this.guarded(journalEdits),
    saveSnapshot: this.guarded(saveSnapshot),
    later: (work) => {
      this.pauses.add(work);
      return () => this.pauses.delete(work);
    },
  };

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
