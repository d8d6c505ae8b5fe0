import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { layOut } from '../../drawing/layout/lay-out';
import { done, type Result, refused } from '../../values/result';
import { elaborate, rootsOf } from './elaborate';
import { parseVerilog } from './parse';
import { VerilogError } from './tokens';

export interface VerilogOptions {
  /** The top module; without it, the one that no other uses. */
  readonly module?: string;
  /** Whether all modules that no other uses are read, each as a sheet, if none is named. */
  readonly everyRoot?: boolean;
  /** Whether parts get places and wires courses, so that people can read the sheets. */
  readonly laidOut?: boolean;
}

const MOST_CHARACTERS = 50_000_000;

/**
 * Reads the structural part of Verilog (IEEE Std 1364-2005; docs/formats.md says which) as a lesson with one sheet
 * for each module, the root first. Refused as a whole, with line and column.
 */
export function readVerilog(source: string, title: string, options: VerilogOptions = {}): Result<Lesson> {
  if (source.length > MOST_CHARACTERS)
    return refused('file-too-large', `it has more than ${MOST_CHARACTERS} characters`);
  try {
    const modules = parseVerilog(source);
    const roots = rootsOf(modules);
    const named = options.module === undefined ? roots : modules.filter((m) => m.name === options.module);
    const names = (roots.length ? roots : modules).map((m) => m.name).join(', ');
    if (named.length === 0)
      return refused(
        'no-such-module',
        options.module === undefined
          ? `all modules are used by each other: ${names}`
          : `there is no module ${options.module}; it has ${modules.map((m) => m.name).join(', ')}`,
      );
    if (named.length > 1 && !options.everyRoot)
      return refused(
        'several-modules',
        `several modules are used by no other (${names}): say which one is meant`,
      );
    const sheets = elaborate(modules, named);
    const made = options.laidOut ? sheets.map(layOut) : sheets;
    return done({ ...emptyLesson('from-verilog', title.slice(0, 120) || 'Verilog'), sheets: made });
  } catch (error) {
    if (error instanceof VerilogError) {
      const { line, column } = error.place;
      return refused('bad-verilog', `line ${line}, column ${column}: ${error.message}`, { line, column });
    }
    throw error;
  }
}
