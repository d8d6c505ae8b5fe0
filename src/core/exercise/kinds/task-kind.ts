import type { Answer, Expected, Task } from '../../circuit/exercise';
import type { Sheet } from '../../circuit/sheet';
import type { Schema } from '../../values/schema';
import type { SheetRules } from '../rules';

/** A student's work at one task, as it is marked. */
export interface Solution<A extends Answer | null = Answer | null> {
  /** The sheet of the task. */
  readonly sheet: Sheet;
  /** All sheets of the lesson, for blocks. */
  readonly sheets: readonly Sheet[];
  readonly answer: A;
  /** The sheets that hold what was built in another task, by its id: the student's, and the one that stands in for it. */
  readonly builtIn: (task: string) => readonly string[];
}

/** What a task's work was found to be. `D` is what the kind's own views show of it. */
export interface Mark<D = unknown> {
  /** Units that are right, and how many there are. */
  readonly right: number;
  readonly of: number;
  /** The word for one unit: `row`, `cell`, `span`. */
  readonly word: string;
  /** Sentences for the student, about all that is not counted by units. */
  readonly complaints: readonly string[];
  /** All right and nothing to complain about; null where only a person can tell. */
  readonly solved: boolean | null;
  /** Which units are wrong, in words: `rows 5 (Drive), 6`; null where that would say nothing more. */
  readonly wrong: string | null;
  /** A sentence about an answer that may be right all the same: that a smaller one exists. */
  readonly remark?: string | undefined;
  /** The answer in one line: the parts used, or what was filled in; empty where nothing was done. */
  readonly gist: string;
  readonly detail: D;
}

/**
 * A kind of task: its schemas, what a student may do meanwhile, and how an answer is marked. Other code asks these questions,
 * and never for a kind by its name.
 */
export interface TaskKind<Q = unknown, K = unknown, A extends Answer | null = Answer | null, D = unknown> {
  readonly kind: string;
  /** As it is chosen: `Build a circuit`. */
  readonly name: string;
  /** What the student does, in one line. */
  readonly says: string;
  /** Whether only a person can tell whether an answer is right. */
  readonly isMarkedByHand?: boolean;
  /** What `gist` tells: `Parts used`. */
  readonly gistName: string;
  readonly asked: Schema<Q>;
  readonly key: Schema<K>;
  /** The answer in a file; null where the circuit is the answer. */
  readonly answer: Schema<A> | null;
  /** Why its wanted answer cannot be sealed, as a clause, else null. */
  unsealable?(task: Task<Q, K>): string | null;
  /** What is asked where the wanted answer is sealed: with all that must stay open of it. */
  openPart?(task: Task<Q, K>): Q;
  /** What does not fit between the parts of a task, else null. */
  strange?(task: Task<Q, K>): string | null;
  /** The expectation that the task's circuit is held against, where it is. */
  expected?(task: Task<Q, K>): Expected;
  rules(task: Task<Q, K>, answer: A | null): SheetRules;
  mark(task: Task<Q, K>, solution: Solution<A | null>): Mark<D>;
}
