import type { Task } from '../circuit/exercise';
import { type Infer, list, text, whole, z } from '../values/schema';
import { TaskId } from './exercise-schema';
import type { Mark } from './kinds/task-kind';

/*
 * What a teacher gives for hand-ins: points by rule or by hand, and remarks, on one answer or on all that say the same.
 */

/** How points follow from what is found: all or nothing, or the share that is right. */
export const POINT_RULES = ['all or nothing', 'a share of what is right'] as const;
export type PointRule = (typeof POINT_RULES)[number];

const Points = z.number().check(z.minimum(-1000), z.maximum(1000));

const Rule = z.object({
  points: z.enum(POINT_RULES),
  /** Points less for each complaint: a limit that is exceeded, a part that is not allowed. */
  less: z.number().check(z.minimum(0), z.maximum(1000)),
});
export type TaskRule = Infer<typeof Rule>;

/** Most letters of a remark. */
export const MOST_LETTERS = 2000;

const Remark = z.object({
  id: text(40),
  text: text(MOST_LETTERS),
  /** Points that it gives; below 0 those that it takes. */
  points: Points,
  /** What it is about, where it is about one thing: a part of the student's circuit, or a row. */
  at: z.nullable(z.union([z.strictObject({ part: text(64) }), z.strictObject({ row: whole(0, 2 ** 26) })])),
});
export type Remark = Infer<typeof Remark>;

/** The remarks on one answer. */
export const Remarks = list(Remark, 400);

const TaskMarks = z.object({
  /** Points by hand, in place of the rule and of all remarks; null for those. */
  points: z.nullable(Points),
  remarks: list(Remark, 200),
  /** Remarks on all answers of its kind that do not hold here, by their ids. */
  without: list(text(40), 500),
});
export type TaskMarks = Infer<typeof TaskMarks>;

const byTask = <S extends Parameters<typeof z.record>[1]>(value: S) => z.record(TaskId, value);

/** All that was given for the hand-ins of one exercise. */
export const ClassMarks = z.object({
  rules: byTask(Rule),
  /** By the hash of a hand-in, and then by task. */
  handIns: z.record(text(80), byTask(TaskMarks)),
  /** By task, and then by the hash of the answer. */
  alike: byTask(z.record(text(80), list(Remark, 200))),
  /** When they are due, as ISO 8601; null where nothing is late. */
  due: z._default(z.nullable(z.datetime()), null),
});
export type ClassMarks = Infer<typeof ClassMarks>;

export const NO_MARKS: ClassMarks = { rules: {}, handIns: {}, alike: {}, due: null };
const NOTHING: TaskMarks = { points: null, remarks: [], without: [] };
const USUAL: TaskRule = { points: 'all or nothing', less: 0 };

export const ruleOf = (marks: ClassMarks, task: string): TaskRule => marks.rules[task] ?? USUAL;

export const marksOf = (marks: ClassMarks, handIn: string, task: string): TaskMarks =>
  marks.handIns[handIn]?.[task] ?? NOTHING;

/** An answer to a task, as far as points and remarks go. */
export interface Answered {
  readonly task: Pick<Task, 'id' | 'points'>;
  readonly mark: Mark;
  /** The hash of its hand-in. */
  readonly handIn: string;
  /** The hash of the answer; null where nothing was done. */
  readonly said: string | null;
}

/** The remarks that hold for an answer: its own, and those on all that say the same. */
export function remarksOn(marks: ClassMarks, { task, handIn, said }: Answered): Remark[] {
  const own = marksOf(marks, handIn, task.id);
  const shared = said === null ? [] : (marks.alike[task.id]?.[said] ?? []);
  return [...own.remarks, ...shared.filter(({ id }) => !own.without.includes(id))];
}

const QUARTERS = 4;
/** Points in quarters, as they are given; downwards, so that all of them are for what is all right. */
const rounded = (points: number): number => Math.floor(points * QUARTERS + 1e-9) / QUARTERS;

/** The points for an answer; null while a person has to tell. */
export function pointsFor(marks: ClassMarks, answered: Answered): number | null {
  const { task, mark, handIn } = answered;
  const byHand = marksOf(marks, handIn, task.id).points;
  if (byHand !== null) return byHand;
  if (mark.solved === null) return null;
  const { points, less } = ruleOf(marks, task.id);
  // Where complaints cost points of their own, they do not take all of them.
  const share =
    points === 'all or nothing'
      ? mark.solved || (less > 0 && mark.right === mark.of)
        ? 1
        : 0
      : mark.of > 0
        ? mark.right / mark.of
        : 0;
  const remarks = remarksOn(marks, answered).reduce((sum, remark) => sum + remark.points, 0);
  const given = rounded(task.points * share) - less * mark.complaints.length + remarks;
  return Math.min(task.points, Math.max(0, given));
}

const withTask = (
  marks: ClassMarks,
  handIn: string,
  task: string,
  change: Partial<TaskMarks>,
): ClassMarks => ({
  ...marks,
  handIns: {
    ...marks.handIns,
    [handIn]: { ...marks.handIns[handIn], [task]: { ...marksOf(marks, handIn, task), ...change } },
  },
});

export const withRule = (marks: ClassMarks, task: string, rule: TaskRule): ClassMarks => ({
  ...marks,
  rules: { ...marks.rules, [task]: rule },
});

