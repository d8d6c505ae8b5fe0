import type { ComponentType } from 'react';
import type { Task } from '@/core/circuit/exercise';
import type { SetUpSource } from '@/core/exercise/expected/expected-kind';
import type { Result } from '@/core/values/result';

/** What a form makes of a task besides its heading. */
export type TaskBody = Pick<Task, 'given' | 'asked' | 'key'>;

export interface FormProps<D> {
  readonly source: SetUpSource;
  readonly draft: D;
  readonly onDraft: (draft: D) => void;
}

export interface LaterProps<T extends Task = Task> {
  readonly task: T;
  readonly onTask: (change: Partial<Pick<T, 'asked' | 'key'>>) => void;
  /** The tasks before it in its exercise. */
  readonly earlier: readonly Task[];
}

/** How a teacher sets up a kind of task, from a sheet. `D` is what the form holds. */
export interface TaskForm<D = unknown> {
  readonly kind: string;
  begin(source: SetUpSource): D;
  readonly Form: ComponentType<FormProps<D>>;
  finish(source: SetUpSource, draft: D): Result<TaskBody>;
  /** Fits a task to those before it in its exercise. */
  fit?(source: SetUpSource, body: TaskBody, earlier: readonly Task[]): TaskBody;
  /** What can be changed later, without the sheet; absent where nothing can. The wanted answer is there, and not sealed. */
  readonly Later?: ComponentType<LaterProps>;
}

/** The fields of a kind that can be changed later, for the list of forms. */
export const later = <T extends Task>(Fields: ComponentType<LaterProps<T>>) =>
  Fields as unknown as ComponentType<LaterProps>;
