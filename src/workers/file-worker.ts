import { expose } from 'comlink';
import type { FileContent, ReadOptions, ReadPlace } from '@/core/formats/format';
import { type TransferredLesson, toTransfer } from '@/core/formats/lesson-transfer';
import { identify, readKnown, titleOfFile } from '@/core/formats/read-content';
import type { Result } from '@/core/values/result';

/** What a file holds, on its way to the page. */
export type TransferredContent =
  | Exclude<FileContent, { readonly is: 'lesson' }>
  | { readonly is: 'lesson'; readonly lesson: TransferredLesson };

export interface ReadInWorker {
  readonly read: Result<TransferredContent>;
  /** Whether it is a file of Manege, whatever its ending. */
  readonly isOurs: boolean;
  readonly notes: readonly string[];
}

const work = {
  async read(
    name: string,
    text: string,
    place: ReadPlace,
    options: Omit<ReadOptions, 'tell' | 'title'>,
  ): Promise<ReadInWorker> {
    const known = identify(name, text, place);
    if (!known.ok) return { read: known, isOurs: false, notes: [] };
    const { format } = known.value;
    const notes: string[] = [];
    const read = await readKnown(known.value, {
      ...options,
      title: titleOfFile(name, format),
      tell: (note) => notes.push(note),
    });
    const isOurs = format.heading !== undefined;
    if (!read.ok || read.value.is !== 'lesson')
      return { read: read as Result<TransferredContent>, isOurs, notes };
    return {
      read: { ok: true, value: { is: 'lesson', lesson: toTransfer(read.value.lesson) } },
      isOurs,
      notes,
    };
  },
};

export type FileWork = typeof work;

expose(work);
