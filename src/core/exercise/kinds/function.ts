import type { Sheet } from '../../circuit/sheet';
import { SignalName } from '../../circuit/signal-name';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../../logic/minimise/cube';
import { done, type Result } from '../../values/result';
import { type Infer, z } from '../../values/schema';
import { tableOfSheet } from '../expected/table/expected-table';

/** Most inputs of a function that a student writes or groups. */
export const MOST_OF_FUNCTION = 6;

/** A function as it stands in a file: row 0 first, `x` for a don't-care, the first-named input the most significant. */
export const FunctionRows = z
  .object({
    inputs: z
      .array(SignalName)
      .check(z.minLength(1, 'at least one input is needed'), z.maxLength(MOST_OF_FUNCTION)),
    output: SignalName,
    rows: z.string().check(z.regex(/^[01x]{2,64}$/, 'the rows of a function hold only 0, 1 and x')),
  })
  .check((context) => {
    const { inputs, output, rows } = context.value;
    const complain = (message: string) =>
      context.issues.push({ code: 'custom', message, path: [], input: context.value });
    const names = [...inputs, output];
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    if (rows.length !== 2 ** inputs.length)
      complain(`${output} has ${rows.length} rows where ${2 ** inputs.length} are needed`);
  });
export type FunctionRows = Infer<typeof FunctionRows>;

const VALUES: Readonly<Record<string, number>> = { '0': OFF, '1': ON, x: DONT_CARE };

/** The function for the tools of logic. */
export const functionOf = ({ inputs, rows }: FunctionRows): BooleanFunction => ({
  inputs: inputs.length,
  rows: Uint8Array.from(rows, (letter) => VALUES[letter]!),
});

/** The functions of a sheet's outputs. */
export function functionsOfSheet(sheet: Sheet, sheets: readonly Sheet[]): Result<FunctionRows[]> {
  const table = tableOfSheet(sheet, sheets);
  if (!table.ok) return table;
  const { inputs, outputs } = table.value;
  return done(outputs.map(({ name, rows }) => ({ inputs, output: name, rows })));
}
