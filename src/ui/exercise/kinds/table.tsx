'use client';

import {
  columnsAsked,
  filledIn,
  isSameCell,
  type TableAnswer,
  type TableCheck,
  type TableTask,
} from '@/core/exercise/kinds/table';
import { sameName } from '@/core/values/names';
import { goToNamedRow } from '@/session/changes/columns';
import { answerNow } from '@/session/changes/task';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { CellGrid } from '../CellGrid';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

function Work({ task: any, answer, onAnswer, onFinal }: WorkProps) {
  const task = any as TableTask;
  const session = useSession();
  const { asked, given } = task;
  const filled = filledIn(task, answer as TableAnswer | null);
  const observed = useObserved(task);
  const mayFill = onAnswer && !(asked.isPredicted && filled.isFinal);
  const take = (now: TableAnswer, column: number, row: number, value: string) =>
    onAnswer?.({
      ...now,
      columns: now.columns.with(column, now.columns[column]!.with(row, value)),
    } as TableAnswer);
  // What is typed quickly comes before the page has shown the last cell.
  const fill = (column: number, row: number, value: string) =>
    take(filledIn(task, answerNow(session, task) as TableAnswer | null), column, row, value);
  const isFull = filled.columns.every((cells) => cells.every((cell) => cell !== ''));
  return (
    <>
      <CellGrid
        label="Table to fill in"
        columns={asked.columns}
        rows={asked.rows}
        filled={filled.columns}
        values={asked.values}
        onFill={mayFill ? fill : undefined}
        besideOf={
          asked.isPredicted && filled.isFinal
            ? (column, row) => {
                const seen = observed(column, row);
                if (seen === null) return <span className="text-xs text-quiet">–</span>;
                const isSame = isSameCell(seen, filled.columns[column]![row]!);
                return (
                  <b className={isSame ? 'text-good' : 'text-bad'} {...hint('Observed on the circuit')}>
                    <span className="sr-only">observed </span>
                    {seen}
                  </b>
                );
              }
            : undefined
        }
      />
      {asked.isPredicted && given && onFinal && (
        <div className="flex items-center gap-3">
          {filled.isFinal ? (
            <p className="text-sm text-quiet">
              Your prediction stands. Try rows on the circuit: what it does appears beside it.
            </p>
          ) : (
            <button
              type="button"
              className="button"
              disabled={!isFull}
              onClick={() => onFinal({ ...filled, isFinal: true } as TableAnswer)}
              {...hint(
                isFull
                  ? 'Your prediction becomes final, and the circuit can be tried'
                  : 'Fill in every cell first',
              )}
            >
              Observe
            </button>
          )}
        </div>
      )}
    </>
  );
}

/** What was seen on the live circuit in a row of a column, or null. */
function useObserved({ asked }: TableTask): (column: number, row: number) => string | null {
  const tried = useSessionState((s) => s.tried);
  const netlist = useSessionState((s) => s.netlist);
  const inputs = asked.columns.filter(({ isInput }) => isInput);
  const open = columnsAsked(asked);
  // The row of the circuit with the inputs as in a row of the table.
  const rowOf = (row: number) => {
    let at = 0;
    for (const column of netlist.inputColumns) {
      const cells = inputs.find(({ name }) => sameName(name, column.name))?.cells;
      if (!cells) return null;
      at = at * 2 + Number(cells[row]);
    }
    return at;
  };
  return (column, row) => {
    const output = netlist.outputColumns.findIndex((c) => sameName(c.name, open[column]!.name));
    const at = rowOf(row);
    return at === null || output === -1 ? null : (tried.get(at)?.[output] ?? null);
  };
}

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  const task = any as TableTask;
  const session = useSession();
  const { isRight, answer } = mark.detail as TableCheck;
  const still = useSessionState((s) => s.rules.still);
  if (tells !== 'wanted' && tells !== 'places') return null;
  // Of an empty table nothing is told.
  if (answer.columns.flat().every((cell) => cell === '')) return null;
  const names = task.asked.columns.filter(({ isInput }) => isInput).map(({ name }) => name);
  return (
    <div className="mt-2">
      <CellGrid
        label="What is right"
        columns={task.asked.columns}
        rows={task.asked.rows}
        filled={answer.columns}
        values={task.asked.values}
        lookOf={(column, row) =>
          isRight[column]![row] || answer.columns[column]![row] === ''
            ? ''
            : 'font-bold text-bad line-through decoration-2'
        }
        besideOf={(column, row) =>
          tells === 'wanted' && !isRight[column]![row] && answer.columns[column]![row] !== '' ? (
            <b>
              <span className="sr-only">should be </span>
              {task.key.columns[column]![row]}
            </b>
          ) : null
        }
        endOf={(row) => {
          const ok = isRight.every((cells) => cells[row]);
          return (
            <span className={ok ? 'text-good' : 'text-bad'}>
              {ok ? '✓' : '✗'}
              <span className="sr-only">
                {' '}
                row {row}: {ok ? 'right' : 'wrong'}
              </span>
              {task.given && !still && names.length > 0 && (
                <button
                  type="button"
                  className="ml-1 cursor-pointer rounded-md px-1 font-sans text-xs underline hover:bg-accent-soft"
                  onClick={() => goToNamedRow(session, names, row)}
                  {...hint('Put the switches to this row')}
                >
                  try
                </button>
              )}
            </span>
          );
        }}
      />
    </div>
  );
}

export const table: TaskView = { kind: 'table', Work, Feedback };
