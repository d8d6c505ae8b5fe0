import { type Infer, list, text, title, whole, z } from '../values/schema';
import { DELAYS, MOST_READINGS, Wave } from './time-plan';

/** Most inputs that a wanted function may have: 2^12 rows are checked in the blink of an eye everywhere. */
export const MOST_WANTED_INPUTS = 12;

/** A signal's name as people write it on a sheet. */
export const SignalName = z
  .string()
  .check(z.trim(), z.minLength(1, 'a name is empty'), z.maxLength(40, 'a name is longer than 40 letters'));

/** What an output should be, row by row: `0`, `1`, or `x` where either will do. Row 0 comes first. */
const WantedColumn = z.object({
  name: SignalName,
  rows: z.string().check(z.regex(/^[01x]*$/, 'a wanted column holds only 0, 1 and x')),
});

/** A truth table that is wanted: the first-named input is the most significant bit of the row number. */
export const Wanted = z
  .object({
    is: z.optional(z.literal('table')),
    inputs: z
      .array(SignalName)
      .check(z.minLength(1, 'at least one input is needed'), z.maxLength(MOST_WANTED_INPUTS)),
    outputs: z.array(WantedColumn).check(z.minLength(1, 'at least one output is needed'), z.maxLength(32)),
  })
  .check((context) => {
    const { inputs, outputs } = context.value;
    const complain = (message: string, path: (string | number)[] = []) =>
      context.issues.push({ code: 'custom', message, path, input: context.value });
    const names = [...inputs, ...outputs.map((o) => o.name)];
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    const rows = 2 ** inputs.length;
    for (const [i, output] of outputs.entries())
      if (output.rows.length !== rows)
        complain(`${output.name} has ${output.rows.length} rows where ${rows} are needed`, [
          'outputs',
          i,
          'rows',
        ]);
  });
export type Wanted = Infer<typeof Wanted>;

/** Most inputs or outputs of a run that is wanted. */
const MOST_SIGNALS = 32;

const Width = whole(1, 64);

/** What an output should be each time it is read: its bits, the highest first, `x` where either will do. */
const WantedReadings = z.object({
  name: SignalName,
  width: Width,
  values: list(
    z.string().check(z.regex(/^[01x]{1,64}$/, 'a wanted value holds only 0, 1 and x')),
    MOST_READINGS,
  ),
});

/**
 * A run that is wanted of a circuit with storage: how each input goes, the times in ps at which the outputs are read,
 * and what they are then.
 */
export const WantedRun = z
  .object({
    is: z.literal('run'),
    inputs: z
      .array(z.object({ name: SignalName, width: Width, wave: Wave }))
      .check(z.minLength(1, 'at least one input is needed'), z.maxLength(MOST_SIGNALS)),
    outputs: z
      .array(WantedReadings)
      .check(z.minLength(1, 'at least one output is needed'), z.maxLength(MOST_SIGNALS)),
    readings: z
      .array(whole(0, Number.MAX_SAFE_INTEGER))
      .check(z.minLength(1, 'at least one reading is needed'), z.maxLength(MOST_READINGS)),
    delays: z.enum(DELAYS),
    powerUp: z.enum(['0', '1', 'X']),
  })
  .check((context) => {
    const { inputs, outputs, readings } = context.value;
    const complain = (message: string, path: (string | number)[] = []) =>
      context.issues.push({ code: 'custom', message, path, input: context.value });
    const names = [...inputs, ...outputs].map((s) => s.name);
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    for (const [i, time] of readings.entries())
      if (i > 0 && time <= readings[i - 1]!)
        complain('readings stand in the order of time, each once', ['readings', i]);
    for (const [i, { name, width, values }] of outputs.entries()) {
      if (values.length !== readings.length)
        complain(`${name} has ${values.length} values where ${readings.length} are needed`, ['outputs', i]);
      else if (values.some((v) => v.length !== width))
        complain(`${name} has a value that is not of ${width} ${width === 1 ? 'bit' : 'bits'}`, [
          'outputs',
          i,
        ]);
    }
  });
export type WantedRun = Infer<typeof WantedRun>;

/** What the instructor hands out: a task in words, the function or the run that is wanted, the parts that may be used. */
export const Exercise = z.object({
  id: z.string().check(z.regex(/^[a-z0-9-]{4,64}$/i)),
  title: title(120, 'the exercise has no title'),
  task: text(20_000),
  wanted: z.discriminatedUnion('is', [Wanted, WantedRun]),
  /** Kinds of part from the catalogue; switches and lamps can always be used. */
  allowed: list(text(40), 200),
  made: z.datetime(),
});
export type Exercise = Infer<typeof Exercise>;
