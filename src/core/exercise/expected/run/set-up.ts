import { MOST_READINGS } from '../../../circuit/time-setup';
import { mapped, type Result } from '../../../values/result';
import type { SetUp, SetUpSource, SetUpValues } from '../expected-kind';
import { type ExpectedRun, type OwnRun, runOfSheet } from './expected-run';

/** How often a run is read at first. */
const USUAL_READINGS = '16';

function made({ sheet, sheets, settings, on }: SetUpSource, values: SetUpValues): Result<OwnRun> {
  const stimulus = sheet.time?.stimuli.find((s) => s.name === values.stimulus) ?? null;
  return runOfSheet(sheet, { sheets, settings }, stimulus, on, Number(values.readings));
}

/** The run of the teacher's own sheet under one of its stimuli. */
export const ofSheet: SetUp<ExpectedRun> = {
  name: 'This sheet’s run',
  from: 'sheet',
  isAlwaysOffered: true,
  fields: ({ sheet }) => [
    {
      id: 'stimulus',
      label: 'Driven by',
      control: 'choice',
      options: [
        ['', 'its clock, switches as they stand'],
        ...(sheet.time?.stimuli ?? []).map(({ name }) => [name, name] as const),
      ],
    },
    { id: 'readings', label: 'Readings', control: 'number', least: 1, most: MOST_READINGS },
  ],
  initial: ({ sheet }) => ({ stimulus: sheet.time?.driven ?? '', readings: USUAL_READINGS }),
  make: (source, values) => mapped(made(source, values), (own) => own.expected),
  hint: ({ inputs }, { sheet }) =>
    [
      inputs.some((i) => i.wave.pattern === 'periodic')
        ? 'Outputs are read just before each active clock edge.'
        : 'Outputs are read just before an input changes.',
      'Press a cell in which either value will do: it becomes x, and does not count.',
      !sheet.time?.stimuli.length && 'Make a stimulus on the Time face to drive the inputs in another way.',
    ]
      .filter(Boolean)
      .join(' '),
  turn: readingTurned,
};

/** The expectation with one word of an output toggled: `x` for all its bits, or back to the original. */
export function readingTurned(
  expected: ExpectedRun,
  of: ExpectedRun,
  output: number,
  row: number,
): ExpectedRun {
  const outputs = expected.outputs.map((o, i) => {
    if (i !== output) return o;
    const free = 'x'.repeat(o.width);
    const word = o.values[row] === free ? of.outputs[output]!.values[row]! : free;
    return { ...o, values: o.values.with(row, word) };
  });
  return { ...expected, outputs };
}
