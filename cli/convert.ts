import { endingsOf, formatOfFile } from '../src/core/formats/format';
import { withoutGzip } from '../src/core/formats/gzip';
import { BadInput } from './bad-input';
import { WRITTEN } from './choices';
import { type Circuit, type CircuitOptions, openCircuit } from './open-circuit';
import { writeLines } from './write-out';

/** `manege convert`: a circuit from one format to another, by the endings of the files. */
export async function convert(from: string, to: string, options: CircuitOptions): Promise<void> {
  const write = writerOf(to);
  await write(await openCircuit(from, options, true), from);
}

/** The writer for a file, chosen by its ending. @throws BadInput for an unknown ending. */
export function writerOf(to: string): (circuit: Circuit, from: string) => Promise<void> {
  const format = formatOfFile(WRITTEN, withoutGzip(to));
  if (!format) throw new BadInput(`${to}: the ending says what to write: ${endingsOf(WRITTEN).join(', ')}`);
  return async (circuit, from) => {
    const write = await format.write!.load();
    const lines = write(circuit);
    if (!lines.ok) throw new BadInput(`${from}: ${lines.problem.message}`);
    await writeLines(lines.value, to, format.isBinary ? 'latin1' : 'utf8');
  };
}
