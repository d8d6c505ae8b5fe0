import type { Answer, Expected, GivenCircuit, Task } from '../../circuit/exercise';
import type { Sheet } from '../../circuit/sheet';
import type { Result } from '../../values/result';
import type { Schema } from '../../values/schema';
import type { SheetRules } from '../rules';

/** A student's work at one task, as it is marked. */
export interface Solution<A extends Answer | null = Answer | null> {
  /** The sheet of the task. */
  readonly sheet: Sheet;
  /** All sheets of the lesson, for blocks. */
  readonly sheets: readonly Sheet[];
  readonly answer: A;
  /** The sheets built in another task, by its id: the student's, and its stand-in. */
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
  /** Null where the wanted answer is not known here. */
  readonly detail: D;
}

/** How a right answer to a kind of task is known without being told. `K` is its wanted answer, `D` the detail of a mark. */
export interface Hashable<Q, K, D> {
  /** Why it cannot be for a task, as a clause, else null. */
  whyNot?(task: Task<Q, K>): string | null;
  /** The wanted answer without what is to be found; places in which either will do stay. */
  blank(task: Task<Q, K>): K;
  /** The wanted answer as a text that right answers have, and no others. */
  wanted(task: Task<Q, K>): string;
  /** That text of an answer, from its mark against the blank; null where it cannot be right. */
  given(task: Task<Q, K>, mark: Mark<D>): string | null;
  /** How many answers one tries who knows nothing, as a power of two; null where a person would guess it in a few. */
  bits(task: Task<Q, K>): number | null;
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
  /** The answer in a file; null where what is on the sheet is the answer. */
  readonly answer: Schema<A> | null;
  /** Whether what is drawn on the sheet is the answer. */
  readonly isDrawn?: boolean;
  /** Why its wanted answer cannot be sealed, as a clause, else null. */
  unsealable?(task: Task<Q, K>): string | null;
  /** How checks can tell “right or not yet” by a hash alone; absent for kinds of which they cannot. */
  readonly hashed?: Hashable<Q, K, D>;
  /** What is asked where the wanted answer is sealed: with all that must stay open of it. */
  openPart?(task: Task<Q, K>): Q;
  /** The task with the circuits in its question and key read, if it has any; refused with the name of the one that cannot be. */
  withCircuits?(task: Task<Q, K>): Result<Task<Q, K>>;
  /** The circuit that stands in for the student's in later tasks. */
  standIn?(task: Task<Q, K>): GivenCircuit | null;
  /** What does not fit between the parts of a task, else null. */
  strange?(task: Task<Q, K>): string | null;
  /** The expectation that the task's circuit is held against, where it is. */
  expected?(task: Task<Q, K>): Expected;
  /** A canonical text of an answer, equal for equal answers; null where nothing was done. */
  said(task: Task<Q, K>, mark: Mark<D>): string | null;
  /** The same in words, for a wrong answer: `OR for AND in Carry`. Absent where `wrong` says it. */
  mistake?(task: Task<Q, K>, mark: Mark<D>): string | null;
  /** The numbers of its wrong units, and the word for a unit: `row 5`. Absent for answers without units. */
  wrongUnits?(task: Task<Q, K>, mark: Mark<D>): readonly number[];
  unitName?(task: Task<Q, K>, unit: number): string;
  rules(task: Task<Q, K>, answer: A | null): SheetRules;
  mark(task: Task<Q, K>, solution: Solution<A | null>): Mark<D>;
}

/** The numbers of the units that are not right. */
export const wrongIn = (isRight: readonly boolean[]): number[] =>
  isRight.flatMap((ok, unit) => (ok ? [] : [unit]));
