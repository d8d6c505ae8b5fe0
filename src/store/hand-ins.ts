import type { FoundHandIn } from '@/core/exercise/found';
import { textHash } from '@/core/values/text-hash';
import { nextTask } from '@/loading/next-task';
import { database, type HandInRecord } from './database';

/*
 * The hand-ins that a teacher has taken in, and what was found of them. Their texts are large: they are read only where they are
 * needed.
 */

/** A hand-in that is kept, without its text. */
export interface KeptHandIn {
  readonly key: number;
  /** The hash of its text. */
  readonly hash: string;
}

/** The hand-ins of an exercise, in the order in which they came. */
export async function keptHandIns(exercise: string): Promise<KeptHandIn[]> {
  const those = database.handIns
    .where('[exercise+hash]')
    .between([exercise, ''], [exercise, '\uffff'], true, true);
  // Only the index is read; both lists are in its order.
  const [keys, names] = await Promise.all([those.primaryKeys(), those.keys()]);
  return keys
    .map((key, i) => ({ key, hash: (names as unknown as [string, string][])[i]![1] }))
    .sort((a, b) => a.key - b.key);
}

/** The texts of hand-ins. */
export async function handInTexts(keys: readonly number[]): Promise<{ key: number; text: string }[]> {
  const records = await database.handIns.bulkGet([...keys]);
  return records.flatMap((record) => (record ? [{ key: record.key, text: record.text }] : []));
}

/** Hand-ins that are written at once. */
const AT_ONCE = 12;

/** Keeps hand-ins of one exercise, each only once. @param files with the hashes of their texts, where those are known. @returns how many were not here yet. */
export async function keepHandIns(
  exercise: string,
  files: readonly { file: string; text: string; hash?: string }[],
): Promise<number> {
  const { handIns } = database;
  let kept = 0;
  for (let from = 0; from < files.length; from += AT_ONCE) {
    // Handing over hundreds of texts would hold the page up.
    if (from > 0) await nextTask();
    const some = files.slice(from, from + AT_ONCE).map(({ file, text, hash }) => ({
      file,
      text,
      exercise,
      hash: hash ?? textHash(text),
    }));
    kept += await database.transaction('rw', handIns, async () => {
      const known = new Set((await keptHandIns(exercise)).map(({ hash }) => hash));
      const fresh = some.filter(({ hash }) => !known.has(hash) && known.add(hash));
      await handIns.bulkAdd(fresh as HandInRecord[]);
      return fresh.length;
    });
  }
  return kept;
}

/** Removes hand-ins from the page, with all that was found of them; the returned function puts them back. */
export async function dropHandIns(keys: readonly number[]): Promise<() => Promise<void>> {
  const { handIns, found } = database;
  return database.transaction('rw', handIns, found, async () => {
    const records = (await handIns.bulkGet([...keys])).filter((r) => r !== undefined);
    await handIns.bulkDelete([...keys]);
    await found
      .where('id')
      .anyOf(records.map(({ hash }) => hash))
      .delete();
    return async () => {
      await handIns.bulkPut(records);
    };
  });
}

/** Another build may find something else. */
const stamped = (by: string): string => `${process.env.MARKING ?? ''} ${by}`;

/** What was found of hand-ins before, by their hashes. @param by the tasks by which they are marked. */
export async function foundBefore(by: string, hashes: readonly string[]): Promise<Map<string, FoundHandIn>> {
  const records = await database.found.bulkGet(hashes.map((hash) => [stamped(by), hash]));
  return new Map(records.flatMap((record) => (record ? [[record.id, record.found as FoundHandIn]] : [])));
}

/** Keeps findings, replacing those of an earlier edition of the tasks. */
export async function keepFound(by: string, all: readonly FoundHandIn[]): Promise<void> {
  const { found } = database;
  await database.transaction('rw', found, async () => {
    await found
      .where('id')
      .anyOf(all.map(({ id }) => id))
      .delete();
    await found.bulkPut(all.map((one) => ({ by: stamped(by), id: one.id, found: one })));
  });
}
