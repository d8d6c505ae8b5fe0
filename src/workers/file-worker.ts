import { expose } from 'comlink';
import type { FileContent, ReadOptions } from '@/core/formats/format';
import { FORMATS } from '@/core/formats/kinds';
import type { Result } from '@/core/values/result';

const work = {
  async read(
    format: string,
    text: string,
    json: unknown,
    options: ReadOptions,
  ): Promise<Result<FileContent>> {
    const read = await FORMATS.find((f) => f.id === format)!.read!.load();
    return read({ text, json }, options);
  },
};

export type FileWork = typeof work;

expose(work);
