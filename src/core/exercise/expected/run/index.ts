import type { Netlist } from '../../../netlist/netlist';
import { waveLevels } from '../../../parts/wave';
import { drivenBy } from '../../../simulate/drive';
import { justAfter, timeText } from '../../../values/time';
import { blanked } from '../../kinds/dont-cares';
import { complainOfProblems, fittingTerminals } from '../../signals';
import type { ExpectedKind, Given } from '../expected-kind';
import { ExpectedRun, readRun, stimulusOf } from './expected-run';
import { ofSheet } from './set-up';

/** A run: inputs driven over time, outputs read at given times. For circuits with storage. */
export const run = {
  kind: 'run',
  schema: ExpectedRun,
  signals: ({ inputs, outputs }) => ({
    inputs: inputs.map(({ name, width, wave }) => ({
      name,
      width,
      period: wave.pattern === 'periodic' ? wave.step : null,
    })),
    outputs: outputs.map(({ name, width }) => ({ name, width, period: null })),
  }),
  rows({ inputs, outputs, readings }) {
    const shown = inputs.filter((i) => i.wave.pattern !== 'periodic');
    const levels = shown.map(({ wave, width }) => waveLevels(wave, width));
    return {
      inputs: shown.map((i) => i.name),
      outputs: outputs.map((o) => o.name),
      rows: readings.length,
      word: 'reading',
      when: (row) => timeText(justAfter(readings[row]!)),
      input: (column, row) => String(levels[column]!(readings[row]!).value),
      output: (column, row) => outputs[column]!.values[row]!,
    };
  },
  given,
  blank: (expected) => ({
    ...expected,
    outputs: expected.outputs.map((o) => ({ ...o, values: o.values.map(blanked) })),
  }),
  isTimed: () => true,
  drive: (expected) => ({
    delays: expected.delays,
    powerUp: expected.powerUp,
    stimulus: (netlist, name) => stimulusOf(expected, netlist, name),
    timeOf: (row) => expected.readings[row]!,
  }),
  setUps: [ofSheet],
} satisfies ExpectedKind<ExpectedRun>;

function given(expected: ExpectedRun, netlist: Netlist, complaints: string[]): Given {
  const inputs = fittingTerminals(expected.inputs, netlist.inputs, 'input', complaints);
  const outputs = fittingTerminals(expected.outputs, netlist.outputs, 'output', complaints);
  complainOfProblems(netlist, complaints);
  const driven = drivenBy(netlist, stimulusOf(expected, netlist, 'expected'));
  const read = readRun(driven, outputs, expected.readings, expected);
  if (read.reached < expected.readings.length)
    complaints.push(
      `After ${read.reached} of ${expected.readings.length} readings the run was stopped, as it had become too long: something in the circuit oscillates, or an input changes far more often than it is read.`,
    );
  else if (read.swings) complaints.push('A loop keeps changing within one moment and never settles.');
  return { words: read.values, hasAllInputs: !inputs.includes(null) };
}
