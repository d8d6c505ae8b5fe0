import Dexie, { RangeSet } from 'dexie';
import { database } from './database';

/** A key whose observers must query again: a table, one of its indexes (none for the primary key), a value. */
export interface ChangedKey {
  readonly table: string;
  readonly index?: string | undefined;
  readonly key: string;
}

/** Makes the requests of a write, at once. @param store the stores of its tables, by name. */
export type WriteAtOnce = (store: (table: string) => IDBObjectStore) => void;

/**
 * Writes to the store. All of it leaves the page before the call returns, so that it is kept even if the page ends in the next
 * moment; it is written behind what earlier calls wrote. It may ask for nothing that is kept: waiting for the answer, it would be
 * lost with the page.
 * @param tables the names of the tables to which it writes.
 * @param changed the key whose watchers are told once the write is complete.
 * @param refusal asked after a write that failed; what it rejects with replaces the browser's own error.
 * @throws DatabaseClosedError, or the browser's error: QuotaExceededError where the disk is full.
 */
export function writeAtOnce(
  tables: readonly string[],
  write: WriteAtOnce,
  changed: ChangedKey,
  refusal: () => Promise<void> | undefined = () => undefined,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const store = database.backendDB();
    if (!store) throw new Dexie.DatabaseClosedError();
    const transaction = store.transaction([...tables], 'readwrite', { durability: 'relaxed' });
    transaction.oncomplete = () => {
      const { table, index = '', key } = changed;
      Dexie.on.storagemutated.fire({ [`idb://${database.name}/${table}/${index}`]: new RangeSet(key) });
      resolve();
    };
    transaction.onabort = () => {
      const failed = () =>
        reject(transaction.error ?? new DOMException('the write was given up', 'AbortError'));
      Promise.resolve(refusal()).then(failed, reject);
    };
    try {
      write((table) => transaction.objectStore(table));
      transaction.commit();
    } catch (error) {
      transaction.abort();
      throw error;
    }
  });
}

/** Puts a record in the place of the one of the same key; see `writeAtOnce`. */
export const putAtOnce = (table: string, key: string, record: unknown): Promise<void> =>
  writeAtOnce([table], (store) => store(table).put(record), { table, key });
