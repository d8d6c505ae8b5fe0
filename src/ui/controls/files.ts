import { isGzipName, withoutGzip } from '@/core/formats/gzip';
import { FORMATS } from '@/core/formats/kinds';
import { MOST_UNPACKED, tooLarge } from '@/core/formats/size-limit';
import { done, type Result, refusal, refused } from '@/core/values/result';
import { load } from '@/loading/load';
import { nextTask } from '@/loading/next-task';

/** Hands a text to the browser to save as a file. */
export function saveFile(name: string, text: BlobPart, type = 'application/json'): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A title as a file name: letters, digits and dashes. */
export function fileName(title: string, ending: string): string {
  const plain = title
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, 60);
  return `${plain || 'manege'}${ending}`;
}

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

/** Reads the file that is packed in another, under the name that it has without that. */
async function readPacked(file: File): Promise<ReadFile> {
  const { unpacked } = await load('the reader of packed files', () => import('./gzip'));
  const name = withoutGzip(file.name);
  const content = await unpacked(file);
  return { name, text: content.ok ? done(await textOf(content.value, name)) : content };
}

async function readArchive(file: File): Promise<ReadFile[]> {
  const { unarchived } = await load('the reader of archives', () => import('@/core/formats/archive'));
  const large = tooLarge(file.size, MOST_UNPACKED);
  if (large) return [{ name: file.name, text: refusal(large) }];
  const files = unarchived(new Uint8Array(await file.arrayBuffer()));
  if (!files.ok) return [{ name: file.name, text: files }];
  return files.value.map(({ name, text }) => ({ name, text: done(text) }));
}

/** What browsers have that let a page come back to files of earlier visits. */
interface AskedHandle {
  requestPermission?(want: { readonly mode: 'read' | 'readwrite' }): Promise<PermissionState>;
}

/** Whether a page may read a file of an earlier visit, or write to it; the browser may ask the person. */
export async function isAllowed(handle: FileSystemFileHandle, mode: 'read' | 'readwrite'): Promise<boolean> {
  const allowed = await (handle as AskedHandle).requestPermission?.({ mode });
  return allowed === undefined || allowed === 'granted';
}

/** Why a file of an earlier visit was not opened, as it follows its name. */
export const whyNotOpened = (error: unknown): string =>
  error instanceof Error && error.name === 'NotFoundError' ? 'is not there any more' : 'could not be opened';
