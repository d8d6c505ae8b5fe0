import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import type { Lesson, Sheet } from '../src/core/circuit/lesson';
import { readLesson } from '../src/core/formats/lesson-file';
import { tooLarge } from '../src/core/formats/size-limit';
import { readVerilog } from '../src/core/formats/verilog/read';
import { compile } from '../src/core/netlist/compile';
import type { Netlist } from '../src/core/netlist/netlist';
import { BadInput } from './bad-input';

export interface CircuitOptions {
  readonly sheet?: string;
  readonly module?: string;
}

/** A sheet with the lesson around it. */
export interface Circuit {
  readonly lesson: Lesson;
  readonly sheet: Sheet;
}

/**
 * The circuit of a lesson file (the named sheet, or the first) or of a Verilog file (the named module, or the one
 * that no other uses).
 * @param laidOut whether what is read from Verilog is to be looked at.
 * @throws BadInput with file and reason.
 */
export async function openCircuit(file: string, options: CircuitOptions, laidOut = false): Promise<Circuit> {
  const verilog = file.endsWith('.v');
  if (!verilog && !file.endsWith('.json'))
    throw new BadInput(`${file}: a lesson file (*.manege.json) or Verilog (*.v) is needed`);
  const text = await textOf(file);
  if (options.module !== undefined && !verilog) throw new BadInput(`${file}: --module is for Verilog (*.v)`);
  const read = verilog
    ? readVerilog(text, basename(file, '.v'), { module: options.module, laidOut })
    : readLesson(text);
  if (!read.ok)
    throw new BadInput(
      `${file}: ${read.problem.message}${read.problem.code === 'several-modules' ? ', with --module' : ''}`,
    );
  return { lesson: read.value, sheet: sheetNamed(file, read.value, options.sheet) };
}

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

/** The text of a file. @throws BadInput where it is not there, cannot be read, or is too large. */
export async function textOf(file: string): Promise<string> {
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
