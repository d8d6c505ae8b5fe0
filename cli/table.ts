import { countTable, deriveTable } from '../src/core/logic/table/derive-table';
import { stateTable } from '../src/core/logic/table/state-table';
import { type TableFormat, tableLines } from '../src/core/logic/table/table-text';
import { countOnes, type TruthTable, whyNoTable } from '../src/core/logic/table/truth-table';
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
  const begun = performance.now();
  const report = (rows: number, ones: readonly (readonly [name: string, count: number])[], ms: number) => {
    if (options.stats)
      writeStats({
        elapsedMs: +ms.toFixed(3),
        rows,
        gates: netlist.op.length,
        events: 0,
        ones: Object.fromEntries(ones),
      });
  };
  let derived: TruthTable;
  if (netlist.storage.length > 0) {
    const made = stateTable(netlist, { progress, sheet: circuit.sheet });
    if (!made.ok)
      throw new BadInput(
        `${file}: sheet “${circuit.sheet.name}” has no state table: ${made.problem.message}`,
      );
    derived = made.value;
  } else {
    const reason = whyNoTable(netlist);
    if (reason)
      throw new BadInput(`${file}: sheet “${circuit.sheet.name}” has no truth table: ${reason.message}`);
    if (options.format === 'none') {
      const counts = countTable(netlist, { progress });
      const elapsedMs = performance.now() - begun;
      progress(1);
      const named = netlist.outputColumns.map(({ name }, o) => [name, counts[o]!] as const);
      report(2 ** netlist.inputColumns.length, named, elapsedMs);
      return;
    }
    derived = deriveTable(netlist, { progress });
  }
  const elapsedMs = performance.now() - begun;
  progress(1);
  if (options.format !== 'none') await writeLines(tableLines(derived, options.format), options.out);
  report(
    derived.rows,
    derived.outputs.map((name, o) => [name, countOnes(derived.ones[o]!)]),
    elapsedMs,
  );
}
