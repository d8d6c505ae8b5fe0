import type { Returned } from '@/core/exercise/returned';
import { readReturned, writeReturned } from '@/core/formats/returned-file';
import { database } from './database';

/** Keeps work that came back; what came back before for the same exercise goes. */
export async function keepReturned(returned: Returned): Promise<void> {
  await database.returned.put({ exercise: returned.lesson.exercise!.id, text: writeReturned(returned) });
}

/** The work that came back for an exercise, or null. */
export async function keptReturned(exercise: string): Promise<Returned | null> {
  const record = await database.returned.get(exercise);
  const read = record && readReturned(record.text);
  return read?.ok ? read.value : null;
}
