import { cell, inputAt, truthTable, whyNoTable } from '../../../logic/table/truth-table';
import type { Netlist } from '../../../netlist/netlist';
import { letterOf } from '../../../values/logic';
import { problem, sentence } from '../../../values/result';
import { blanked } from '../../kinds/dont-cares';
import { complainOfProblems, matchedTerminals } from '../../signals';
import type { ExpectedKind, ExpectedSignal, Given } from '../expected-kind';
import { ExpectedTable } from './expected-table';
import { ofFormulas, ofSheet, typedIn } from './set-up';

/** Most inputs of a sheet that is checked; far more than any expected table has. */
const MOST_SHEET_INPUTS = 20;

/** A truth table: every row of the circuit is held against it. */
export const table = {
  kind: 'table',
  schema: ExpectedTable,
  signals({ inputs, outputs }) {
    return { inputs: withBuses(inputs), outputs: withBuses(outputs.map((o) => o.name)) };
  },
  rows: ({ inputs, outputs }) => ({
    inputs,
    outputs: outputs.map((o) => o.name),
    rows: 2 ** inputs.length,
    word: 'row',
    when: null,
    input: (column, row) => String(inputAt(inputs.length, column, row)),
    output: (column, row) => outputs[column]!.rows[row]!,
  }),
  given,
  blank: (expected) => ({
    ...expected,
    outputs: expected.outputs.map((o) => ({ ...o, rows: blanked(o.rows) })),
  }),
  drive: () => null,
  isTimed: () => false,
  setUps: [ofSheet, typedIn, ofFormulas],
} satisfies ExpectedKind<ExpectedTable>;

function given(expected: ExpectedTable, netlist: Netlist, complaints: string[]): Given {
  const rows = 2 ** expected.inputs.length;
  const inputs = matchedTerminals(expected.inputs, netlist.inputColumns, 'input', complaints);
  const outputs = matchedTerminals(
    expected.outputs.map((o) => o.name),
    netlist.outputColumns,
    'output',
    complaints,
  );
  complainOfProblems(netlist, complaints);
  const nothing = '-'.repeat(rows);
  const tooMany = netlist.inputColumns.length > MOST_SHEET_INPUTS;
  const reason = tooMany
    ? problem('too-many-inputs', `more than ${MOST_SHEET_INPUTS} inputs are more than can be checked`)
    : whyNoTable(netlist);
  const nothingYet = netlist.inputs.length === 0 || netlist.outputs.length === 0;
  if (reason && !nothingYet) complaints.push(sentence(reason));
  if (reason) return { words: outputs.map(() => nothing), hasAllInputs: !inputs.includes(-1) };
  const table = truthTable(netlist);
  const weight = (column: number) => 2 ** (netlist.inputColumns.length - 1 - column);
  const words = outputs.map((output) => {
    if (output === -1) return nothing;
    let letters = '';
    for (let row = 0; row < rows; row++) {
      let at = 0;
      for (const [i, column] of inputs.entries())
        if (column !== -1 && (row >> (inputs.length - 1 - i)) & 1) at += weight(column);
      letters += letterOf(cell(table, output, at));
    }
    return letters;
  });
  return { words, hasAllInputs: !inputs.includes(-1) };
}

const BIT = /^(.*)\[(\d+)\]$/;

/** Names as signals: those of bits that stand one after another, the last one bit 0, are one bus. */
function withBuses(names: readonly string[]): ExpectedSignal[] {
  const signals: ExpectedSignal[] = [];
  for (let at = 0; at < names.length; ) {
    const [, bus, highest] = BIT.exec(names[at]!) ?? [];
    const width = Number(highest) + 1;
    const isBus =
      bus !== undefined &&
      width > 1 &&
      width <= names.length - at &&
      Array.from({ length: width }, (_, i) => names[at + i]).every(
        (name, i) => name === `${bus}[${width - 1 - i}]`,
      );
    signals.push(isBus ? { name: bus!, width, period: null } : { name: names[at]!, width: 1, period: null });
    at += isBus ? width : 1;
  }
  return signals;
}
