import { endingsOf, formatOfFile, isWrittenAt } from '../src/core/formats/format';
import { FORMATS } from '../src/core/formats/kinds';
import { BadInput } from './bad-input';
import { type Circuit, type CircuitOptions, openCircuit } from './open-circuit';
import { writeLines } from './write-out';

const WRITTEN = FORMATS.filter(isWrittenAt('command line'));

/** `*.manege.json, *.v, *.svg`: the files that can be written, for the help and for refusals. */
export const WRITTEN_FILES = WRITTEN.map((format) => `*${format.endings[0]}`).join(', ');

/** `manege convert`: a circuit from one format to another, by the endings of the files. */
export async function convert(from: string, to: string, options: CircuitOptions): Promise<void> {
  const write = writerOf(to);
  await write(await openCircuit(from, options, true), from);
}

/** The writer for a file, chosen by its ending. @throws BadInput for an unknown ending. */
export function writerOf(to: string): (circuit: Circuit, from: string) => Promise<void> {
  const format = formatOfFile(WRITTEN, to);
  if (!format) throw new BadInput(`${to}: the ending says what to write: ${endingsOf(WRITTEN).join(', ')}`);
  return async (circuit, from) => {
    const write = await format.write!.load();
    const lines = write(circuit);
    if (!lines.ok) throw new BadInput(`${from}: ${lines.problem.message}`);
    await writeLines(lines.value, to);
  };
}
