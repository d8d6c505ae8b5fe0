import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { database, type MomentRecord } from './database';
import { markGone, mustHold } from './lease';
import { type Kept, putSnapshot } from './lessons';

/** The store as one tab that edits a lesson may use it: each write is refused once another tab has the lease. */
export class LessonStore {
  constructor(
    private readonly id: string,
    /** The number of the lease. */
    private readonly token: number,
  ) {}

  private check(): Promise<void> {
    return mustHold(this.id, this.token);
  }

  /**
   * Adds edits to the journal, all or none; resolves with the number of the last one when the browser has them.
   * @throws LeaseLost
   * @throws LessonGone
   */
  readonly journalEdits = async (edits: readonly Edit[]): Promise<number> => {
    const { journal, leases } = database;
    // Asked and written at once: the whole is refused where one of them is.
    return database.transaction('rw', journal, leases, async () => {
      const added = journal.bulkAdd(edits.map((edit) => ({ lesson: this.id, edit })) as never);
      const [last] = await Promise.all([added, this.check()]);
      return last;
    });
  };

  /**
   * Writes the lesson whole, and clears its journal up to the entry that it holds already.
   * @throws LeaseLost
   * @throws LessonGone
   */
  readonly saveSnapshot = async (lesson: Lesson, upTo = Number.POSITIVE_INFINITY): Promise<void> => {
    const { lessons, journal, leases } = database;
    await database.transaction('rw', [lessons, journal, leases], async () => {
      await this.check();
      await putSnapshot(lesson, upTo);
    });
  };

  /** Puts a lesson that was deleted elsewhere back on the shelf. @throws LeaseLost */
  async bringBack(lesson: Lesson): Promise<void> {
    const { lessons, journal, leases } = database;
    await database.transaction('rw', [lessons, journal, leases], async () => {
      await markGone(this.id, false);
      await this.check();
      await putSnapshot(lesson, Number.POSITIVE_INFINITY);
    });
  }

  /** @throws LeaseLost @throws LessonGone */
  async saveMoment(moment: MomentRecord): Promise<void> {
    const { moments, leases } = database;
    await database.transaction('rw', moments, leases, async () => {
      await this.check();
      await moments.put(moment);
    });
  }

  /** Replaces the journal by a snapshot when a lesson is opened; edits that no longer apply are set aside. @throws LeaseLost */
  async settleJournal({ lesson, aside, edits }: Kept): Promise<void> {
    if (edits === 0) return;
    const { lessons, journal, setAside, leases } = database;
    await database.transaction('rw', [lessons, journal, setAside, leases], async () => {
      await this.check();
      await setAside.bulkPut([...aside]);
      await putSnapshot(lesson, Number.POSITIVE_INFINITY);
    });
  }
}
