import { readFile, stat } from 'node:fs/promises';
import { basename, dirname, resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Lesson } from '../src/core/circuit/lesson';
import type { Sheet } from '../src/core/circuit/sheet';
import { type Circuit, formatOfFile, isReadAt } from '../src/core/formats/format';
import { damagedGzip, isGzipName, unpacksToMore, withoutGzip } from '../src/core/formats/gzip';
import { FORMATS } from '../src/core/formats/kinds';
import { identify, readKnown, titleOfFile } from '../src/core/formats/read-content';
import { MOST_BYTES, tooLarge } from '../src/core/formats/size-limit';
import { filesNamed } from '../src/core/formats/verilog/several-files';
import { compile } from '../src/core/netlist/compile';
import type { Netlist } from '../src/core/netlist/netlist';
import { listed } from '../src/core/values/wording';
import { BadInput } from './bad-input';
import { readStream } from './read-stream';
import { complain } from './write-out';

export type { Circuit };

export interface CircuitOptions {
  readonly sheet?: string;
  readonly module?: string;
}

const READ = FORMATS.filter(isReadAt('command line'));
/** `a lesson (*.manege.json), Verilog (*.v) or a netlist (*.blif, *.aag ...)`. */
const NEEDED = listed(
  [...new Set(READ.map(({ kin, noun }) => kin ?? noun))].map((name) => {
    const own = READ.filter(({ kin, noun }) => (kin ?? noun) === name);
    return `${name} (${own.map(({ endings }) => `*${endings[0]}`).join(', ')})`;
  }),
  'or',
);

/**
 * The circuit of a lesson file (the named sheet, or the first) or of a Verilog file (the named module, or the
 * one that no other uses).
 * @param laidOut whether sheets from Verilog are laid out to be looked at.
 * @throws BadInput with file and reason.
 */
export async function openCircuit(file: string, options: CircuitOptions, laidOut = false): Promise<Circuit> {
  const format = formatOfFile(READ, withoutGzip(file));
  if (!format) throw new BadInput(`${file}: ${NEEDED} is needed`);
  const text = await textOf(file, format.isBinary ? 'latin1' : 'utf8');
  if (options.module !== undefined && format.id !== 'verilog')
    throw new BadInput(`${file}: --module is for Verilog (*.v)`);
  const known = identify(withoutGzip(file), text, 'command line');
  const read = known.ok
    ? await readKnown(known.value, {
        title: titleOfFile(withoutGzip(basename(file)), format),
        module: options.module,
        laidOut,
        includes: format.id === 'verilog' ? await filesNamedIn(text, dirname(file)) : undefined,
        tell: (note) => complain(`${file}: ${note}`),
      })
    : known;
  if (!read.ok)
    throw new BadInput(
      `${file}: ${read.problem.message}${read.problem.code === 'several-modules' ? ', with --module' : ''}`,
    );
  if (read.value.is !== 'lesson') throw new BadInput(`${file}: ${NEEDED} is needed`);
  return { lesson: read.value.lesson, sheet: sheetNamed(file, read.value.lesson, options.sheet) };
}

/**
 * Files beside a Verilog file that it names, by those names, and those called as a module that it uses; a file that is not there is
 * left to whoever needs it.
 */
async function filesNamedIn(
  text: string,
  folder: string,
  found = new Map<string, string>(),
): Promise<Map<string, string>> {
  const modules = [...text.matchAll(USED_MODULE)].map((used) => `${used[1]}.v`);
  for (const name of new Set([...filesNamed(text), ...modules])) {
    // A file that somebody else has written does not get to read all of the disk.
    const path = resolve(folder, name);
    if (found.has(name) || !path.startsWith(`${resolve(folder)}/`)) continue;
    const inside = await textOf(path).catch(() => null);
    if (inside === null) continue;
    found.set(name, inside);
    await filesNamedIn(inside, folder, found);
  }
  return found;
}
/** The name of a module before that of an instance, which may stand in a file of that name. */
const USED_MODULE = /^[ \t]*([A-Za-z_]\w*)[ \t]+(?:#[ \t]*\(|[A-Za-z_]\w*[ \t]*\()/gm;

function sheetNamed(file: string, { sheets }: Lesson, name?: string): Sheet {
  if (name === undefined) return sheets[0]!;
  const found = sheets.find((s) => s.name === name || s.id === name);
  if (found) return found;
  const names = sheets.map((s) => `“${s.name}”`).join(', ');
  throw new BadInput(`${file}: there is no sheet “${name}”; it has ${names}`);
}

export function compiled({ lesson, sheet }: Circuit): Netlist {
  return compile(sheet, lesson.sheets);
}

const REASONS: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file',
  EISDIR: 'it is a folder, and a file is needed',
  EACCES: 'it may not be read',
};

/** @throws BadInput */
function unpacked(file: string, bytes: Buffer): Buffer {
  try {
    return gunzipSync(bytes, { maxOutputLength: MOST_BYTES });
  } catch (error) {
    const { problem } =
      (error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE' ? unpacksToMore() : damagedGzip();
    throw new BadInput(`${file}: ${problem.message}`);
  }
}

/** The text of a file, unpacked where its name says that it is packed. @throws BadInput if it is missing, cannot be read, or is too large. */
export async function textOf(file: string, encoding: 'utf8' | 'latin1' = 'utf8'): Promise<string> {
  try {
    const found = await stat(file);
    if (!found.isFile() && !found.isDirectory()) return await readStream(file);
    const large = tooLarge(found.size);
    if (large) throw new BadInput(`${file}: ${large.message}`);
    if (!isGzipName(file)) return await readFile(file, encoding);
    return unpacked(file, await readFile(file)).toString(encoding);
  } catch (error) {
    if (error instanceof BadInput) throw error;
    const code = (error as NodeJS.ErrnoException).code;
    throw new BadInput(`${file}: ${REASONS[code ?? ''] ?? `cannot be read (${code})`}`);
  }
}
