import type { Exercise, FlatSheet, GivenCircuit, Task, TaskWork, Work } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { DEFAULT_SETTINGS, emptySheet, type Part, type Settings, type Sheet } from '../circuit/sheet';
import { withSheetInside } from '../parts/block';
import { sheetIdInside, withSheetsInside } from '../parts/catalogue';

/** Most letters of a sheet's name. */
const MOST_NAME = 60;

const unflattened = new WeakMap<FlatSheet, Sheet>();

/** The sheet of plain data as sheets are worked with; the same each time. */
export function sheetOfFlat(flat: FlatSheet): Sheet {
  const known = unflattened.get(flat);
  if (known) return known;
  const sheet = {
    ...flat,
    parts: new Map(flat.parts.map((part) => [part.id, part])),
    wires: new Map(flat.wires.map((wire) => [wire.id, wire])),
  };
  unflattened.set(flat, sheet);
  return sheet;
}

/** The sheet as plain data. */
export const flatSheet = ({ parts, wires, ...rest }: Sheet): FlatSheet => ({
  ...rest,
  parts: [...parts.values()],
  wires: [...wires.values()],
});

/** The sheets of a given circuit, the one that is shown first. */
export const sheetsGiven = ({ sheets }: GivenCircuit): readonly Sheet[] => sheets.map(sheetOfFlat);

/** Most letters of an id. */
const MOST_ID = 64;

/** The id, in the student's lesson, of the sheet that stands in for the one to be built. */
export const standInId = (task: string): string => `${task}-given`;

/** The ids that the sheets of a given circuit have in the student's hands, in their order; the first is the owner's. */
export const idsUnder = (owner: string, { sheets }: GivenCircuit): readonly string[] =>
  sheets.map(({ id }, i) => {
    if (i === 0) return owner;
    const named = `${owner}-${id}`;
    return named.length <= MOST_ID ? named : `${owner}-${i}`;
  });

/** The ids of all sheets with which a task may begin, and of the stand-ins for its result. */
export const idsBegun = (task: Task, standIn: GivenCircuit | null): readonly string[] => [
  ...(task.given ? idsUnder(task.id, task.given) : [task.id]),
  ...(standIn ? idsUnder(standInId(task.id), standIn) : []),
];

/** The sheets of a given circuit under ids of the task; the first gets the name of the task. */
function sheetsFor(task: Task, name: string): Sheet[] {
  return task.given ? sheetsUnder(task.id, task.given, name) : [emptySheet(task.id, name)];
}

/** The sheets of the circuit that stands in for what a task was to have built. */
export const standInSheets = (task: Task, circuit: GivenCircuit): Sheet[] =>
  sheetsUnder(standInId(task.id), circuit, `Given ${task.title.slice(0, MOST_NAME - 10)}`);

function sheetsUnder(owner: string, circuit: GivenCircuit, name: string): Sheet[] {
  const sheets = sheetsGiven(circuit);
  const under = idsUnder(owner, circuit);
  const ids = new Map(sheets.map(({ id }, i) => [id, under[i]!]));
  const led = (part: Part) => {
    const to = ids.get(sheetIdInside(part) ?? '');
    return to ? withSheetInside(part, to) : part;
  };
  return sheets.map((sheet, i) => ({
    ...sheet,
    id: under[i]!,
    name: i === 0 ? name : sheet.name,
    parts: new Map([...sheet.parts].map(([key, part]) => [key, led(part)])),
  }));
}

/** Adds what some tasks begin with to the sheets and the work at an exercise. */
function withTasks(
  lesson: Pick<Lesson, 'sheets' | 'work'>,
  tasks: readonly Task[],
): { readonly sheets: readonly Sheet[]; readonly work: Work } {
  const sheets = [...lesson.sheets];
  const begun: Record<string, TaskWork> = { ...lesson.work?.tasks };
  const ids = new Set(sheets.map(({ id }) => id));
  const names = new Set(sheets.map(({ name }) => name));
  for (const task of tasks) {
    const base = task.title.slice(0, MOST_NAME - 4);
    let name = base;
    for (let n = 2; names.has(name); n++) name = `${base} ${n}`;
    names.add(name);
    for (const sheet of sheetsFor(task, name)) if (!ids.has(sheet.id)) sheets.push(sheet);
    begun[task.id] = { sheet: task.id, answer: null };
  }
  return { sheets, work: { tasks: begun, checks: lesson.work?.checks ?? {} } };
}

/** The work at an exercise before anything is done: a sheet for each task, with its given circuit. */
export function begunWork(exercise: Exercise, id: string): Lesson {
  const settings = exercise.tasks.find((task) => task.given)?.given?.settings ?? DEFAULT_SETTINGS;
  return { id, title: exercise.title, settings, exercise, ...withTasks({ sheets: [] }, exercise.tasks) };
}

/** The work at an earlier edition of an exercise, taken on to a newer one: tasks that are new begin, the others go on. */
export function renewedWork(lesson: Lesson, exercise: Exercise): Lesson {
  const fresh = exercise.tasks.filter(({ id }) => !lesson.work?.tasks[id]);
  return { ...lesson, exercise, ...withTasks(lesson, fresh) };
}

/** A sheet with those of its blocks, as a task gives it: without what was filled in or driven on it. */
export function excerptFor(sheet: Sheet, sheets: readonly Sheet[], settings: Settings): GivenCircuit {
  const taken = withSheetsInside(sheet, sheets);
  return { settings, sheets: taken.map(({ plan: _, ...rest }) => flatSheet(rest)) };
}
