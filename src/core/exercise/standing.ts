import type { Task } from '../circuit/exercise';
import type { FoundHandIn } from './found';
import { taskKindOf } from './kinds';

/*
 * How a class stands: numbers for its charts, and for the tables beside them.
 */

/** How many have a number from one to another. */
export interface Bin {
  readonly from: number;
  /** Not in it any more, except for the last bin. */
  readonly to: number;
  readonly count: number;
}

const ROUND_STEPS = [0.25, 0.5, 1, 2, 5, 10, 15, 20, 30, 60, 100, 200, 500, 1000];

/** How many of some numbers lie where: bins of a round width, at most so many. @param end the largest number there can be. */
export function binned(numbers: readonly number[], end: number, most: number): Bin[] {
  // Whole numbers that are few stand each by itself.
  if (end < most && numbers.every(Number.isInteger))
    return Array.from({ length: Math.floor(end) + 1 }, (_, n) => ({
      from: n,
      to: n + 1,
      count: numbers.filter((one) => one === n).length,
    }));
  const step = ROUND_STEPS.find((one) => Math.ceil(end / one) <= most) ?? Math.ceil(end / most / 1000) * 1000;
  const count = Math.max(1, Math.ceil(end / step));
  const bins = Array.from({ length: count }, (_, i) => ({ from: i * step, to: (i + 1) * step, count: 0 }));
  for (const n of numbers) {
    const at = Math.max(0, Math.min(count - 1, Math.floor(n / step)));
    bins[at] = { ...bins[at]!, count: bins[at]!.count + 1 };
  }
  return bins;
}

/** Some units of a task, as one cell of the heat map. */
export interface WrongCell {
  readonly task: number;
  /** The first unit, and the one behind the last. */
  readonly from: number;
  readonly to: number;
  /** `row 5`, `rows 8 to 15`. */
  readonly name: string;
  /** Students with one of them wrong. */
  readonly count: number;
}

/** Cells of a task, at most: what can be told apart on one line. */
const MOST_CELLS = 32;

/** Some units of a task by name: `row 5`, `row 8 to 15`. */
export const unitsName = (task: Task, from: number, to: number): string => {
  const name = (unit: number) => taskKindOf(task).unitName?.(task, unit) ?? String(unit);
  return to - from === 1 ? name(from) : `${name(from)} to ${name(to - 1).replace(/^\D+(?=\d+$)/, '')}`;
};

/** Which rows, readings or spans of the tasks are wrong in how many hand-ins; tasks without such units have none. */
export function wrongCells(tasks: readonly Task[], class_: readonly FoundHandIn[]): WrongCell[][] {
  return tasks.map((task, at) => {
    if (!taskKindOf(task).wrongUnits) return [];
    const answers = class_.map(({ answers }) => answers[at]!).filter(({ mark }) => mark.solved !== null);
    const units = unitsOf(task, answers[0]?.mark.of ?? 0, answers);
    const width = Math.max(1, Math.ceil(units / MOST_CELLS));
    return Array.from({ length: Math.ceil(units / width) }, (_, i) => {
      const [from, to] = [i * width, Math.min(units, (i + 1) * width)];
      const count = answers.filter(({ wrongUnits }) => wrongUnits.some((u) => u >= from && u < to)).length;
      return { task: at, from, to, name: unitsName(task, from, to), count };
    });
  });
}

/** Units of a task: a mark may count smaller things than its units, cells of a row. */
function unitsOf(
  task: Task,
  of: number,
  answers: readonly { readonly wrongUnits: readonly number[] }[],
): number {
  const largest = Math.max(-1, ...answers.map(({ wrongUnits }) => wrongUnits.at(-1) ?? -1)) + 1;
  const rows = (task.asked as { readonly rows?: unknown }).rows;
  return typeof rows === 'number' ? Math.max(rows, largest) : Math.max(of, largest);
}

/** How many gates the right circuits of a task have. */
export interface GatesUsed {
  readonly task: number;
  readonly smallest: number;
  /** By how many gates more than the smallest the number of students. */
  readonly more: readonly number[];
}

/** Gates more than the smallest that are told apart; more of them are one. */
export const MOST_MORE = 12;

/** The gates of right circuits against the smallest of them, for the tasks that ask for circuits. */
export const gatesUsed = (tasks: readonly Task[], class_: readonly FoundHandIn[]): GatesUsed[] =>
  tasks.flatMap((_, task) => {
    const gates = class_.flatMap(({ answers }) => {
      const { mark, gates } = answers[task]!;
      return mark.solved && gates !== null ? [gates] : [];
    });
    if (gates.length === 0) return [];
    const smallest = Math.min(...gates);
    const more = Array.from({ length: MOST_MORE + 1 }, () => 0);
    for (const n of gates) more[Math.min(MOST_MORE, n - smallest)]! += 1;
    return [{ task, smallest, more }];
  });

/** Checks that students made of a task before they handed in. */
export interface ChecksMade {
  readonly task: number;
  readonly median: number;
  readonly most: number;
}

const median = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[Math.floor(of.length / 2)]!;

/** Checks by the tasks, of those that students have checked at all. */
export const checksMade = (tasks: readonly Task[], class_: readonly FoundHandIn[]): ChecksMade[] =>
  tasks.flatMap(({ id }, task) => {
    const made = class_.flatMap(({ handIn }) => handIn.checks[id] ?? []);
    return made.length === 0 ? [] : [{ task, median: median(made), most: Math.max(...made) }];
  });
