import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import type { Writable } from 'node:stream';
import { deriveTable } from '../src/core/logic/derive-table';
import { type TableFormat, tableLines } from '../src/core/logic/table-text';
import { countOnes, whyNoTable } from '../src/core/logic/truth-table';
import { compile } from '../src/core/netlist/compile';
import { BadInput } from './bad-input';
import { openSheet } from './open-circuit';

interface Options {
  readonly sheet?: string;
  readonly format: TableFormat | 'none';
  readonly out?: string;
  readonly stats?: boolean;
}

/**
 * `manege table`: writes the truth table of a sheet.
 * @throws BadInput where the circuit cannot be read or has no table.
 */
export async function table(file: string, options: Options): Promise<void> {
  const sheet = await openSheet(file, options.sheet);
  const netlist = compile(sheet);
  const reason = whyNoTable(netlist);
  if (reason) throw new BadInput(`${file}: sheet “${sheet.name}” has no truth table: ${reason}`);
  const begun = performance.now();
  const derived = deriveTable(netlist);
  const elapsedMs = performance.now() - begun;
  if (options.format !== 'none') await write(tableLines(derived, options.format), options.out);
  if (options.stats) {
    const stats = {
      elapsedMs: +elapsedMs.toFixed(3),
      rows: derived.rows,
      gates: netlist.op.length,
      events: 0,
      peakRssMb: Math.round(process.resourceUsage().maxRSS / 1024),
      ones: Object.fromEntries(derived.outputs.map((name, o) => [name, countOnes(derived.ones[o]!)])),
    };
    process.stderr.write(`${JSON.stringify(stats)}\n`);
  }
}

const LINES_AT_ONCE = 4096;

async function write(lines: Iterable<string>, out?: string): Promise<void> {
  const stream: Writable = out ? createWriteStream(out) : process.stdout;
  const failed = new Promise<never>((_, reject) =>
    stream.once('error', (error: NodeJS.ErrnoException) =>
      reject(new BadInput(`${out ?? 'output'}: cannot be written (${error.code})`)),
    ),
  );
  const put = async (text: string) => {
    if (!stream.write(text)) await once(stream, 'drain');
  };
  const all = async () => {
    let share: string[] = [];
    for (const line of lines) {
      share.push(`${line}\n`);
      if (share.length < LINES_AT_ONCE) continue;
      await put(share.join(''));
      share = [];
    }
    await put(share.join(''));
    if (out) await new Promise<void>((done) => stream.end(done));
  };
  await Promise.race([all(), failed]);
}
