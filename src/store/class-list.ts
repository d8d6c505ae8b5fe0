import { ClassList } from '@/core/exercise/class-list';
import { database } from './database';

const NAME = 'class list';

/** The class list of this browser, or null. */
export async function keptClassList(): Promise<ClassList | null> {
  const read = ClassList.safeParse((await database.marks.get(NAME))?.value);
  return read.success ? read.data : null;
}

/** Keeps a class list in place of the one before; null takes it away. */
export async function saveClassList(list: ClassList | null): Promise<void> {
  if (list) await database.marks.put({ name: NAME, value: list });
  else await database.marks.delete(NAME);
}
