import { prove } from '../../../logic/equivalence/prove-sequences';
import type { Netlist } from '../../../netlist/netlist';
import { sameName } from '../../../values/names';
import { done, refusal, sentence, within } from '../../../values/result';
import { circuitContent } from '../../circuit-content';
import { complainOfProblems, fittingTerminals } from '../../signals';
import type { Difference, ExpectedKind } from '../expected-kind';
import { ExpectedCircuit, netlistOf, periodOf } from './expected-circuit';
import { ofSheet } from './set-up';

/** Work of a proof, at most: it is made while a student waits for a check. */
const PROOF = { mostNodes: 300_000, mostSteps: 60_000 };

/** Another circuit: every case is covered by a proof, for circuits with storage from power-up on. */
export const circuit = {
  kind: 'circuit',
  schema: ExpectedCircuit,
  content(expected) {
    const read = circuitContent(expected.circuit);
    return read.ok
      ? done({ ...expected, circuit: read.value })
      : refusal(within('the wanted circuit', read.problem));
  },
  signals(expected) {
    const wanted = netlistOf(expected);
    return {
      inputs: wanted.inputs.map((terminal) => ({
        name: terminal.name,
        width: terminal.nets.length,
        period: periodOf(wanted, terminal),
      })),
      outputs: wanted.outputs.map(({ name, nets }) => ({ name, width: nets.length, period: null })),
    };
  },
  isTimed: (expected) => netlistOf(expected).storage.length > 0,
  rows: (expected) => ({
    inputs: [],
    outputs: netlistOf(expected).outputs.map(({ name }) => name),
    rows: 1,
    word: 'proof',
    when: null,
    input: () => '',
    output: () => 'x',
  }),
  prove: proved,
  given: () => ({ words: [], hasAllInputs: false }),
  drive: () => null,
  setUps: [ofSheet],
} satisfies ExpectedKind<ExpectedCircuit>;

function proved(
  expected: ExpectedCircuit,
  netlist: Netlist,
  complaints: string[],
): Difference | 'same' | 'other' | 'undecided' {
  const wanted = netlistOf(expected);
  const { inputs, outputs } = circuit.signals(expected);
  const found = [
    ...fittingTerminals(inputs, netlist.inputs, 'input', complaints),
    ...fittingTerminals(outputs, netlist.outputs, 'output', complaints),
  ];
  const misfits = complaints.length > 0 || found.includes(null);
  complainOfProblems(netlist, complaints);
  if (misfits) return 'other';
  // A lamp more shows something on the way to the answer.
  const outputColumns = netlist.outputColumns.filter((column) =>
    wanted.outputColumns.some(({ name }) => sameName(name, column.name)),
  );
  const proof = prove(wanted, { ...netlist, outputColumns }, PROOF);
  if (!proof.ok) {
    complaints.push(sentence(proof.problem));
    return 'other';
  }
  const { value } = proof;
  if (value.verdict === 'equivalent') return 'same';
  if (value.verdict === 'different')
    return { inputs: value.inputs, wanted: value.outputs.a, given: value.outputs.b };
  complaints.push(
    `Whether it does the same could not be decided: ${value.reason}. Your teacher looks at it.`,
  );
  return 'undecided';
}
