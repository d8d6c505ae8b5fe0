import type { FileContent, ReadOptions, ReadPlace } from '@/core/formats/format';
import { done, type Result } from '@/core/values/result';
import { load } from '@/loading/load';
import type { FileWork } from './file-worker';
import { workerJob } from './worker-job';

const start = () => new Worker(new URL('./file-worker.ts', import.meta.url), { type: 'module' });

/**
 * Reads a file whose reading may take long, as laying out its sheets does.
 * @returns what it holds, and whether it is a file of Manege.
 */
export async function readInWorker(
  name: string,
  text: string,
  place: ReadPlace,
  { tell, ...options }: Omit<ReadOptions, 'title'>,
): Promise<{ read: Result<FileContent>; isOurs: boolean }> {
  const { read, isOurs, notes } = await workerJob<FileWork, Awaited<ReturnType<FileWork['read']>>>(
    start,
    (work) => work.read(name, text, place, options),
  ).result;
  for (const note of notes) tell?.(note);
  if (!read.ok) return { read, isOurs };
  const content = read.value;
  if (content.is !== 'lesson') return { read: done(content), isOurs };
  const { fromTransfer } = await load(
    'the reader of lessons',
    () => import('@/core/formats/lesson-transfer'),
  );
  return { read: done({ is: 'lesson', lesson: fromTransfer(content.lesson) }), isOurs };
}
