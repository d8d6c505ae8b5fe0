import { type Infer, z } from '../values/schema';
import { SignalName } from './signal-name';

/** Most inputs and outputs of a table that is filled in. */
export const MOST_SPEC_INPUTS = 16;
export const MOST_SPEC_OUTPUTS = 32;

/** An empty cell; the other values are `0`, `1` and `x` (don't care). */
export const OPEN_CELL = '.';

const Column = z.object({
  name: SignalName,
  rows: z.string().check(z.regex(/^[01x.]*$/, 'a column holds only 0, 1, x and .')),
});

/**
 * The table that a person fills in for a sheet, before or beside its circuit: the expected outputs. The
 * first-named input is the most significant bit of the row number; row 0 comes first.
 */
export const SpecTable = z
  .object({
    inputs: z
      .array(SignalName)
      .check(
        z.minLength(1, 'at least one input is needed'),
        z.maxLength(MOST_SPEC_INPUTS, `a table that is filled in has at most ${MOST_SPEC_INPUTS} inputs`),
      ),
    outputs: z
      .array(Column)
      .check(
        z.minLength(1, 'at least one output is needed'),
        z.maxLength(MOST_SPEC_OUTPUTS, `a table has at most ${MOST_SPEC_OUTPUTS} outputs`),
      ),
  })
  .check((context) => {
    const { inputs, outputs } = context.value;
    const complain = (message: string) =>
      context.issues.push({ code: 'custom', message, input: context.value });
    const names = [...inputs, ...outputs.map((o) => o.name)];
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    const rows = 2 ** inputs.length;
    for (const { name, rows: column } of outputs)
      if (column.length !== rows) complain(`${name} has ${column.length} rows where ${rows} are needed`);
  });
export type SpecTable = Infer<typeof SpecTable>;
