import type { Exercise, Task } from '../circuit/exercise';
import { MOST_SHEETS } from '../circuit/limits';
import { idsBegun } from '../exercise/begin';
import { circuitContent } from '../exercise/circuit-content';
import { ExerciseSchema } from '../exercise/exercise-schema';
import { standInOf, taskKindOf, withCircuits } from '../exercise/kinds';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue } from '../values/schema';

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
    const shown = task.pictures ? { pictures } : {};
    const read = withCircuits({ ...task, ...shown, given: given?.value ?? null });
    if (!read.ok) return refusal(within(`“${task.title}”`, read.problem));
    const whole = read.value;
    const strange = whole.key === null ? null : taskKindOf(task).strange?.(whole);
    if (strange) return refused('strange-task', `in “${task.title}”: ${strange}`);
    for (const id of idsBegun(whole, standInOf(whole))) {
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
