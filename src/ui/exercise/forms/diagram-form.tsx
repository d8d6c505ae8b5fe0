'use client';

import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import { type DiagramTask, lanesAsked, MOST_CELLS } from '@/core/exercise/kinds/diagram';
import {
  diagramOfTask,
  diagramTask,
  type WholeDiagram,
  wholeDiagram,
} from '@/core/exercise/kinds/diagram/set-up';
import { done, type Result, refusal, refused } from '@/core/values/result';
import { readDuration, timeText } from '@/core/values/time';
import { LaneGrid } from '../LaneGrid';
import { AskedLater } from './AskedLater';
import { FormProblem } from './FormProblem';
import { givenOf, PredictedChoice } from './GivenChoice';
import { PickedNames } from './PickedNames';
import { type FormProps, later, type TaskForm } from './task-form';

interface Draft {
  readonly cells: string;
  /** Time of a cell as it was typed; empty for the usual one. */
  readonly cell: string;
  readonly made: Result<WholeDiagram>;
  readonly asked: ReadonlySet<string>;
  readonly isGiven: boolean;
  readonly isPredicted: boolean;
}

const USUAL_CELLS = '16';

function made(
  { sheet, sheets, settings, on }: SetUpSource,
  cells: string,
  cell: string,
): Result<WholeDiagram> {
  const count = Number(cells);
  if (!Number.isInteger(count) || count < 2 || count > MOST_CELLS)
    return refused('bad-count', `give a number of cells from 2 to ${MOST_CELLS}`);
  const ps = cell.trim() === '' ? null : readDuration(cell);
  if (cell.trim() !== '' && !(ps && ps > 0))
    return refused('bad-time', 'give the time of a cell, such as 10 ns');
  return wholeDiagram(sheet, sheets, settings, on, count, ps);
}

function Form({ source, draft, onDraft }: FormProps<Draft>) {
  const { asked, cells, cell } = draft;
  const change = (next: Partial<Pick<Draft, 'cells' | 'cell'>>) => {
    const now = { ...draft, ...next };
    onDraft({ ...now, made: made(source, now.cells, now.cell) });
  };
  return (
    <>
      <div className="flex gap-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Cells</span>
          <input
            className="field w-24"
            type="number"
            min={2}
            max={MOST_CELLS}
            value={cells}
            onChange={(event) => change({ cells: event.target.value })}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Time of a cell</span>
          <input
            className="field w-36"
            value={cell}
            placeholder={draft.made.ok ? timeText(draft.made.value.cell) : 'such as 10 ns'}
            onChange={(event) => change({ cell: event.target.value })}
          />
        </label>
      </div>
      {draft.made.ok ? (
        <fieldset className="flex flex-col gap-2">
          <legend className="mb-1 font-semibold">Lanes that are drawn</legend>
          <PickedNames
            names={draft.made.value.lanes.map(({ name }) => name)}
            picked={asked}
            onPicked={(next) => onDraft({ ...draft, asked: next })}
          />
          <div className="rounded-lg border border-hairline bg-raised p-2">
            <LaneGrid
              label="The lanes with what is wanted"
              cell={draft.made.value.cell}
              cells={draft.made.value.cells}
              lanes={draft.made.value.lanes}
            />
          </div>
        </fieldset>
      ) : (
        <FormProblem problem={draft.made.problem} />
      )}
      <PredictedChoice
        source={source}
        is={draft}
        onChoice={(is) => onDraft({ ...draft, ...is })}
        until="the lanes are drawn"
      />
    </>
  );
}

export const diagramForm: TaskForm<Draft> = {
  kind: 'diagram',
  begin(source) {
    const whole = made(source, USUAL_CELLS, '');
    const outputs = whole.ok ? whole.value.lanes.filter(({ isInput }) => !isInput) : [];
    return {
      cells: USUAL_CELLS,
      cell: '',
      made: whole,
      asked: new Set(outputs.map(({ name }) => name)),
      isGiven: true,
      isPredicted: true,
    };
  },
  Form,
  Later: later<DiagramTask>(({ task, onTask }) => {
    const open = new Set(lanesAsked(task.asked).map(({ name }) => name));
    const take = (asked: ReadonlySet<string>, isPredicted = task.asked.isPredicted) => {
      if (asked.size > 0) onTask(diagramTask(diagramOfTask(task), asked, isPredicted));
    };
    return (
      <AskedLater
        title="Lanes that are drawn"
        names={task.asked.lanes.map(({ name }) => name)}
        asked={open}
        onAsked={take}
        predicted={task.given && { is: task.asked.isPredicted, onIs: (is) => take(open, is) }}
      />
    );
  }),
  finish(source, { made: whole, asked, isGiven, isPredicted }) {
    if (!whole.ok) return refusal(whole.problem);
    if (!whole.value.lanes.some(({ name }) => asked.has(name)))
      return refused('nothing-asked', 'choose a lane that is drawn');
    const given = givenOf(source, isGiven);
    return done({ given, ...diagramTask(whole.value, asked, given !== null && isPredicted) });
  },
};
