import { readFile, stat } from 'node:fs/promises';
import type { Sheet } from '../src/core/circuit/lesson';
import { readLesson } from '../src/core/formats/lesson-file';
import { tooLarge } from '../src/core/formats/read-json';
import { BadInput } from './bad-input';

/**
 * The sheet of a lesson file: the named one, or the first.
 * @throws BadInput with file and reason.
 */
export async function openSheet(file: string, name?: string): Promise<Sheet> {
  const read = readLesson(await textOf(file));
  if (!read.ok) throw new BadInput(`${file}: ${read.problem}`);
  const { sheets } = read.value;
  if (name === undefined) return sheets[0]!;
  const found = sheets.find((s) => s.name === name || s.id === name);
  if (found) return found;
  const names = sheets.map((s) => `“${s.name}”`).join(', ');
  throw new BadInput(`${file}: there is no sheet “${name}”; it has ${names}`);
}

async function textOf(file: string): Promise<string> {
  if (!file.endsWith('.json')) throw new BadInput(`${file}: a lesson file (*.manege.json) is needed`);
  try {
    const large = tooLarge((await stat(file)).size);
    if (large) throw new BadInput(`${file}: ${large}`);
    return await readFile(file, 'utf8');
  } catch (error) {
    if (error instanceof BadInput) throw error;
    const code = (error as NodeJS.ErrnoException).code;
    throw new BadInput(
      `${file}: ${code === 'ENOENT' ? 'there is no such file' : `cannot be read (${code})`}`,
    );
  }
}
