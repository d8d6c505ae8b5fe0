import type { Exercise } from '../circuit/exercise';
import { ALWAYS_ALLOWED } from '../parts/catalogue';

/** Whether an exercise lets this kind be used. */
export function isAllowed(exercise: Exercise | null, kind: string): boolean {
  return !exercise || ALWAYS_ALLOWED.includes(kind) || exercise.allowed.includes(kind);
}
