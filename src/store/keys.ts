import { type KeyPair, newKeyPair } from '@/core/sealing/seal';
import { database } from './database';

const OWN = 'sealing-keys';

/** The teacher's keys of this browser, or null before the first use. */
export async function ownKeys(): Promise<KeyPair | null> {
  return ((await database.marks.get(OWN))?.value as KeyPair | undefined) ?? null;
}

/** The teacher's keys of this browser; made at the first use. */
export async function ownKeysMade(): Promise<KeyPair> {
  return database.transaction('rw', database.marks, async () => {
    const there = await ownKeys();
    if (there) return there;
    const made = newKeyPair();
    await database.marks.put({ name: OWN, value: made });
    return made;
  });
}

/** Takes keys from a file in place of those of this browser. */
export async function takeKeys(keys: KeyPair): Promise<void> {
  await database.marks.put({ name: OWN, value: keys });
}
