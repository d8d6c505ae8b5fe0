'use client';

import { useEffect, useRef, useState } from 'react';
import type { Exercise, Task } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import { taskOnSheet, type Verdicts } from '@/core/exercise/marking';
import { problemOf, sentence } from '@/core/values/result';
import { pathTo } from '@/loading/base';
import { checkTask, openTask, setAnswer, setFinalAnswer, triesLeft } from '@/session/changes/task';
import { told } from '@/session/told';
import { isReturned } from '@/store/database';
import { Bar } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { taskViewOf } from './kinds';
import { TaskText } from './TaskText';
import { Told } from './Told';
import { verdictsFor } from './verdicts';

interface Props {
  readonly exercise: Exercise;
  readonly onHandIn: () => void;
}

/** The tasks beside the student's drawing: the words of the one that is open, its answer, and what a check tells. */
export function TaskPane({ exercise, onHandIn }: Props) {
  const session = useSession();
  const onSheet = useSessionState((s) => taskOnSheet(s.lesson, s.rootId));
  const solved = useSessionState((s) => s.lesson.work?.checks);
  const [last, setLast] = useState(exercise.tasks[0]!.id);
  // On a sheet of the student's own, the task that was open stays.
  const task = onSheet ?? exercise.tasks.find((t) => t.id === last)!;
  if (task.id !== last) setLast(task.id);
  const [hasMarks, setMarks] = useState(false);
  useEffect(() => {
    let isGone = false;
    isReturned(exercise.id).then(
      (is) => isGone || setMarks(is),
      () => {},
    );
    return () => {
      isGone = true;
    };
  }, [exercise.id]);
  const isSolved = (one: Task) => solved?.[one.id]?.solved === true;
  const count = exercise.tasks.filter(isSolved).length;
  return (
    <section className="pane" aria-label="Task">
      <Bar className="pane-head">
        <h2 className="scrolls truncate font-semibold">{exercise.title}</h2>
        {hasMarks && (
          <a className="shrink-0 text-sm text-accent underline" href={pathTo(`/returned?id=${exercise.id}`)}>
            Your marks
          </a>
        )}
        {exercise.tasks.length > 1 && (
          <span className="ml-auto shrink-0 text-sm text-quiet">
            {count} of {exercise.tasks.length} solved
          </span>
        )}
      </Bar>
      {exercise.tasks.length > 1 && (
        <TaskList
          exercise={exercise}
          open={task}
          isSolved={isSolved}
          onOpen={(one) => openTask(session, one)}
        />
      )}
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4" key={task.id}>
        {exercise.words && task === exercise.tasks[0] && <TaskText text={exercise.words} />}
        {exercise.tasks.length > 1 && <h3 className="font-bold">{task.title}</h3>}
        <OpenTask task={task} onHandIn={onHandIn} />
      </div>
    </section>
  );
}

interface ListProps {
  readonly exercise: Exercise;
  readonly open: Task;
  readonly isSolved: (task: Task) => boolean;
  readonly onOpen: (task: Task) => void;
}

/** The tasks as numbers in a row: the open one, those that are solved, and those that are still closed. */
function TaskList({ exercise: { tasks, order }, open, isSolved, onOpen }: ListProps) {
  const isClosed = (at: number) => order === 'in order' && tasks.slice(0, at).some((t) => !isSolved(t));
  return (
    <nav aria-label="Tasks" className="flex flex-wrap gap-1 border-b border-hairline px-3 py-2">
      {tasks.map((task, i) => (
        <button
          key={task.id}
          type="button"
          className={`h-7 min-w-7 cursor-pointer rounded-lg border px-1.5 text-sm font-semibold disabled:cursor-default disabled:opacity-45 ${
            task === open
              ? 'border-accent bg-accent-soft text-accent'
              : 'border-hairline hover:bg-accent-soft'
          } ${isSolved(task) ? 'text-good' : ''}`}
          aria-current={task === open ? 'step' : undefined}
          aria-label={`Task ${i + 1}: ${task.title}${isSolved(task) ? ', solved' : ''}`}
          disabled={isClosed(i)}
          onClick={() => onOpen(task)}
          {...hint(isClosed(i) ? 'Opens when the one before is solved' : task.title)}
        >
          {isSolved(task) ? '✓' : i + 1}
        </button>
      ))}
    </nav>
  );
}

function OpenTask({ task, onHandIn }: { task: Task; onHandIn: () => void }) {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const readOnly = useSessionState((s) => s.readOnly);
  const [checked, setChecked] = useState<{ of: Lesson; mark: Mark } | null>(null);
  const [problem, setProblem] = useState('');
  const { Work, Feedback } = taskViewOf(task);
  const answer = lesson.work?.tasks[task.id]?.answer ?? null;
  const left = triesLeft(session, task);
  const feedback = useRef<HTMLDivElement>(null);
  // What a check tells comes into sight, below however much there is.
  useEffect(() => {
    if (checked) feedback.current?.scrollIntoView({ block: 'nearest' });
  }, [checked]);
  const [isChecking, setChecking] = useState(false);
  const found = (of: Lesson, verdicts: Verdicts | null) => {
    const made = checkTask(session, task, of, verdicts);
    setProblem(made.ok ? '' : sentence(made.problem));
    if (made.ok) setChecked({ of, mark: made.value });
  };
  const check = () => {
    const of = session.state.lesson;
    if (!task.digest) {
      found(of, null);
      return;
    }
    setChecking(true);
    verdictsFor([task], of)
      .then(
        (verdicts) => found(of, verdicts),
        (error) => setProblem(sentence(problemOf(error))),
      )
      .finally(() => setChecking(false));
  };
  return (
    <>
      <TaskText text={task.words} pictures={task.pictures} />
      <Work
        task={task}
        answer={answer}
        onAnswer={readOnly ? undefined : (given) => told(setAnswer(session, task, given))}
        onFinal={readOnly ? undefined : (given) => told(setFinalAnswer(session, task, given))}
      />
      <div className="flex flex-wrap items-center gap-2">
        {task.tells !== 'nothing' && (
          <button type="button" className="button main" disabled={left === 0 || isChecking} onClick={check}>
            {isChecking ? 'Checking …' : 'Check'}
          </button>
        )}
        <button type="button" className="button" onClick={onHandIn}>
          Hand in …
        </button>
        {left !== null && task.tells !== 'nothing' && (
          <span className="text-sm text-quiet">
            {left === 0 ? 'No check left' : left === 1 ? 'One check left' : `${left} checks left`}
          </span>
        )}
      </div>
      {task.tells === 'nothing' && (
        <p className="text-sm text-quiet">This task is marked after you have handed in.</p>
      )}
      {problem && (
        <p role="alert" className="text-sm text-bad">
          {problem}
        </p>
      )}
      {checked && (
        <div ref={feedback}>
          <Told task={task} mark={checked.mark} tells={task.tells} stale={isOther(checked.of, lesson)}>
            <Feedback task={task} mark={checked.mark} tells={task.tells} />
          </Told>
        </div>
      )}
    </>
  );
}

/** Whether the circuit, its board or the answers differ; stimuli and the arrangement of faces do not count. */
const isOther = (a: Lesson, b: Lesson) =>
  a.work?.tasks !== b.work?.tasks ||
  a.sheets.length !== b.sheets.length ||
  a.sheets.some((s, i) => {
    const { parts, wires, board } = b.sheets[i]!;
    return s.parts !== parts || s.wires !== wires || s.board !== board;
  });
