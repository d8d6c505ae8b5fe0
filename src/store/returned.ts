import type { HandIn } from '@/core/exercise/hand-in';
import type { Returned } from '@/core/exercise/returned';
import { readReturned, writeReturned } from '@/core/formats/returned-file';
import { done, type Result, refused } from '@/core/values/result';
import { database } from './database';
import { openLesson } from './lessons';

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

/**
 * Keeps a hand-in to be looked at again by the student whose work it is.
 * @returns the id under which it is found; refused where no work at its exercise is in this browser.
 */
export async function keepHanded(handIn: HandIn): Promise<Result<string>> {
  const { id } = handIn.exercise;
  const own = await database.lessons.where('exerciseId').equals(id).first();
  const work = own && (await openLesson(own.id));
  const exercise = work?.ok ? work.value.exercise : null;
  if (!exercise)
    return refused(
      'no-work',
      `no work of yours at “${handIn.exercise.title}” is in this browser; to mark it, drop it on the marking page`,
    );
  const { name, handedIn, lesson } = handIn;
  const key = `handed ${id}`;
  const text = writeReturned({
    name,
    handedIn,
    returned: handedIn,
    tasks: {},
    lesson: { ...lesson, exercise },
  });
  await database.returned.put({ exercise: key, text });
  return done(key);
}
