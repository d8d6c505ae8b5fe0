'use client';

import { useState } from 'react';
import type { Exercise, Order, Task } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import { counted } from '@/core/values/wording';
import { hint } from '@/ui/controls/hint';
import { AddTasks } from './AddTasks';
import { FORMS } from './forms';
import { TaskWords } from './TaskWords';
import { TellsChoice } from './TellsChoice';
import { TitleField } from './TitleField';

interface Props {
  readonly exercise: Exercise;
  readonly onChange: (exercise: Exercise) => void;
  /** Tells that a task is gone. */
  readonly onRemoved: (title: string) => void;
}

/** The tasks of an exercise: their order, and for each its title, words, points and what a check tells. */
export function SetEditor({ exercise, onChange, onRemoved }: Props) {
  const { tasks } = exercise;
  const [open, setOpen] = useState(tasks[0]?.id ?? '');
  const [isAdding, setAdding] = useState(false);
  const at = Math.max(
    0,
    tasks.findIndex(({ id }) => id === open),
  );
  const task = tasks[at];
  const setTasks = (next: readonly Task[]) => onChange({ ...exercise, tasks: next });
  const move = (by: number) => {
    const to = at + by;
    setTasks(tasks.with(at, tasks[to]!).with(to, task!));
  };
  const points = tasks.reduce((sum, t) => sum + t.points, 0);
  return (
    <div className="grid grid-cols-[20rem_1fr] items-start gap-5 max-md:grid-cols-1">
      <div className="flex flex-col gap-3">
        <ol className="flex flex-col gap-1.5" aria-label="Tasks">
          {tasks.map((one, i) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one === task ? 'true' : undefined}
                className={`flex w-full cursor-pointer items-center gap-3 rounded-xl border px-3 py-2 text-left ${
                  one === task
                    ? 'border-accent bg-accent-soft'
                    : 'border-hairline bg-raised hover:border-quiet'
                }`}
                onClick={() => setOpen(one.id)}
              >
                <span className="w-5 shrink-0 font-bold text-accent">{i + 1}</span>
                <span className="min-w-0 flex-1">
                  <bdi className="block truncate font-semibold">{one.title}</bdi>
                  <span className="block truncate text-sm text-quiet">
                    {taskKindOf(one).name} · {counted(one.points, 'point')}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ol>
        <button type="button" className="button self-start" onClick={() => setAdding(true)}>
          Add tasks …
        </button>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Students do them</span>
          <select
            className="field"
            value={exercise.order}
            onChange={(event) => onChange({ ...exercise, order: event.target.value as Order })}
          >
            <option value="free">in any order</option>
            <option value="in order">one after the other, each opened by the one before</option>
          </select>
        </label>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">
            Before all tasks <span className="font-normal text-quiet">in words; Markdown</span>
          </span>
          <textarea
            className="field h-24 resize-y py-2"
            value={exercise.words}
            maxLength={20_000}
            placeholder="What the whole is about"
            onChange={(event) => onChange({ ...exercise, words: event.target.value })}
          />
        </label>
        <p className="text-sm text-quiet">
          {counted(tasks.length, 'task')}, {counted(points, 'point')}
        </p>
      </div>
      {task && (
        <section
          key={task.id}
          aria-label="The task"
          className="flex flex-col gap-4 rounded-2xl border border-hairline bg-raised p-5"
        >
          <div className="flex items-center gap-2">
            <p className="mr-auto text-sm text-quiet">{taskKindOf(task).says}</p>
            <button
              type="button"
              className="icon-button"
              disabled={at === 0}
              aria-label="Earlier"
              {...hint('Earlier')}
              onClick={() => move(-1)}
            >
              ▴
            </button>
            <button
              type="button"
              className="icon-button"
              disabled={at === tasks.length - 1}
              aria-label="Later"
              {...hint('Later')}
              onClick={() => move(1)}
            >
              ▾
            </button>
            <button
              type="button"
              className="icon-button"
              disabled={tasks.length === 1}
              aria-label="Remove this task"
              {...hint(tasks.length === 1 ? 'An exercise has at least one task' : 'Remove this task')}
              onClick={() => {
                setTasks(tasks.filter((t) => t !== task));
                onRemoved(task.title);
              }}
            >
              ×
            </button>
          </div>
          <TaskFields
            task={task}
            earlier={tasks.slice(0, at)}
            onTask={(next) => setTasks(tasks.with(at, next))}
          />
        </section>
      )}
      {isAdding && (
        <AddTasks
          among={tasks}
          onAdd={(added) => {
            setTasks([...tasks, ...added]);
            setOpen(added[0]!.id);
            setAdding(false);
          }}
          onClose={() => setAdding(false)}
        />
      )}
    </div>
  );
}

interface FieldsProps {
  readonly task: Task;
  readonly earlier: readonly Task[];
  readonly onTask: (task: Task) => void;
}

/** The title, words, points and checks of a task, and what its kind lets be changed. */
function TaskFields({ task, earlier, onTask }: FieldsProps) {
  const Later = FORMS.find(({ kind }) => kind === task.kind)?.Later;
  return (
    <>
      <div className="flex gap-4">
        <div className="flex flex-1 flex-col gap-1">
          <span className="font-semibold" aria-hidden="true">
            Title of the task
          </span>
          <TitleField
            className="field"
            label="Title of the task"
            title={task.title}
            onTitle={(title) => onTask({ ...task, title })}
          />
        </div>
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Points</span>
          <input
            className="field w-24"
            type="number"
            min={0}
            max={1000}
            step={0.5}
            value={task.points}
            onChange={(event) =>
              onTask({ ...task, points: Math.min(1000, Math.max(0, Number(event.target.value) || 0)) })
            }
          />
        </label>
      </div>
      <TaskWords
        words={task.words}
        pictures={task.pictures}
        onWords={(words) => onTask({ ...task, words })}
      />
      {!taskKindOf(task).isMarkedByHand && (
        <TellsChoice
          tells={task.tells}
          tries={task.tries}
          task={task}
          onTells={(tells) => onTask({ ...task, tells })}
          onTries={(tries) => onTask({ ...task, tries })}
        />
      )}
      {Later && task.key !== null && (
        <Later task={task} earlier={earlier} onTask={(change) => onTask({ ...task, ...change })} />
      )}
      {task.given && (
        <p className="text-sm text-quiet">
          The student gets a circuit of {counted(task.given.sheets[0]!.parts.length, 'part')}
          {task.given.sheets.length > 1
            ? `, with ${counted(task.given.sheets.length - 1, 'sheet')} of its blocks`
            : ''}
          .
        </p>
      )}
    </>
  );
}
