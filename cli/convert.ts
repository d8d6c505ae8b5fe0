import { extname } from 'node:path';
import { writeSvg } from '../src/core/formats/svg';
import { writeVerilog } from '../src/core/formats/verilog/write';
import { writeLesson } from '../src/core/formats/write-lesson';
import { deriveTable } from '../src/core/logic/table/derive-table';
import { tableLines } from '../src/core/logic/table/table-text';
import { whyNoTable } from '../src/core/logic/table/truth-table';
import { BadInput } from './bad-input';
import { type Circuit, type CircuitOptions, compiled, openCircuit } from './open-circuit';
import { writeLines } from './write-out';

/** `manege convert`: a circuit from one format to another, by the endings of the files. */
export async function convert(from: string, to: string, options: CircuitOptions): Promise<void> {
  const write = writerOf(to);
  await write(await openCircuit(from, options, true), from);
}

/** What writes a circuit into a file, by its ending. @throws BadInput where the ending says nothing. */
export function writerOf(to: string): (circuit: Circuit, from: string) => Promise<void> {
  const ending = to.endsWith('.manege.json') ? '.manege.json' : extname(to);
  const write = WRITERS[ending];
  if (!write) throw new BadInput(`${to}: the ending says what to write: ${Object.keys(WRITERS).join(', ')}`);
  return (circuit, from) => writeLines(write(circuit, from), to);
}

const WRITERS: Record<string, (circuit: Circuit, from: string) => Iterable<string>> = {
  '.manege.json': ({ lesson }) => [writeLesson(lesson).trimEnd()],
  '.v': ({ lesson, sheet }) => [writeVerilog(lesson, sheet).trimEnd()],
  '.svg': ({ lesson, sheet }) => [writeSvg(sheet, lesson.settings).trimEnd()],
  '.csv': (circuit, from) => {
    const netlist = compiled(circuit);
    const reason = whyNoTable(netlist);
    if (reason) throw new BadInput(`${from}: it has no truth table: ${reason}`);
    return tableLines(deriveTable(netlist), 'csv');
  },
};
