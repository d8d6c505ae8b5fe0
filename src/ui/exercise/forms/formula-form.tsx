'use client';

import { smallestIn, WANTED_FORMS, type WantedForm } from '@/core/exercise/kinds/formula';
import { type FunctionRows, functionsOfSheet } from '@/core/exercise/kinds/function';
import { done, type Result, refusal } from '@/core/values/result';
import { FormProblem } from './FormProblem';
import { GivenChoice, givenOf } from './GivenChoice';
import { smallFunctions } from './map-form';
import { OutputChoice } from './OutputChoice';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly made: Result<FunctionRows[]>;
  readonly output: string;
  readonly form: WantedForm;
  readonly mostLiterals: string;
  readonly showsTable: boolean;
  readonly isGiven: boolean;
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { made, output, form, mostLiterals, showsTable, isGiven } = draft;
  if (!made.ok) return <FormProblem problem={made.problem} />;
  const found = made.value.find((f) => f.output === output)!;
  const smallest = smallestIn(form, found);
  return (
    <>
      <div className="flex flex-wrap gap-4">
        <OutputChoice
          all={made.value}
          chosen={output}
          onChoose={(chosen) => onDraft({ ...draft, output: chosen })}
        />
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Form</span>
          <select
            className="field"
            value={form}
            onChange={(event) => onDraft({ ...draft, form: event.target.value as WantedForm })}
          >
            {WANTED_FORMS.map((one) => (
              <option key={one} value={one}>
                {one}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Most literals</span>
          <span className="flex items-center gap-2">
            <input
              className="field w-20"
              type="number"
              min={1}
              max={200}
              value={mostLiterals}
              placeholder="any"
              onChange={(event) => onDraft({ ...draft, mostLiterals: event.target.value })}
            />
            {smallest !== null && <span className="text-sm text-quiet">{smallest} are enough</span>}
          </span>
        </label>
      </div>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={showsTable}
          onChange={(event) => onDraft({ ...draft, showsTable: event.target.checked })}
        />
        Show the table of the function
      </label>
      <GivenChoice
        source={source}
        isGiven={isGiven}
        onGiven={(given) => onDraft({ ...draft, isGiven: given })}
      />
    </>
  );
}

export const formulaForm: TaskForm<Draft> = {
  kind: 'formula',
  begin({ sheet, sheets }) {
    const made = smallFunctions(functionsOfSheet(sheet, sheets));
    const output = made.ok ? made.value[0]!.output : '';
    return { made, output, form: 'any', mostLiterals: '', showsTable: true, isGiven: false };
  },
  Form,
  finish(source, { made, output, form, mostLiterals, showsTable, isGiven }) {
    if (!made.ok) return refusal(made.problem);
    const found = made.value.find((f) => f.output === output)!;
    const most = mostLiterals.trim() === '' ? null : Number(mostLiterals);
    return done({
      given: givenOf(source, isGiven),
      asked: { inputs: found.inputs, output, form, mostLiterals: most, showsTable },
      key: { function: found },
    });
  },
};
