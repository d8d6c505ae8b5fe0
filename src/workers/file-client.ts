import type { FileContent, ReadOptions } from '@/core/formats/format';
import type { KnownFile } from '@/core/formats/read-content';
import type { Result } from '@/core/values/result';
import type { FileWork } from './file-worker';
import { workerJob } from './worker-job';

const start = () => new Worker(new URL('./file-worker.ts', import.meta.url), { type: 'module' });

/** Reads a file whose reading may take long, as laying out its sheets does. */
export const readInWorker = (
  { format, text, json }: KnownFile,
  { tell, ...options }: ReadOptions,
): Promise<Result<FileContent>> =>
  workerJob<FileWork, Result<FileContent>>(start, async (work) => {
    const { read, notes } = await work.read(format.id, text, json, options);
    for (const note of notes) tell?.(note);
    return read;
  }).result;
