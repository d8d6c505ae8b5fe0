'use client';

import type { Lesson } from '@/core/circuit/lesson';
import type { Marked } from '@/core/exercise/marking';
import { taskViewOf } from './kinds';
import { TaskText } from './TaskText';
import { Told } from './Told';

interface Props {
  readonly marked: Marked;
  /** The student's work. */
  readonly lesson: Lesson;
  /** Whether the title is told: not where it is the exercise's own. */
  readonly isTitled: boolean;
}

/** A task as its marker sees it: the words, the answer, and everything that was found. */
export function MarkedTask({ marked: { task, mark }, lesson, isTitled }: Props) {
  const { Work, Feedback } = taskViewOf(task);
  return (
    <>
      {isTitled && <h3 className="font-bold">{task.title}</h3>}
      <TaskText text={task.words} pictures={task.pictures} />
      <Work task={task} answer={lesson.work?.tasks[task.id]?.answer ?? null} />
      <Told task={task} mark={mark} tells="wanted">
        <Feedback task={task} mark={mark} tells="wanted" />
      </Told>
    </>
  );
}
