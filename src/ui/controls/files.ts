import { tooLarge } from '@/core/formats/size-limit';
import { done, type Result, refusal, refused } from '@/core/values/result';

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

/** Reads files as text; one that is too large is not read at all. */
export async function readFiles(files: Iterable<File>): Promise<ReadFile[]> {
  return Promise.all(
    [...files].map(async (file) => {
      const large = tooLarge(file.size);
      if (large) return { name: file.name, text: refusal(large) };
      try {
        return { name: file.name, text: done(await file.text()) };
      } catch {
        return { name: file.name, text: refused('unreadable', 'the browser could not read it') };
      }
    }),
  );
}