/** Points by hand for one answer; null to go by the rule again. */
export const withPoints = (
  marks: ClassMarks,
  { handIn, task }: Answered,
  points: number | null,
): ClassMarks => withTask(marks, handIn, task.id, { points });

/** A remark on one answer. */
export const withRemark = (marks: ClassMarks, { handIn, task }: Answered, remark: Remark): ClassMarks =>
  withTask(marks, handIn, task.id, { remarks: [...marksOf(marks, handIn, task.id).remarks, remark] });

/** A remark on all answers that say the same. */
export function withRemarkOnAll(marks: ClassMarks, { task, said }: Answered, remark: Remark): ClassMarks {
  if (said === null) return marks;
  const there = marks.alike[task.id] ?? {};
  return {
    ...marks,
    alike: { ...marks.alike, [task.id]: { ...there, [said]: [...(there[said] ?? []), remark] } },
  };
}

/** Takes a remark off one answer; one on all that say the same stays on the others. */
export function withoutRemark(marks: ClassMarks, answered: Answered, id: string): ClassMarks {
  const own = marksOf(marks, answered.handIn, answered.task.id);
  return own.remarks.some((remark) => remark.id === id)
    ? withTask(marks, answered.handIn, answered.task.id, {
        remarks: own.remarks.filter((remark) => remark.id !== id),
      })
    : withTask(marks, answered.handIn, answered.task.id, { without: [...own.without, id] });
}

/** Takes a remark off all answers that say the same. */
export function withoutRemarkOnAll(marks: ClassMarks, { task, said }: Answered, id: string): ClassMarks {
  if (said === null) return marks;
  const there = marks.alike[task.id] ?? {};
  const left = (there[said] ?? []).filter((remark) => remark.id !== id);
  return { ...marks, alike: { ...marks.alike, [task.id]: { ...there, [said]: left } } };
}

/** The remarks that were made so far at a task, each text once, the last made first: to be made again at a press. */
export function remarksUsed(marks: ClassMarks, task: string): Remark[] {
  const all = [
    ...Object.values(marks.alike[task] ?? {}).flat(),
    ...Object.values(marks.handIns).flatMap((tasks) => tasks[task]?.remarks ?? []),
  ];
  const byText = new Map<string, Remark>();
  for (const remark of all) byText.set(`${remark.text} ${remark.points}`, remark);
  return [...byText.values()].reverse();
}

/**
 * Merges two versions of the same marks. A change made in one place only is taken; if both changed the same answer, the
 * version here stands.
 */
export function merged(base: ClassMarks, here: ClassMarks, there: ClassMarks): ClassMarks {
  type Nested = Readonly<Record<string, unknown>>;
  const pick = (was: unknown, mine: unknown, theirs: unknown, depth: number): unknown => {
    if (JSON.stringify(mine) === JSON.stringify(was)) return theirs;
    if (depth === 0 || mine === undefined || theirs === undefined) return mine;
    const [a, b, c] = [(was ?? {}) as Nested, mine as Nested, theirs as Nested];
    const keys = [...new Set([...Object.keys(b), ...Object.keys(c)])];
    const all = keys.map((key) => [key, pick(a[key], b[key], c[key], depth - 1)] as const);
    return Object.fromEntries(all.filter(([, value]) => value !== undefined));
  };
  return {
    rules: pick(base.rules, here.rules, there.rules, 1) as ClassMarks['rules'],
    handIns: pick(base.handIns, here.handIns, there.handIns, 2) as ClassMarks['handIns'],
    alike: pick(base.alike, here.alike, there.alike, 2) as ClassMarks['alike'],
    due: here.due === base.due ? there.due : here.due,
  };
}

/**
 * Merges two markers' marks of one class. Marks given by one marker only are taken; if both gave points by hand to one answer,
 * the second marker's points stand.
 */
export function together(one: ClassMarks, other: ClassMarks): ClassMarks {
  const ids = (lists: readonly (readonly Remark[] | undefined)[]): Remark[] => {
    const seen = new Map<string, Remark>();
    for (const remark of lists.flatMap((l) => l ?? [])) seen.set(remark.id, remark);
    return [...seen.values()];
  };
  const keys = (a: object = {}, b: object = {}) => [...new Set([...Object.keys(a), ...Object.keys(b)])];
  const handIns = Object.fromEntries(
    keys(one.handIns, other.handIns).map((handIn) => [
      handIn,
      Object.fromEntries(
        keys(one.handIns[handIn], other.handIns[handIn]).map((task) => {
          const [a, b] = [marksOf(one, handIn, task), marksOf(other, handIn, task)];
          return [
            task,
            {
              points: b.points ?? a.points,
              remarks: ids([a.remarks, b.remarks]),
              without: [...new Set([...a.without, ...b.without])],
            },
          ];
        }),
      ),
    ]),
  );
  const alike = Object.fromEntries(
    keys(one.alike, other.alike).map((task) => [
      task,
      Object.fromEntries(
        keys(one.alike[task], other.alike[task]).map((said) => [
          said,
          ids([one.alike[task]?.[said], other.alike[task]?.[said]]),
        ]),
      ),
    ]),
  );
  return { rules: { ...one.rules, ...other.rules }, handIns, alike, due: other.due ?? one.due };
}
