import { isGzipName, withoutGzip } from '@/core/formats/gzip';
import { FORMATS } from '@/core/formats/kinds';
import { MOST_UNPACKED, tooLarge } from '@/core/formats/size-limit';
import { done, type Result, refusal, refused } from '@/core/values/result';
import { load } from '@/loading/load';
import { nextTask } from '@/loading/next-task';

export interface ReadFile {
  readonly name: string;
  readonly text: Result<string>;
}

/** Whether a file may hold others. */
export const isArchive = ({ name }: File): boolean => /\.zip$/i.test(name);

/** Reads files as text, and those that zip archives hold; one that is too large is not read at all. */
export async function readFiles(files: Iterable<File>): Promise<ReadFile[]> {
  const read: ReadFile[] = [];
  // Even the size of a file takes the browser its time: hundreds of them leave the page its frames.
  for (const file of files) {
    read.push(...(await readFile(file)));
    await nextTask();
  }
  return read;
}

/** Whether the bytes of a file are read each as a character. */
const isBinaryName = (name: string): boolean =>
  FORMATS.some(
    ({ isBinary, endings }) => isBinary && endings.some((ending) => name.toLowerCase().endsWith(ending)),
  );

const textOf = (content: Blob, name: string): Promise<string> =>
  isBinaryName(name) ? latin1(content) : content.text();

const latin1 = async (file: Blob): Promise<string> =>
  Array.from(new Uint8Array(await file.arrayBuffer()), (byte) => String.fromCharCode(byte)).join('');

/** Reads a file as text; an archive becomes the files in it. */
export async function readFile(file: File): Promise<ReadFile[]> {
  const { name } = file;
  try {
    if (isArchive(file)) return await readArchive(file);
    const large = tooLarge(file.size);
    if (large) return [{ name, text: refusal(large) }];
    if (isGzipName(name)) return [await readPacked(file)];
    return [{ name, text: done(await textOf(file, name)) }];
  } catch {
    return [{ name, text: refused('unreadable', 'the browser could not read it') }];
  }
}

/** Unpacks a file and reads it under its name without the ending of gzip. */
async function readPacked(file: File): Promise<ReadFile> {
  const { unpacked } = await load('the reader of packed files', () => import('./gzip'));
  const content = await unpacked(file);
  if (!content.ok) return { name: file.name, text: content };
  const name = withoutGzip(file.name);
  return { name, text: done(await textOf(content.value, name)) };
}

async function readArchive(file: File): Promise<ReadFile[]> {
  const { unarchived } = await load('the reader of archives', () => import('@/core/formats/archive'));
  const large = tooLarge(file.size, MOST_UNPACKED);
  if (large) return [{ name: file.name, text: refusal(large) }];
  const files = unarchived(new Uint8Array(await file.arrayBuffer()));
  if (!files.ok) return [{ name: file.name, text: files }];
  return files.value.map(({ name, text }) => ({ name, text: done(text) }));
}
