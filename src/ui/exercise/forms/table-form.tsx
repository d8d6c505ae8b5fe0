'use client';

import { tableTask, usuallyAsked, type WholeTable, wholeTable } from '@/core/exercise/kinds/table/set-up';
import { done, type Result, refusal, refused } from '@/core/values/result';
import { CellGrid } from '../CellGrid';
import { FormProblem } from './FormProblem';
import { givenOf, PredictedChoice } from './GivenChoice';
import { PickedNames } from './PickedNames';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly made: Result<WholeTable>;
  readonly asked: ReadonlySet<string>;
  readonly isGiven: boolean;
  readonly isPredicted: boolean;
}

/** Which columns of the sheet's table are filled in, and whether its circuit is given. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { made, asked } = draft;
  if (!made.ok) return <FormProblem problem={made.problem} />;
  const table = made.value;
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Columns that are filled in</legend>
      <PickedNames
        names={table.columns.map(({ name }) => name)}
        picked={asked}
        onPicked={(next) => onDraft({ ...draft, asked: next })}
      />
      <div className="max-h-56 overflow-auto rounded-lg border border-hairline bg-raised p-1">
        <CellGrid
          label="The table with what is wanted"
          columns={table.columns.map(({ name, cells }) => ({ name, cells: asked.has(name) ? null : cells }))}
          rows={table.rows}
          filled={table.columns.filter(({ name }) => asked.has(name)).map(({ cells }) => cells)}
          values={['0', '1']}
          lookOf={() => 'text-accent font-bold'}
        />
      </div>
      <PredictedChoice
        source={source}
        is={draft}
        onChoice={(is) => onDraft({ ...draft, ...is })}
        until="the table is filled in"
      />
    </fieldset>
  );
}

export const tableForm: TaskForm<Draft> = {
  kind: 'table',
  begin({ sheet, sheets }) {
    const made = wholeTable(sheet, sheets);
    return { made, asked: made.ok ? usuallyAsked(made.value) : new Set(), isGiven: true, isPredicted: true };
  },
  Form,
  finish(source, { made, asked, isGiven, isPredicted }) {
    if (!made.ok) return refusal(made.problem);
    if (asked.size === 0) return refused('nothing-asked', 'choose a column that is filled in');
    const given = givenOf(source, isGiven);
    return done({ given, ...tableTask(made.value, asked, given !== null && isPredicted) });
  },
};
