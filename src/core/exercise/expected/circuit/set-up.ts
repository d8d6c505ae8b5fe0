import { whyNoProof } from '../../../logic/equivalence/prove-sequences';
import { done, refusal, refused } from '../../../values/result';
import { excerptFor } from '../../begin';
import type { SetUp } from '../expected-kind';
import { type ExpectedCircuit, netlistOf } from './expected-circuit';

/** The teacher's own sheet: the student's has to be proved to do the same. */
export const ofSheet: SetUp<ExpectedCircuit> = {
  name: 'The same as this sheet, proved',
  from: 'sheet',
  isAlwaysOffered: false,
  fields: () => [],
  initial: () => ({}),
  make({ sheet, sheets, settings }) {
    const expected: ExpectedCircuit = { kind: 'circuit', circuit: excerptFor(sheet, sheets, settings) };
    const netlist = netlistOf(expected);
    if (netlist.inputs.length === 0) return refused('no-input', 'there is no input yet: place a switch');
    if (netlist.outputs.length === 0) return refused('no-output', 'there is no output yet: place a lamp');
    const why = whyNoProof(netlist);
    return why ? refusal(why) : done(expected);
  },
  hint: (expected) =>
    netlistOf(expected).storage.length > 0
      ? 'The student’s circuit has to do the same in every state and for every input, from power-up on.'
      : 'The student’s circuit has to do the same for every input, however many there are.',
};
