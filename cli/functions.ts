import type { SpecTable } from '../src/core/circuit/spec-table';
import { withoutGzip } from '../src/core/formats/gzip';
import { namesOf } from '../src/core/logic/expression/expression';
import { readFormulas } from '../src/core/logic/expression/typed-formulas';
import type { BooleanFunction } from '../src/core/logic/minimise/cube';
import { functionOfSpec, specWithNames } from '../src/core/logic/specification/spec-edits';
import { withColumn } from '../src/core/logic/specification/spec-formulas';
import { specFromText } from '../src/core/logic/specification/spec-text';
import { BadInput } from './bad-input';
import { textOf } from './open-circuit';

/** One output that was asked for. */
export interface Asked {
  readonly name: string;
  readonly fn: BooleanFunction;
}

/**
 * The functions of an argument: a table (`*.csv`), or a formula, `A'B + C` or `Y = A'B + C`; several formulas
 * are separated by `;`.
 * @param inputs names in order, where the order in the formula or the columns of the table do not decide it.
 * @throws BadInput with the place of the error.
 */
export async function functionsOf(
  given: string,
  inputs: readonly string[] | null,
): Promise<{ readonly inputs: readonly string[]; readonly outputs: readonly Asked[] }> {
  const plan = withoutGzip(given).endsWith('.csv')
    ? tableOf(given, await textOf(given), inputs)
    : formulasOf(given, inputs);
  return {
    inputs: plan.inputs,
    outputs: plan.outputs.map(({ name }, o) => ({ name, fn: functionOfSpec(plan, o) })),
  };
}

function tableOf(file: string, text: string, inputs: readonly string[] | null): SpecTable {
  const made = specFromText(inputs ? bordered(file, text, inputs) : text);
  if (!made.ok) throw new BadInput(`${file}: ${made.problem.message}`);
  return made.value;
}

/** The text of a table with a column `=` put behind the named inputs, which must be the first columns. */
function bordered(file: string, text: string, inputs: readonly string[]): string {
  const lines = text.split(/\r?\n/).filter((line) => line.trim());
  const heading = lines[0]?.split(',').map((c) => c.trim()) ?? [];
  if (heading.includes('=')) return text;
  if (inputs.some((name, i) => heading[i] !== name))
    throw new BadInput(`${file}: --inputs ${inputs.join(',')}: the first columns are ${heading.join(', ')}`);
  return lines
    .map((line, r) => {
      const cells = line.split(',');
      return [...cells.slice(0, inputs.length), r === 0 ? '=' : '', ...cells.slice(inputs.length)].join(',');
    })
    .join('\n');
}

function formulasOf(given: string, inputs: readonly string[] | null): SpecTable {
  const read = readFormulas(given, inputs ?? []);
  if (!read.ok)
    throw new BadInput(
      `${given.trim()}: character ${read.problem.place.offset + 1}: ${read.problem.message}`,
    );
  const names: string[] = [...(inputs ?? [])];
  for (const { expression } of read.value)
    for (const name of namesOf(expression)) {
      if (names.includes(name)) continue;
      if (inputs) throw new BadInput(`${given.trim()}: ${name} is not among --inputs ${inputs.join(',')}`);
      names.push(name);
    }
  if (!inputs) names.sort();
  const many = read.value.length > 1;
  const outputs = read.value.map(({ name }, i) => name ?? (many ? `Y${i}` : 'Y'));
  const empty = specWithNames(names.length ? names : ['A'], outputs);
  if (!empty.ok) throw new BadInput(`${given}: ${empty.problem.message}`);
  return read.value.reduce((plan, { expression }, o) => withColumn(plan, o, expression), empty.value);
}
