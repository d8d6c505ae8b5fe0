import type { Proof, Row, Shown } from '../src/core/logic/equivalence/prove';
import { prove as proveSame } from '../src/core/logic/equivalence/prove-sequences';
import { printable } from '../src/core/values/printable';
import { BadInput } from './bad-input';
import { type CircuitOptions, compiled, openCircuit } from './open-circuit';
import { progressLine, writeLines, writeStats } from './write-out';

interface Options extends CircuitOptions {
  /** The sheet of the second circuit, if its name differs from that of the first. */
  readonly otherSheet?: string;
  readonly format: 'text' | 'json';
  readonly stats?: boolean;
}

/**
 * `manege prove`: whether two circuits do the same.
 * @returns whether it is proved that they do.
 * @throws BadInput where one cannot be read, or where their ports do not match.
 */
export async function prove(a: string, b: string, options: Options): Promise<boolean> {
  const other = { ...options, sheet: options.otherSheet ?? options.sheet };
  const [first, second] = await Promise.all([openCircuit(a, options), openCircuit(b, other)]);
  const [mine, theirs] = [compiled(first), compiled(second)];
  const progress = progressLine('proving');
  const begun = performance.now();
  const made = proveSame(mine, theirs, { progress });
  const elapsedMs = performance.now() - begun;
  progress(1);
  if (!made.ok) throw new BadInput(`${a}, ${b}: they cannot be compared: ${made.problem.message}`);
  await writeLines(
    options.format === 'json' ? [JSON.stringify(asJson(made.value))] : asText(made.value).map(printable),
  );
  if (options.stats)
    writeStats({
      elapsedMs: +elapsedMs.toFixed(3),
      rows: 0,
      gates: mine.op.length + theirs.op.length,
      events: 0,
    });
  return made.value.verdict === 'equivalent';
}

function asJson(proof: Proof): object {
  if (proof.verdict !== 'different') return proof;
  // A sequence is a list of rows, one a clock; a circuit without memory has only one.
  const { inputs, ...rest } = proof;
  return { ...rest, inputs: proof.method.startsWith('all states') ? inputs : inputs[0] };
}

const row = (values: Row | Shown) =>
  Object.entries(values)
    .map(([name, value]) => `${name}=${value}`)
    .join(' ');

function asText(proof: Proof): string[] {
  if (proof.verdict === 'equivalent') return [`equivalent: proved by ${proof.method}`];
  if (proof.verdict === 'undecided') return [`undecided: ${proof.reason}`];
  const { inputs, outputs } = proof;
  const way =
    inputs.length === 1 ? [`inputs   ${row(inputs[0]!)}`] : inputs.map((r, i) => `clock ${i + 1}  ${row(r)}`);
  return ['different', ...way, `first    ${row(outputs.a)}`, `second   ${row(outputs.b)}`];
}
