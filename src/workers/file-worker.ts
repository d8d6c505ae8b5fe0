import { expose } from 'comlink';
import type { FileContent, ReadOptions } from '@/core/formats/format';
import { FORMATS } from '@/core/formats/kinds';
import type { Result } from '@/core/values/result';

const work = {
  async read(
    format: string,
    text: string,
    json: unknown,
    options: Omit<ReadOptions, 'tell'>,
  ): Promise<{ read: Result<FileContent>; notes: readonly string[] }> {
    const read = await FORMATS.find((f) => f.id === format)!.read!.load();
    const notes: string[] = [];
    return { read: read({ text, json }, { ...options, tell: (note) => notes.push(note) }), notes };
  },
};

export type FileWork = typeof work;

expose(work);
