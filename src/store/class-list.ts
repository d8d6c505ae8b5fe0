import { ClassList } from '@/core/exercise/class-list';
import { database } from './database';
import { writeAtOnce } from './write-at-once';

const NAME = 'class list';

/** The class list of this browser, or null. */
export async function keptClassList(): Promise<ClassList | null> {
  const read = ClassList.safeParse((await database.marks.get(NAME))?.value);
  return read.success ? read.data : null;
}

/** Replaces the class list of this browser at once (see `writeAtOnce`); null removes it. */
export const saveClassList = (list: ClassList | null): Promise<void> =>
  writeAtOnce(
    ['marks'],
    (store) => (list ? store('marks').put({ name: NAME, value: list }) : store('marks').delete(NAME)),
    { table: 'marks', key: NAME },
  );
