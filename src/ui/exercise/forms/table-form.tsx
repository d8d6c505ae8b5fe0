'use client';

import { tableTask, usuallyAsked, type WholeTable, wholeTable } from '@/core/exercise/kinds/table/set-up';
import { done, type Result, refusal, refused, sentence } from '@/core/values/result';
import { CellGrid } from '../CellGrid';
import { GivenChoice, givenOf } from './GivenChoice';
import type { FormProps, TaskForm } from './task-form';

interface Draft {
  readonly made: Result<WholeTable>;
  readonly asked: ReadonlySet<string>;
  readonly isGiven: boolean;
  readonly isPredicted: boolean;
}

/** Which columns of the sheet's table are filled in, and whether its circuit is given. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { made, asked, isGiven, isPredicted } = draft;
  if (!made.ok)
    return (
      <p role="alert" className="text-sm text-bad">
        {sentence(made.problem)}
      </p>
    );
  const table = made.value;
  const turn = (name: string) => {
    const next = new Set(asked);
    if (!next.delete(name)) next.add(name);
    onDraft({ ...draft, asked: next });
  };
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-semibold">Columns that are filled in</legend>
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        {table.columns.map(({ name }) => (
          <label key={name} className="flex items-center gap-1.5">
            <input type="checkbox" checked={asked.has(name)} onChange={() => turn(name)} />
            {name}
          </label>
        ))}
      </div>
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
      <GivenChoice
        source={source}
        isGiven={isGiven}
        onGiven={(given) => onDraft({ ...draft, isGiven: given })}
      />
      {isGiven && (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={isPredicted}
            onChange={(event) => onDraft({ ...draft, isPredicted: event.target.checked })}
          />
          The circuit stands still until the table is filled in: predict first, then observe
        </label>
      )}
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
