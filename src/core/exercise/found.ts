import type { Exercise, Task } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { type CircuitTraits, circuitTraits } from '../likeness/circuit-traits';
import type { AnswerTraits } from '../likeness/likeness';
import type { Opaque } from '../netlist/circuit-signature';
import { findKind } from '../parts/catalogue';
import { textHash } from '../values/text-hash';
import { partsUsed } from './check';
import type { HandIn } from './hand-in';
import { taskKindOf } from './kinds';
import type { Mark } from './kinds/task-kind';
import { asAsked, type Marked, markAll, mistakeIn, saidBy, solutionOf, type Verdicts } from './marking';

/*
 * What is found of a hand-in, as it stands in the list of a class: everything that is told of it without opening it, and nothing of
 * its circuits but what they are held against others by.
 */

/** A hand-in without its work. */
export interface HandInHead extends Omit<HandIn, 'lesson' | 'drawn'> {
  /** Checks that the student made, by the ids of the tasks. */
  readonly checks: Readonly<Record<string, number>>;
}

/** What is found of the answer to one task. */
export interface FoundAnswer {
  /** Without its detail. */
  readonly mark: Mark<null>;
  /** The hash of the answer; null where nothing was done. */
  readonly said: string | null;
  /** What is wrong, in a few words for a teacher; null where nothing is. */
  readonly mistake: string | null;
  /** The numbers of its rows, readings or spans that are wrong. */
  readonly wrongUnits: readonly number[];
  /** Gates of the circuit that was built; null where none was, or none is asked for. */
  readonly gates: number | null;
  readonly circuit: CircuitTraits | null;
}

export interface FoundHandIn {
  /** The hash of the hand-in. */
  readonly id: string;
  readonly handIn: HandInHead;
  /** By the tasks. */
  readonly answers: readonly FoundAnswer[];
}

/** Wrong units that are kept, at most. */
const MOST_UNITS = 2048;

/** The numbers of the units of an answer that are wrong: rows, readings, spans. */
export const wrongUnitsOf = ({ task, mark }: Marked): readonly number[] =>
  mark.detail === null ? [] : (taskKindOf(task).wrongUnits?.(task, mark) ?? []).slice(0, MOST_UNITS);

/** The blocks whose insides do not count, by the ids of their sheets: they answer other tasks. */
function builtElsewhere(tasks: readonly Task[], task: Task, lesson: Lesson): Opaque {
  const { builtIn } = solutionOf(task, lesson);
  return new Map(
    tasks.flatMap(({ id }) => (id === task.id ? [] : builtIn(id).map((sheet) => [sheet, id] as const))),
  );
}

/** The gates of a circuit, and what it is held against others by; null where none was built, or none is asked for. */
function circuitIn(
  tasks: readonly Task[],
  task: Task,
  lesson: Lesson,
): Pick<FoundAnswer, 'gates' | 'circuit'> {
  const { sheet, sheets } = solutionOf(task, lesson);
  if (!taskKindOf(task).isDrawn || sheet.parts.size === 0) return { gates: null, circuit: null };
  const used = partsUsed(sheet, sheets);
  return {
    gates: used.reduce((sum, { kind, count }) => sum + (findKind(kind)?.isGate ? count : 0), 0),
    circuit: circuitTraits(sheet, sheets, builtElsewhere(tasks, task, lesson)),
  };
}

/** The findings of a hand-in, from the marks of its tasks. @param id the hash of the hand-in. */
export function foundIn(
  id: string,
  { lesson, drawn: _, ...head }: HandIn,
  marks: readonly Marked[],
): FoundHandIn {
  const tasks = marks.map(({ task }) => task);
  const made = Object.entries(lesson.work?.checks ?? {}).map(([task, { count }]) => [task, count]);
  return {
    id,
    handIn: { ...head, checks: Object.fromEntries(made) },
    answers: marks.map((marked) => ({
      mark: { ...marked.mark, detail: null },
      said: saidBy(marked),
      mistake: mistakeIn(marked),
      wrongUnits: wrongUnitsOf(marked),
      ...circuitIn(tasks, marked.task, lesson),
    })),
  };
}

/** The marks of a hand-in by what it was asked. */
export const marksIn = (
  { lesson, exercise: { edition } }: HandIn,
  exercise: Exercise,
  editions: readonly Exercise[],
  verdicts: Verdicts | null,
): Marked[] => markAll(asAsked(exercise, editions, edition), lesson, verdicts);

/** The hand-ins of each student, the latest first; students in the order of their names. */
export function byStudent<H extends { readonly handIn: Pick<HandIn, 'name' | 'handedIn'> }>(
  all: readonly H[],
): H[][] {
  const students = new Map<string, H[]>();
  for (const one of all) {
    const name = one.handIn.name.trim().toLowerCase();
    students.set(name, [...(students.get(name) ?? []), one]);
  }
  const when = ({ handIn }: H) => Date.parse(handIn.handedIn);
  return [...students.values()]
    .map((own) => [...own].reverse().sort((a, b) => when(b) - when(a)))
    .sort((a, b) => a[0]!.handIn.name.localeCompare(b[0]!.handIn.name));
}

/** What of an answer is held against the others of its class. */
export const traitsOf = ({ said, mark, circuit }: FoundAnswer): AnswerTraits => ({
  said,
  isRight: mark.solved,
  circuit,
});

/** A name for the tasks of a hand-in as it is marked: what was marked under it before need not be marked again. */
export const markedBy = (exercise: Exercise, editions: readonly Exercise[]): string =>
  textHash(JSON.stringify([exercise, editions]));
