import type { SetUp } from '../expected-kind';
import {
  cellTurned,
  type ExpectedTable,
  namesIn,
  tableOfFormulas,
  tableOfNames,
  tableOfSheet,
} from './expected-table';

/** The truth table of the teacher's own sheet, as it is. */
export const ofSheet: SetUp<ExpectedTable> = {
  name: 'This sheet’s truth table',
  from: 'sheet',
  isAlwaysOffered: false,
  fields: () => [],
  initial: () => ({}),
  make: ({ sheet, sheets }) => tableOfSheet(sheet, sheets),
  hint: () => '',
};

/** A table with typed names and cells to press. It begins as the table of the sheet, if the sheet has one. */
export const typedIn: SetUp<ExpectedTable> = {
  name: 'A table typed in here',
  from: 'typed',
  isAlwaysOffered: true,
  fields: () => [
    { id: 'inputs', label: 'Inputs, with commas', control: 'text' },
    { id: 'outputs', label: 'Outputs, with commas', control: 'text' },
  ],
  initial({ sheet, sheets }) {
    const own = tableOfSheet(sheet, sheets);
    if (!own.ok) return { inputs: 'A, B', outputs: 'Y' };
    const { inputs, outputs } = own.value;
    return { inputs: inputs.join(', '), outputs: outputs.map((o) => o.name).join(', ') };
  },
  make({ sheet, sheets }, { inputs, outputs }, before) {
    const own = before ? null : tableOfSheet(sheet, sheets);
    return tableOfNames(namesIn(inputs!), namesIn(outputs!), before ?? (own?.ok ? own.value : undefined));
  },
  hint: () => 'Press a cell to change it: 0, 1, x (don’t care).',
  turn: (expected, _, output, row) => cellTurned(expected, output, row),
};

/** Formulas that are typed; what they say is the table. */
export const ofFormulas: SetUp<ExpectedTable> = {
  name: 'Formulas typed in here',
  from: 'typed',
  isAlwaysOffered: true,
  fields: () => [{ id: 'formulas', label: 'A line for each output', control: 'lines' }],
  initial: () => ({ formulas: '' }),
  make: (_, { formulas }) => tableOfFormulas(formulas!),
  hint: () => '',
};
