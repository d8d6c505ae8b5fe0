import { z } from 'zod';

/** Most inputs that a wanted function may have: 2^12 rows are checked in the blink of an eye everywhere. */
export const MOST_WANTED_INPUTS = 12;

/** A signal's name as people write it on a sheet. */
export const SignalName = z
  .string()
  .trim()
  .min(1, 'a name is empty')
  .max(40, 'a name is longer than 40 letters');

/** What an output should be, row by row: `0`, `1`, or `x` where either will do. Row 0 comes first. */
const WantedColumn = z.object({
  name: SignalName,
  rows: z.string().regex(/^[01x]*$/, 'a wanted column holds only 0, 1 and x'),
});

/** A truth table that is wanted: the first-named input is the most significant bit of the row number. */
export const Wanted = z
  .object({
    inputs: z.array(SignalName).min(1, 'at least one input is needed').max(MOST_WANTED_INPUTS),
    outputs: z.array(WantedColumn).min(1, 'at least one output is needed').max(32),
  })
  .superRefine((wanted, context) => {
    const names = [...wanted.inputs, ...wanted.outputs.map((o) => o.name)];
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i)
        context.addIssue({ code: 'custom', message: `the name ${name} stands twice` });
    const rows = 2 ** wanted.inputs.length;
    for (const [i, output] of wanted.outputs.entries())
      if (output.rows.length !== rows)
        context.addIssue({
          code: 'custom',
          path: ['outputs', i, 'rows'],
          message: `${output.name} has ${output.rows.length} rows where ${rows} are needed`,
        });
  });
export type Wanted = z.infer<typeof Wanted>;

/** What the instructor hands out: a task in words, the function that is wanted, the parts that may be used. */
export const Exercise = z.object({
  id: z.string().regex(/^[a-z0-9-]{4,64}$/i),
  title: z.string().trim().min(1, 'the exercise has no title').max(120),
  task: z.string().max(20_000),
  wanted: Wanted,
  /** Kinds of part from the catalogue; switches and lamps can always be used. */
  allowed: z.array(z.string().max(40)).max(200),
  made: z.iso.datetime(),
});
export type Exercise = z.infer<typeof Exercise>;
