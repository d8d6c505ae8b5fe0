'use client';

import { type FunctionRows, functionsOfSheet, MOST_OF_FUNCTION } from '@/core/exercise/kinds/function';
import { done, type Result, refusal, refused } from '@/core/values/result';
import { FormProblem } from './FormProblem';
import { OutputChoice } from './OutputChoice';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly made: Result<FunctionRows[]>;
  readonly output: string;
}

/** The functions of a sheet that are small enough to be worked at by hand. */
export function smallFunctions(made: Result<FunctionRows[]>): Result<FunctionRows[]> {
  if (!made.ok || made.value[0]!.inputs.length <= MOST_OF_FUNCTION) return made;
  return refused('too-many-inputs', `the function has more than ${MOST_OF_FUNCTION} inputs`);
}

function Form({ draft, onDraft }: FormProps<Draft>) {
  const { made, output } = draft;
  if (!made.ok) return <FormProblem problem={made.problem} />;
  return (
    <OutputChoice
      all={made.value}
      chosen={output}
      onChoose={(chosen) => onDraft({ ...draft, output: chosen })}
    />
  );
}

export const mapForm: TaskForm<Draft> = {
  kind: 'map',
  begin({ sheet, sheets }) {
    const made = smallFunctions(functionsOfSheet(sheet, sheets));
    return { made, output: made.ok ? made.value[0]!.output : '' };
  },
  Form,
  finish(_, { made, output }) {
    if (!made.ok) return refusal(made.problem);
    const found = made.value.find((f) => f.output === output)!;
    return done({ given: null, asked: { function: found }, key: {} });
  },
};
