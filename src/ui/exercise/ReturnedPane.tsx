'use client';

import type { Task } from '@/core/circuit/exercise';
import { type Returned, sumOf } from '@/core/exercise/returned';
import type { Remark } from '@/core/exercise/teacher-marks';
import { counted } from '@/core/values/wording';
import { hint } from '@/ui/controls/hint';
import { taskViewOf } from './kinds';
import { RemarkText } from './RemarkText';
import { TaskText } from './TaskText';

interface Props {
  readonly returned: Returned;
  readonly task: Task;
  readonly onTask: (task: Task) => void;
}

/** A student's own work with what the teacher gave for it, task by task; each remark leads to its place. */
export function ReturnedPane({ returned, task, onTask }: Props) {
  const { lesson, tasks } = returned;
  const all = lesson.exercise!.tasks;
  const { points, of } = sumOf(returned);
  const mine = tasks[task.id];
  const { Work } = taskViewOf(task);
  return (
    <section className="pane" aria-label="Marks">
      <div className="pane-head">
        <h2 className="scrolls truncate font-semibold">{lesson.exercise!.title}</h2>
        {of > 0 && (
          <span className="ml-auto shrink-0 font-semibold">
            {points} of {counted(of, 'point')}
          </span>
        )}
      </div>
      {all.length > 1 && (
        <nav aria-label="Tasks" className="flex flex-wrap gap-1 border-b border-hairline px-3 py-2">
          {all.map((one, i) => {
            const given = tasks[one.id];
            return (
              <button
                key={one.id}
                type="button"
                className={`h-7 min-w-9 cursor-pointer rounded-lg border px-1.5 text-sm font-semibold ${
                  one === task ? 'border-accent bg-accent-soft' : 'border-hairline hover:bg-accent-soft'
                } ${given?.solved ? 'text-good' : given?.solved === false ? 'text-bad' : ''}`}
                aria-current={one === task ? 'step' : undefined}
                onClick={() => onTask(one)}
                {...hint(one.title)}
              >
                {i + 1} {given?.solved ? '✓' : given?.solved === false ? '✗' : ''}
              </button>
            );
          })}
        </nav>
      )}
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4" key={task.id}>
        {all.length > 1 && <h3 className="font-bold">{task.title}</h3>}
        {mine && (
          <div className="flex flex-col gap-2 rounded-xl border border-hairline bg-paper p-3">
            <p className="text-lg">
              <b>{mine.points ?? '–'}</b> of {counted(mine.of, 'point')}
            </p>
            {mine.found && (
              <p className={mine.solved ? 'text-good' : ''}>
                {mine.found[0]!.toUpperCase()}
                {mine.found.slice(1)}.
              </p>
            )}
            {mine.complaints.length > 0 && (
              <ul className="list-disc pl-5 text-sm text-bad">
                {mine.complaints.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            )}
            <Remarks remarks={mine.remarks} />
          </div>
        )}
        <TaskText text={task.words} pictures={task.pictures} />
        <Work task={task} answer={lesson.work?.tasks[task.id]?.answer ?? null} />
      </div>
    </section>
  );
}

function Remarks({ remarks }: { readonly remarks: readonly Remark[] }) {
  if (remarks.length === 0) return null;
  return (
    <ul className="flex flex-col gap-1.5" aria-label="Remarks">
      {remarks.map((remark) => (
        <li key={remark.id} className="wrap-anywhere">
          <RemarkText remark={remark} />
        </li>
      ))}
    </ul>
  );
}
