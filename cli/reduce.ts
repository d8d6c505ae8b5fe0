import { Formula, sizeOf } from '../src/core/logic/expression/forms';
import { type Notation, written } from '../src/core/logic/expression/notation';
import { MOST_EXACT_SLOWLY } from '../src/core/logic/minimise/minimise';
import { printable } from '../src/core/values/printable';
import { functionsOf } from './functions';
import { writeLines, writeStats } from './write-out';

interface Options {
  readonly inputs?: string;
  readonly form: 'sop' | 'pos';
  readonly notation: 'prime' | 'code' | 'verilog' | 'words';
  readonly format: 'text' | 'json';
  readonly stats?: boolean;
}

export const splitNames = (names: string | undefined) =>
  names === undefined
    ? null
    : names
        .split(',')
        .map((n) => n.trim())
        .filter(Boolean);

/**
 * `manege reduce`: the smallest expression for each output.
 * @throws BadInput for input that cannot be read.
 */
export async function reduce(given: string, options: Options): Promise<void> {
  const { inputs, outputs } = await functionsOf(given, splitNames(options.inputs));
  const notation: Notation = options.notation === 'code' ? 'c' : options.notation;
  const begun = performance.now();
  const found = outputs.map(({ name, fn }) => {
    // Whoever calls a command can wait.
    const formula = new Formula(name, inputs, fn, MOST_EXACT_SLOWLY);
    const expression = formula.in(options.form);
    const { terms, literals } = sizeOf(expression, options.form);
    const { exact, least } = options.form === 'sop' ? formula.ones : formula.zeros;
    return { name, expression: written(expression, notation), terms, literals, exact, least };
  });
  const elapsedMs = performance.now() - begun;
  await writeLines(
    options.format === 'json'
      ? [JSON.stringify(found)]
      : found.map((f) =>
          printable(
            `${f.name} = ${f.expression}${f.exact ? '' : `  (not proved to be the smallest${f.least > 1 ? `: none has fewer than ${f.least} terms` : ''})`}`,
          ),
        ),
  );
  if (options.stats)
    writeStats({ elapsedMs: +elapsedMs.toFixed(3), rows: 2 ** inputs.length, gates: 0, events: 0 });
}
