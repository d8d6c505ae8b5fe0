'use client';

import { columnsAsked, type TableTask } from '@/core/exercise/kinds/table';
import {
  characteristicTable,
  excitationTable,
  FLIP_FLOPS,
} from '@/core/exercise/kinds/table/flip-flop-tables';
import {
  tableOfTask,
  tableTask,
  typedTable,
  usuallyAsked,
  type WholeTable,
  wholeTable,
  withCell,
} from '@/core/exercise/kinds/table/set-up';
import { done, type Result, refusal, refused, sentence } from '@/core/values/result';
import { CellGrid } from '../CellGrid';
import { AskedLater } from './AskedLater';
import { FormProblem } from './FormProblem';
import { givenOf, PredictedChoice } from './GivenChoice';
import { PickedNames } from './PickedNames';
import { type FormProps, later, type TaskForm } from './task-form';

/** Where a table is from: the sheet, a kind of flip-flop, or what is typed. */
type From = 'sheet' | 'typed' | `characteristic ${string}` | `excitation ${string}`;

interface Typed {
  readonly columns: string;
  readonly rows: string;
  /** The last table that they made. */
  readonly last: WholeTable | null;
}

interface Draft {
  readonly from: From;
  readonly made: Result<WholeTable>;
  readonly asked: ReadonlySet<string>;
  readonly typed: Typed;
  readonly isGiven: boolean;
  readonly isPredicted: boolean;
}

const TYPED: Typed = { columns: 'A, B → Y', rows: '4', last: null };

function tableFrom(
  from: From,
  { sheet, sheets }: FormProps<Draft>['source'],
  { columns, rows, last }: Typed,
): Result<WholeTable> {
  if (from === 'sheet') return wholeTable(sheet, sheets);
  if (from === 'typed') return typedTable(columns, Number(rows), last);
  const [of, kind] = from.split(' ') as ['characteristic' | 'excitation', string];
  return done(of === 'characteristic' ? characteristicTable(kind) : excitationTable(kind));
}

/** Which table is filled in, which of its columns, and whether the circuit of the sheet is given. */
function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { made, asked, from, typed } = draft;
  /** Another table, or other names and rows of a typed one. */
  const take = (next: Partial<Pick<Draft, 'from' | 'typed'>>) => {
    const chosen = { ...draft, ...next };
    const table = tableFrom(chosen.from, source, chosen.typed);
    onDraft({
      ...chosen,
      made: table,
      asked: table.ok ? usuallyAsked(table.value) : asked,
      typed: { ...chosen.typed, last: chosen.from === 'typed' && table.ok ? table.value : chosen.typed.last },
    });
  };
  const fill = (column: number, row: number, value: string) => {
    if (!made.ok) return;
    const table = withCell(made.value, column, row, value);
    onDraft({ ...draft, made: done(table), typed: { ...typed, last: table } });
  };
  return (
    <>
      <label className="flex flex-col gap-1">
        <span className="font-semibold">Table</span>
        <select
          className="field max-w-96"
          value={from}
          onChange={(event) => take({ from: event.target.value as From })}
        >
          <option value="sheet">of this sheet</option>
          <option value="typed">typed in here</option>
          <optgroup label="Characteristic table">
            {FLIP_FLOPS.map(({ kind, name }) => (
              <option key={kind} value={`characteristic ${kind}`}>
                of the {name}: what it does at the edge
              </option>
            ))}
          </optgroup>
          <optgroup label="Excitation table">
            {FLIP_FLOPS.map(({ kind, name }) => (
              <option key={kind} value={`excitation ${kind}`}>
                of the {name}: what it needs at the edge
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      {from === 'typed' && (
        <div className="flex flex-wrap items-end gap-4">
          <label className="flex grow flex-col gap-1">
            <span className="font-semibold">
              Columns <span className="font-normal text-quiet">those behind the arrow are filled in</span>
            </span>
            <input
              className="field"
              value={typed.columns}
              maxLength={400}
              onChange={(event) => take({ typed: { ...typed, columns: event.target.value } })}
            />
          </label>
          <label className="flex flex-col gap-1">
            <span className="font-semibold">Rows</span>
            <input
              className="field w-24"
              type="number"
              min={1}
              max={64}
              value={typed.rows}
              onChange={(event) => take({ typed: { ...typed, rows: event.target.value } })}
            />
          </label>
        </div>
      )}
      {!made.ok && from === 'typed' && (
        <p role="alert" className="text-sm text-bad">
          {sentence(made.problem)}
        </p>
      )}
      {!made.ok && from !== 'typed' && <FormProblem problem={made.problem} />}
      {made.ok && (
        <fieldset className="flex flex-col gap-2">
          <legend className="mb-1 font-semibold">
            {from === 'typed' ? 'All of it, as it should be' : 'Columns that are filled in'}
          </legend>
          {from !== 'typed' && (
            <PickedNames
              names={made.value.columns.map(({ name }) => name)}
              picked={asked}
              onPicked={(next) => onDraft({ ...draft, asked: next })}
            />
          )}
          <div className="max-h-56 overflow-auto rounded-lg border border-hairline bg-raised p-1">
            <CellGrid
              label="The table with what is wanted"
              columns={made.value.columns.map(({ name, cells }) => ({
                name,
                cells: from !== 'typed' && !asked.has(name) ? cells : null,
              }))}
              rows={made.value.rows}
              filled={made.value.columns
                .filter(({ name }) => from === 'typed' || asked.has(name))
                .map(({ cells }) => cells)}
              values={from === 'typed' ? [] : ['0', '1']}
              lookOf={() => 'text-accent font-bold'}
              {...(from === 'typed' ? { onFill: fill } : {})}
            />
          </div>
        </fieldset>
      )}
      {from === 'sheet' && made.ok && (
        <PredictedChoice
          source={source}
          is={draft}
          onChoice={(is) => onDraft({ ...draft, ...is })}
          until="the table is filled in"
        />
      )}
    </>
  );
}

export const tableForm: TaskForm<Draft> = {
  kind: 'table',
  begin(source) {
    const made = wholeTable(source.sheet, source.sheets);
    return {
      from: 'sheet',
      made,
      asked: made.ok ? usuallyAsked(made.value) : new Set(),
      typed: TYPED,
      isGiven: true,
      isPredicted: true,
    };
  },
  Form,
  Later: later<TableTask>(({ task, onTask }) => {
    const open = new Set(columnsAsked(task.asked).map(({ name }) => name));
    const take = (asked: ReadonlySet<string>, isPredicted = task.asked.isPredicted) => {
      if (asked.size > 0) onTask(tableTask(tableOfTask(task), asked, isPredicted));
    };
    return (
      <AskedLater
        title="Columns that are filled in"
        names={task.asked.columns.map(({ name }) => name)}
        asked={open}
        onAsked={take}
        predicted={task.given && { is: task.asked.isPredicted, onIs: (is) => take(open, is) }}
      />
    );
  }),
  finish(source, { from, made, asked, isGiven, isPredicted }) {
    if (!made.ok) return refusal(made.problem);
    if (asked.size === 0) return refused('nothing-asked', 'choose a column that is filled in');
    const empty = made.value.columns.find(({ name, cells }) => asked.has(name) && cells.includes(''));
    if (empty) return refused('empty-cell', `fill in what is wanted in ${empty.name}, in every row`);
    const given = from === 'sheet' ? givenOf(source, isGiven) : null;
    return done({ given, ...tableTask(made.value, asked, given !== null && isPredicted) });
  },
};
