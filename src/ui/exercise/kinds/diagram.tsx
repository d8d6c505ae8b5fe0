'use client';

import {
  type DiagramAnswer,
  type DiagramCheck,
  type DiagramTask,
  drawn,
  lanesAsked,
  NOT_DRAWN,
} from '@/core/exercise/kinds/diagram';
import { answerNow } from '@/session/changes/task';
import { hint } from '@/ui/controls/hint';
import { useSession } from '@/ui/session/session-context';
import { type GridLane, LaneGrid } from '../LaneGrid';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

/** The lanes of a task with those of an answer in their places. */
function lanesOf(
  task: DiagramTask,
  mine: readonly string[],
  own: (lane: number) => Partial<GridLane>,
): GridLane[] {
  const open = lanesAsked(task.asked);
  return task.asked.lanes.map(({ name, levels }): GridLane => {
    if (levels !== null) return { name, levels };
    const lane = open.findIndex((one) => one.name === name);
    return { name, levels: mine[lane]!, ...own(lane) };
  });
}

function Work({ task: any, answer, onAnswer, onFinal }: WorkProps) {
  const task = any as DiagramTask;
  const session = useSession();
  const { asked, given } = task;
  const mine = drawn(task, answer as DiagramAnswer | null);
  const mayDraw = onAnswer && !(asked.isPredicted && mine.isFinal);
  const draw = (lane: number, cell: number, level: '0' | '1') => {
    // Cells that a quick pointer draws come before the page has shown the last one.
    const now = drawn(task, answerNow(session, task) as DiagramAnswer | null);
    const levels = now.lanes[lane]!;
    const next = levels.slice(0, cell) + level + levels.slice(cell + 1);
    onAnswer?.({ ...now, lanes: now.lanes.with(lane, next) } as DiagramAnswer);
  };
  const isFull = !mine.lanes.join('').includes(NOT_DRAWN);
  return (
    <>
      <LaneGrid
        label="Diagram to complete"
        cell={asked.cell}
        cells={asked.cells}
        lanes={lanesOf(task, mine.lanes, (lane) => ({
          onDraw: mayDraw ? (cell, level) => draw(lane, cell, level) : undefined,
        }))}
      />
      {mayDraw && (
        <p className="text-sm text-quiet">
          Press a cell to draw it high, once more for low; drag to draw on; or type 0 and 1.
        </p>
      )}
      {asked.isPredicted && given && onFinal && !mine.isFinal && (
        <button
          type="button"
          className="button self-start"
          disabled={!isFull}
          onClick={() => onFinal({ ...mine, isFinal: true } as DiagramAnswer)}
          {...hint(
            isFull ? 'Your diagram becomes final, and the circuit can be run' : 'Draw every cell first',
          )}
        >
          Observe
        </button>
      )}
      {mine.isFinal && (
        <p className="text-sm text-quiet">Your diagram stands. Run the circuit and compare.</p>
      )}
    </>
  );
}

/** The wanted levels of a lane, and blanks where nothing is drawn. */
const wantedWhereDrawn = ({ key }: DiagramTask, { lanes }: DiagramAnswer, lane: number): string =>
  Array.from(key.lanes[lane]!, (level, cell) => (lanes[lane]![cell] === NOT_DRAWN ? ' ' : level)).join('');

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  const task = any as DiagramTask;
  const { spans, answer } = mark.detail as DiagramCheck;
  if (tells !== 'wanted' && tells !== 'places') return null;
  if (!/[01]/.test(answer.lanes.join(''))) return null;
  const open = lanesAsked(task.asked);
  return (
    <div className="mt-2">
      <LaneGrid
        label="What is right"
        cell={task.asked.cell}
        cells={task.asked.cells}
        lanes={open.map(({ name }, lane) => ({
          name,
          levels: answer.lanes[lane]!,
          // Of what is not drawn nothing is told.
          marks: spans[lane]!.filter(({ from, to }) => /[01]/.test(answer.lanes[lane]!.slice(from, to))),
          ...(tells === 'wanted' ? { under: wantedWhereDrawn(task, answer, lane) } : {}),
        }))}
      />
    </div>
  );
}

export const diagram: TaskView = { kind: 'diagram', Work, Feedback };
