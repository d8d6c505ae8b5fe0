import type { Exercise, FlatSheet, GivenCircuit, Task, TaskWork } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { DEFAULT_SETTINGS, emptySheet, type Part, type Settings, type Sheet } from '../circuit/sheet';
import { withSheetInside } from '../parts/block';
import { sheetIdInside, sheetInside } from '../parts/catalogue';

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

/** The id of the sheet on which a task is begun. */
const idFor = (task: Task) => task.id;

/** The id that the inside of a block of a given circuit has in the student's hands. */
export const blockIdFor = (task: Task, sheet: string): string => `${task.id}-${sheet}`.slice(0, 64);

/** The sheets of a given circuit under ids of the task; the first gets the name of the task. */
function sheetsFor(task: Task, name: string): Sheet[] {
  if (!task.given) return [emptySheet(idFor(task), name)];
  const [first, ...others] = sheetsGiven(task.given);
  const ids = new Map(others.map(({ id }) => [id, blockIdFor(task, id)]));
  const led = (part: Part) => {
    const to = ids.get(sheetIdInside(part) ?? '');
    return to ? withSheetInside(part, to) : part;
  };
  const moved = (sheet: Sheet, id: string, named: string): Sheet => ({
    ...sheet,
    id,
    name: named,
    parts: new Map([...sheet.parts].map(([key, part]) => [key, led(part)])),
  });
  return [
    moved(first!, idFor(task), name),
    ...others.map((sheet) => moved(sheet, ids.get(sheet.id)!, sheet.name)),
  ];
}

/** Most letters of a sheet's name. */
const MOST_NAME = 60;

/** The work at an exercise before anything is done: a sheet for each task, with its given circuit. */
export function begunWork(exercise: Exercise, id: string): Lesson {
  const sheets: Sheet[] = [];
  const tasks: Record<string, TaskWork> = {};
  const names = new Set<string>();
  for (const task of exercise.tasks) {
    const base = task.title.slice(0, MOST_NAME - 4);
    let name = base;
    for (let n = 2; names.has(name); n++) name = `${base} ${n}`;
    names.add(name);
    sheets.push(...sheetsFor(task, name));
    tasks[task.id] = { sheet: idFor(task), answer: null };
  }
  const settings = exercise.tasks.find((task) => task.given)?.given?.settings ?? DEFAULT_SETTINGS;
  return { id, title: exercise.title, settings, sheets, exercise, work: { tasks, checks: {} } };
}

/** A sheet with those of its blocks, as a task gives it: without what was filled in or driven on it. */
export function excerptFor(sheet: Sheet, sheets: readonly Sheet[], settings: Settings): GivenCircuit {
  const taken: Sheet[] = [sheet];
  for (const at of taken)
    for (const part of at.parts.values()) {
      const inside = sheetInside(part, sheets);
      if (inside && !taken.includes(inside)) taken.push(inside);
    }
  return { settings, sheets: taken.map(({ plan: _, ...rest }) => flatSheet(rest)) };
}
