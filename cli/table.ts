import { countTable, type TablePiece, tablePieces } from '../src/core/logic/table/derive-table';
import { stateTable } from '../src/core/logic/table/state-table';
import { pieceLines, type TableFormat, tableLines } from '../src/core/logic/table/table-text';
import { countOnes, whyNoTable } from '../src/core/logic/table/truth-table';
import { BadInput } from './bad-input';
import { type CircuitOptions, compiled, openCircuit } from './open-circuit';
import { progressLine, writeLines, writeStats } from './write-out';

interface Options extends CircuitOptions {
  readonly format: TableFormat | 'none';
  readonly out?: string;
  readonly stats?: boolean;
}

/**
 * `manege table`: writes the truth table of a circuit; of one with storage, next state and outputs over present
 * state and inputs.
 * @throws BadInput where the circuit cannot be read or has no table.
 */
export async function table(file: string, options: Options): Promise<void> {
  const circuit = await openCircuit(file, options);
  const netlist = compiled(circuit);
  const progress = progressLine('deriving');
  let elapsedMs = 0;
  const timed = <T>(work: () => T): T => {
    const begun = performance.now();
    const made = work();
    elapsedMs += performance.now() - begun;
    return made;
  };
  const report = (rows: number, outputs: readonly string[], ones: readonly number[]) => {
    if (options.stats)
      writeStats({
        elapsedMs: +elapsedMs.toFixed(3),
        rows,
        gates: netlist.op.length,
        events: 0,
        ones: Object.fromEntries(outputs.map((name, o) => [name, ones[o]!])),
      });
  };
  if (netlist.storage.length > 0) {
    const made = timed(() => stateTable(netlist, { progress, sheet: circuit.sheet }));
    if (!made.ok)
      throw new BadInput(
        `${file}: sheet “${circuit.sheet.name}” has no state table: ${made.problem.message}`,
      );
    progress(1);
    const { value } = made;
    if (options.format !== 'none') await writeLines(tableLines(value, options.format), options.out);
    report(value.rows, value.outputs, value.ones.map(countOnes));
    return;
  }
  const reason = whyNoTable(netlist);
  if (reason)
    throw new BadInput(`${file}: sheet “${circuit.sheet.name}” has no truth table: ${reason.message}`);
  const outputs = netlist.outputColumns.map((c) => c.name);
  let ones = outputs.map(() => 0);
  /** The table as it is written, its ones counted on the way. */
  function* pieces(): Generator<TablePiece> {
    const derived = tablePieces(netlist, { progress });
    for (let next = timed(() => derived.next()); !next.done; next = timed(() => derived.next())) {
      for (const [o, column] of next.value.ones.entries()) ones[o]! += countOnes(column);
      yield next.value;
    }
  }
  if (options.format === 'none') ones = timed(() => countTable(netlist, { progress }));
  else await writeLines(pieceLines(pieces(), options.format), options.out);
  progress(1);
  report(2 ** netlist.inputColumns.length, outputs, ones);
}
