import { emptyLesson, type Lesson } from '../../circuit/lesson';
import type { Sheet } from '../../circuit/sheet';
import { layOut } from '../../drawing/layout/lay-out';
import { done, type Result, refused } from '../../values/result';
import { benchAmong, driven, played } from './bench';
import { elaborate, type Note, rootsOf } from './elaborate';
import { parseVerilog } from './parse';
import type { Includes } from './preprocess';
import { withOthers } from './several-files';
import type { Module } from './syntax';
import { VerilogError } from './tokens';

export interface VerilogOptions {
  /** The top module; without it, the one that no other uses. */
  readonly module?: string;
  /** Whether all modules that no other uses are read, each as a sheet, if none is named. */
  readonly everyRoot?: boolean;
  /** Whether parts get places and wires courses, so that people can read the sheets. */
  readonly laidOut?: boolean;
  /** Texts of files that it may include or fill memories from, by their names. */
  readonly includes?: Includes | undefined;
  /** Receives notes about the circuit, such as a latch that was inferred. */
  readonly tell?: ((note: string) => void) | undefined;
}

const MOST_CHARACTERS = 50_000_000;

/**
 * Reads Verilog as it is taught (IEEE Std 1364-2005; docs/formats.md says which part) as a lesson with one sheet
 * for each module, the root first. A test bench becomes the stimulus of the circuit in it. Refused as a whole, with line and column.
 */
export function readVerilog(source: string, title: string, options: VerilogOptions = {}): Result<Lesson> {
  if (source.length > MOST_CHARACTERS)
    return refused('file-too-large', `it has more than ${MOST_CHARACTERS} characters`);
  try {
    const own = parseVerilog(source, options.includes);
    const modules = withOthers(own, options.includes);
    const roots = rootsOf(modules).filter((m) => own.includes(m));
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
    const { sheets, notes } =
      tested(modules, named, options) ?? elaborate(modules, named, new Map(), options.includes);
    for (const { line, text } of notes) options.tell?.(`line ${line}: ${text}`);
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

/** The circuit in a test bench, driven by what the bench did; null where the root is none. */
function tested(
  modules: readonly Module[],
  roots: readonly Module[],
  { includes }: VerilogOptions,
): { readonly sheets: readonly Sheet[]; readonly notes: readonly Note[] } | null {
  const bench = benchAmong(roots);
  const circuit = bench && modules.find((m) => m.name === bench.instance.module);
  if (!circuit) return null;
  const did = played(modules, bench, includes);
  const { sheets, notes } = elaborate(modules, [circuit], did.parameters, includes);
  const [first, ...rest] = sheets;
  const { line, column } = bench.module;
  const late = {
    line,
    column,
    text: `the test bench ${bench.module.name} never ends with $finish: it was stopped`,
  };
  return {
    sheets: [driven(first!, bench.module.name, did), ...rest],
    notes: did.isOver ? notes : [...notes, late],
  };
}
