import type { Exercise } from '../circuit/exercise';
import { ExerciseSchema } from '../exercise/exercise-schema';
import { findKind } from '../parts/catalogue';
import { done, located, type Result, refusal, refused } from '../values/result';
import { firstIssue } from '../values/schema';

/** Reads the content of an exercise file below its heading, in its newest version. */
export function exerciseContent(value: unknown): Result<Exercise> {
  const parsed = ExerciseSchema.safeParse(value);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const strange = parsed.data.allowed.find((kind) => !findKind(kind));
  return strange
    ? refused('unknown-kind', `it allows a part “${strange}”, which this Manege does not know`)
    : done(parsed.data);
}
