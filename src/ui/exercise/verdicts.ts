import type { Task } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import type { Verdicts } from '@/core/exercise/marking';
import { load } from '@/loading/load';

/** What the digests of some tasks say to a student's work; null where there are none. Fetches what hashes only then. */
export async function verdictsFor(tasks: readonly Task[], lesson: Lesson): Promise<Verdicts | null> {
  if (!tasks.some(({ digest }) => digest)) return null;
  const { verdictsOn } = await load('what checks answers', () => import('@/core/exercise/verdicts'));
  return verdictsOn(tasks, lesson);
}
