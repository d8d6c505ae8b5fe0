import type { ComponentType } from 'react';
import type { Answer, Task, Tells } from '@/core/circuit/exercise';
import type { Mark } from '@/core/exercise/kinds/task-kind';

export interface WorkProps {
  readonly task: Task;
  readonly answer: Answer | null;
  /** Absent where the answer can only be looked at. */
  readonly onAnswer?: (answer: Answer) => void;
  /** For an answer that cannot be taken back. */
  readonly onFinal?: (answer: Answer) => void;
}

export interface FeedbackProps {
  readonly task: Task;
  readonly mark: Mark;
  /** How much is told; at `nothing` it is not shown at all. */
  readonly tells: Tells;
}

/** The views of a kind of task. */
export interface TaskView {
  readonly kind: string;
  /** What is asked, and where the answer is filled in. */
  readonly Work: ComponentType<WorkProps>;
  /** What a check tells beyond how much is right. */
  readonly Feedback: ComponentType<FeedbackProps>;
}
