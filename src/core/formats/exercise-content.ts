import type { Exercise, FlatSheet, GivenCircuit, Task } from '../circuit/exercise';
import { MOST_SHEETS } from '../circuit/limits';
import { idsBegun, sheetOfFlat } from '../exercise/begin';
import { ExerciseSchema } from '../exercise/exercise-schema';
import { taskKindOf } from '../exercise/kinds';
import { blockCycle, holdsItself } from '../netlist/blocks';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue } from '../values/schema';
import { sheetFromFile } from './sheet-file';

/** Reads the content of an exercise file below its heading, in its newest version. */
export function exerciseContent(value: unknown): Result<Exercise> {
  const parsed = ExerciseSchema.safeParse(value);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const tasks: Task[] = [];
  const begun = new Map<string, string>();
  for (const task of parsed.data.tasks) {
    const given = task.given && circuitContent(task.given);
    if (given && !given.ok) return refusal(within(`the circuit that “${task.title}” gives`, given.problem));
    const pictures = [];
    for (const { name, circuit } of task.pictures ?? []) {
      const read = circuitContent(circuit);
      if (!read.ok) return refusal(within(`the picture “${name}” of “${task.title}”`, read.problem));
      pictures.push({ name, circuit: read.value });
    }
    const standIn = standInOf(task);
    const circuit = standIn && circuitContent(standIn);
    if (circuit && !circuit.ok)
      return refusal(within(`the circuit that stands in for “${task.title}”`, circuit.problem));
    const asked = circuit ? { ...(task.asked as object), standIn: circuit.value } : task.asked;
    const shown = task.pictures ? { pictures } : {};
    const whole = { ...task, ...shown, given: given?.value ?? null, asked };
    const strange = whole.key === null ? null : taskKindOf(task).strange?.(whole);
    if (strange) return refused('strange-task', `in “${task.title}”: ${strange}`);
    for (const id of idsBegun(whole, circuit?.value ?? null)) {
      const other = begun.get(id);
      if (other !== undefined)
        return refused(
          'twice',
          `a sheet of “${other}” and one of “${task.title}” would both have the id ${id}`,
        );
      begun.set(id, task.title);
    }
    tasks.push(whole);
  }
  if (begun.size > MOST_SHEETS)
    return refused(
      'too-many-sheets',
      `its tasks begin with ${begun.size} sheets together, and a lesson has ${MOST_SHEETS} at most`,
    );
  return done({ ...parsed.data, tasks });
}

/** The circuit that stands in for a student's, where a task has one. */
const standInOf = ({ asked }: Task): GivenCircuit | null =>
  (asked as { standIn?: GivenCircuit | null }).standIn ?? null;

/** Looks up the parts of a given circuit in the catalogue, and completes their parameters. */
function circuitContent({ settings, sheets }: GivenCircuit): Result<GivenCircuit> {
  const read: FlatSheet[] = [];
  for (const file of sheets) {
    if (read.some((s) => s.id === file.id)) return refused('twice', `two sheets have the id ${file.id}`);
    const sheet = sheetFromFile(file as never);
    if (!sheet.ok) return refusal(within(`on sheet “${file.name}”`, sheet.problem));
    const { parts, wires, ...rest } = sheet.value;
    read.push({ ...rest, parts: [...parts.values()], wires: [...wires.values()] });
  }
  const whole = read.map(sheetOfFlat);
  for (const sheet of whole) {
    const cycle = blockCycle(whole, sheet);
    if (cycle) return refused('block-cycle', holdsItself('sheet', cycle));
  }
  return done({ settings, sheets: read });
}
