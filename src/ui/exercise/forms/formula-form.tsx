'use client';

import {
  type FormulaAsked,
  type FormulaTask,
  smallestIn,
  WANTED_FORMS,
  type WantedForm,
} from '@/core/exercise/kinds/formula';
import { type FunctionRows, functionsOfSheet } from '@/core/exercise/kinds/function';
import { done, type Result, refusal } from '@/core/values/result';
import { FormProblem } from './FormProblem';
import { GivenChoice, givenOf } from './GivenChoice';
import { smallFunctions } from './map-form';
import { OutputChoice } from './OutputChoice';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft extends Asks {
  readonly made: Result<FunctionRows[]>;
  readonly output: string;
  readonly isGiven: boolean;
}

type Asks = Pick<FormulaAsked, 'form' | 'mostLiterals' | 'showsTable'>;

interface FormulaFieldsProps {
  readonly of: FunctionRows;
  readonly asked: Asks;
  readonly onAsked: (asked: Asks) => void;
}

/** Literals as they are typed; null for any number. */
function literalsOf(typed: string): number | null {
  const most = Math.round(Number(typed));
  return typed.trim() === '' || !(most >= 1) ? null : Math.min(most, 200);
}

/** The form that is wanted, how many literals, and whether the table is shown. */
function FormulaFields({ of, asked: { form, mostLiterals, showsTable }, onAsked }: FormulaFieldsProps) {
  const asked = { form, mostLiterals, showsTable };
  const smallest = smallestIn(form, of);
  return (
    <>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Form</span>
        <select
          className="field"
          value={form}
          onChange={(event) => onAsked({ ...asked, form: event.target.value as WantedForm })}
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
            value={mostLiterals ?? ''}
            placeholder="any"
            onChange={(event) => onAsked({ ...asked, mostLiterals: literalsOf(event.target.value) })}
          />
          {smallest !== null && <span className="text-sm text-quiet">{smallest} are enough</span>}
        </span>
      </label>
      <label className="flex w-full items-center gap-1.5">
        <input
          type="checkbox"
          checked={showsTable}
          onChange={(event) => onAsked({ ...asked, showsTable: event.target.checked })}
        />
        Show the table of the function
      </label>
    </>
  );
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { made, output, isGiven } = draft;
  if (!made.ok) return <FormProblem problem={made.problem} />;
  const found = made.value.find((f) => f.output === output)!;
  return (
    <>
      <div className="flex flex-wrap gap-4">
        <OutputChoice
          all={made.value}
          chosen={output}
          onChoose={(chosen) => onDraft({ ...draft, output: chosen })}
        />
        <FormulaFields of={found} asked={draft} onAsked={(next) => onDraft({ ...draft, ...next })} />
      </div>
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
    return { made, output, form: 'any', mostLiterals: null, showsTable: true, isGiven: false };
  },
  Form,
  Later: later<FormulaTask>(({ task, onTask }) => (
    <div className="flex flex-wrap gap-4">
      <FormulaFields
        of={task.key.function}
        asked={task.asked}
        onAsked={(asked) => onTask({ asked: { ...task.asked, ...asked } })}
      />
    </div>
  )),
  finish(source, { made, output, form, mostLiterals, showsTable, isGiven }) {
    if (!made.ok) return refusal(made.problem);
    const found = made.value.find((f) => f.output === output)!;
    return done({
      given: givenOf(source, isGiven),
      asked: { inputs: found.inputs, output, form, mostLiterals, showsTable },
      key: { function: found },
    });
  },
};
