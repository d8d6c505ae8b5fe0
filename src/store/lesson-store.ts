import Dexie, { RangeSet } from 'dexie';
import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { database, type JournalPlace, type MomentRecord, noteWork } from './database';
import { markGone, mustHold } from './lease';
import { type Kept, putSnapshot } from './lessons';

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
   * Adds edits to the journal, all or none; resolves with the number of the last one when the browser has them. All of it
   * leaves the page before the call returns, so that the edits are kept even if the page ends in the next moment; they are
   * written behind those of earlier calls.
   * @throws LeaseLost
   * @throws LessonGone
   */
  readonly journalEdits = (edits: readonly Edit[]): Promise<number> => {
    const { id: lesson, token } = this;
    const records = edits.map((edit) => ({ lesson, edit, place: { token, edits: this.edits++ } }));
    return new Promise((resolve, reject) => {
      const store = database.backendDB();
      if (!store) throw new Dexie.DatabaseClosedError();
      // Without the leases: renewing one would keep the edits waiting.
      const write = store.transaction(['journal', 'fences'], 'readwrite', { durability: 'relaxed' });
      const journal = write.objectStore('journal');
      let last = 0;
      let isFenced = false;
      write.oncomplete = () => {
        // Dexie is told, so that whoever watches the lesson looks again.
        Dexie.on.storagemutated.fire({ [`idb://${database.name}/journal/lesson`]: new RangeSet(lesson) });
        noteWork();
        resolve(last);
      };
      write.onabort = () => {
        const failed = () => reject(write.error ?? new DOMException('the write was given up', 'AbortError'));
        if (isFenced) mustHold(lesson, token).then(failed, reject);
        else failed();
      };
      try {
        const fence = write.objectStore('fences').add({ lesson, token: token + 1 });
        fence.onerror = () => {
          isFenced = true;
        };
        write.objectStore('fences').delete([lesson, token + 1]);
        for (const record of records)
          journal.add(record).onsuccess = ({ target }) => {
            last = (target as IDBRequest<number>).result;
          };
        write.commit();
      } catch (error) {
        write.abort();
        throw error;
      }
    });
  };

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
    const { next } = this;
    const { lessons, journal, setAside, leases } = database;
    await database.transaction('rw', [lessons, journal, setAside, leases], async () => {
      await this.check();
      await setAside.bulkPut([...aside]);
      await putSnapshot(lesson, Number.POSITIVE_INFINITY, next);
    });
  }
}
