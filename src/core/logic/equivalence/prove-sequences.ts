import type { Netlist } from '../../netlist/netlist';
import { type Logic, letterOf, ONE, ZERO } from '../../values/logic';
import { sameName } from '../../values/names';
import { done, type Problem, type Result, refused } from '../../values/result';
import { Stepper } from '../table/state-table';
import { inputAt, whyNoTable } from '../table/truth-table';
import { MOST_ROWS, type Proof, type ProofOptions, proveCombinational, type Row } from './prove';

/** States of both circuits together that are looked at, at most. */
export const MOST_STATES = 250_000;
/** Steps of both circuits, at most: a state takes one for each row of the inputs. */
const MOST_STEPS = 2_000_000;
const MOST_INPUTS = 12;

/**
 * Whether two circuits are equivalent, proved. Circuits without storage by all rows or decision diagrams;
 * circuits with storage by exploring all states of both together from power-up, breadth first, so the first
 * difference is found by the fewest clocks.
 */
export function prove(a: Netlist, b: Netlist, options: ProofOptions = {}): Result<Proof> {
  if (a.storage.length === 0 && b.storage.length === 0) return proveCombinational(a, b, options);
  const [first, second] = [Stepper.of(a), Stepper.of(b)];
  if (!first.ok) return first;
  if (!second.ok) return second;
  const places = first.value.columns.map((c) =>
    second.value.columns.findIndex((d) => sameName(c.name, d.name)),
  );
  const names = (columns: readonly { readonly name: string }[]) =>
    columns.map((c) => c.name).join(', ') || 'none';
  if (places.includes(-1) || places.length !== second.value.columns.length)
    return refused(
      'other-ports',
      `their inputs differ: ${names(first.value.columns)} here, ${names(second.value.columns)} there`,
    );
  const outputs = a.outputColumns.map((c) => b.outputColumns.findIndex((d) => sameName(c.name, d.name)));
  if (outputs.length === 0 || outputs.includes(-1) || outputs.length !== b.outputColumns.length)
    return refused(
      'other-ports',
      `their outputs differ: ${names(a.outputColumns)} here, ${names(b.outputColumns)} there`,
    );
  return done(explored(a, first.value, second.value, places, outputs, options));
}

/** Why nothing can be proved of a circuit, whatever it is compared with; else null. */
export function whyNoProof(netlist: Netlist): Problem | null {
  if (netlist.storage.length > 0) {
    const stepper = Stepper.of(netlist);
    return stepper.ok ? null : stepper.problem;
  }
  return netlist.inputColumns.length > MOST_ROWS ? null : whyNoTable(netlist);
}

/** How a pair of states was reached: from which one, by which row of inputs. */
interface Reached {
  readonly a: readonly Logic[];
  readonly b: readonly Logic[];
  readonly from: number;
  readonly row: number;
}

function explored(
  netlist: Netlist,
  a: Stepper,
  b: Stepper,
  places: readonly number[],
  outputs: readonly number[],
  { progress = () => {}, mostSteps = MOST_STEPS }: ProofOptions,
): Proof {
  const method = 'all states from power-up';
  const width = a.columns.length;
  if (width > MOST_INPUTS)
    return {
      verdict: 'undecided',
      method,
      reason: `${width} inputs make more rows a clock than are looked at: ${MOST_INPUTS} are the most`,
    };
  const rows = 2 ** width;
  const key = (one: { a: readonly Logic[]; b: readonly Logic[] }) => `${one.a.join('')}|${one.b.join('')}`;
  const begin: Reached = { a: a.powerUp(), b: b.powerUp(), from: -1, row: 0 };
  const reached: Reached[] = [begin];
  const seen = new Set([key(begin)]);
  let steps = 0;
  for (let at = 0; at < reached.length; at++) {
    const state = reached[at]!;
    for (let row = 0; row < rows; row++) {
      if (++steps > mostSteps || seen.size > MOST_STATES)
        return {
          verdict: 'undecided',
          method,
          reason: `${seen.size} states were reached and no difference was found; more are not looked at`,
        };
      const bits = Array.from({ length: width }, (_, i) => (inputAt(width, i, row) ? ONE : ZERO));
      const theirs: Logic[] = [];
      for (const [i, place] of places.entries()) theirs[place] = bits[i]!;
      const mine = a.step(state.a, bits);
      const other = b.step(state.b, theirs);
      if (outputs.some((place, o) => mine.outputs[o] !== other.outputs[place]))
        return {
          verdict: 'different',
          method,
          inputs: sequence(reached, at, row, a),
          outputs: {
            a: shown(netlist, mine.outputs),
            b: shown(
              netlist,
              outputs.map((place) => other.outputs[place]!),
            ),
          },
        };
      const next = { a: mine.next, b: other.next, from: at, row };
      const known = key(next);
      if (seen.has(known)) continue;
      seen.add(known);
      reached.push(next);
    }
    if ((at & 63) === 0) progress(at / Math.max(reached.length, 2 * at + 1));
  }
  return { verdict: 'equivalent', method: `${method} (${seen.size})` };
}

const shown = (netlist: Netlist, values: readonly Logic[]) =>
  Object.fromEntries(netlist.outputColumns.map((c, o) => [c.name, letterOf(values[o]!)]));

/** The rows of inputs, one a clock, that lead from power-up to a state, and the one at which they differ there. */
function sequence(reached: readonly Reached[], at: number, last: number, a: Stepper): Row[] {
  const rows = [last];
  for (let i = at; reached[i]!.from !== -1; i = reached[i]!.from) rows.push(reached[i]!.row);
  const width = a.columns.length;
  return rows
    .reverse()
    .map((row) => Object.fromEntries(a.columns.map((c, i) => [c.name, inputAt(width, i, row)])));
}
