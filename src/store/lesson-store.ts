import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { database, type JournalPlace, type MomentRecord, noteWork } from './database';
import { markGone, mustHold } from './lease';
import { type Kept, putSnapshot } from './lessons';
import { type WriteAtOnce, writeAtOnce } from './write-at-once';

/** The store as one tab that edits a lesson may use it: each write is refused once another tab has the lease. */
export class LessonStore {
  /** Edits that were handed to the journal, kept or not. */
  private edits = 0;

  constructor(
    private readonly id: string,
    /** The number of the lease. */
    readonly token: number,
  ) {}

  private check(): Promise<void> {
    return mustHold(this.id, this.token);
  }

  private get next(): JournalPlace {
    return { token: this.token, edits: this.edits };
  }

  /**
   * Adds edits to the journal, all or none; resolves with the number of the last one when the browser has them; see
   * `writeAtOnce`.
   * @throws LeaseLost
   * @throws LessonGone
   */
  readonly journalEdits = (edits: readonly Edit[]): Promise<number> => {
    const { id: lesson, token } = this;
    const records = edits.map((edit) => ({ lesson, edit, place: { token, edits: this.edits++ } }));
    let last = 0;
    const write: WriteAtOnce = (store) => {
      for (const record of records)
        store('journal').add(record).onsuccess = ({ target }) => {
          last = (target as IDBRequest<number>).result;
        };
    };
    return this.fenced('journal', write, 'lesson').then(() => {
      noteWork();
      return last;
    });
  };

  /** Keeps switches and tried rows; see `writeAtOnce`. @throws LeaseLost @throws LessonGone */
  readonly saveMoment = (moment: MomentRecord): Promise<void> =>
    this.fenced('moments', (store) => store('moments').put(moment));

  /**
   * Writes at once to one table, or not at all where another tab has the lease. It does without the leases: renewing one would keep
   * the write waiting.
   * @param index the index of the table that has the id of the lesson; none for its key.
   */
  private fenced(table: string, write: WriteAtOnce, index?: string): Promise<void> {
    const { id: lesson, token } = this;
    let isFenced = false;
    return writeAtOnce(
      [table, 'fences'],
      (store) => {
        const fences = store('fences');
        fences.add({ lesson, token: token + 1 }).onerror = () => {
          isFenced = true;
        };
        fences.delete([lesson, token + 1]);
        write(store);
      },
      { table, index, key: lesson },
      () => (isFenced ? mustHold(lesson, token) : undefined),
    );
  }

  /**
   * Writes the lesson whole, and clears its journal up to the entry that it holds already.
   * @throws LeaseLost
   * @throws LessonGone
   */
  readonly saveSnapshot = async (lesson: Lesson, upTo = Number.POSITIVE_INFINITY): Promise<void> => {
    const { next } = this;
    const { lessons, journal, leases } = database;
    await database.transaction('rw', [lessons, journal, leases], async () => {
      await this.check();
      await putSnapshot(lesson, upTo, next);
    });
  };

  /** Puts a lesson that was deleted elsewhere back on the shelf. @throws LeaseLost */
  async bringBack(lesson: Lesson): Promise<void> {
    const { next } = this;
    const { lessons, journal, leases, fences } = database;
    await database.transaction('rw', [lessons, journal, leases, fences], async () => {
      await markGone(this.id, false);
      await this.check();
      await putSnapshot(lesson, Number.POSITIVE_INFINITY, next);
    });
  }

  /** Replaces the journal by a snapshot when a lesson is opened; edits that no longer apply are set aside. @throws LeaseLost */
  async settleJournal({ lesson, aside, edits }: Kept): Promise<void> {
    if (edits === 0) return;
    const { next } = this;
    const { lessons, journal, setAside, leases } = database;
    await database.transaction('rw', [lessons, journal, setAside, leases], async () => {
      await this.check();
      await setAside.bulkPut([...aside]);
      await putSnapshot(lesson, Number.POSITIVE_INFINITY, next);
    });
  }
}
