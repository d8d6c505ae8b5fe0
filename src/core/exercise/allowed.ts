import type { Exercise } from '../circuit/exercise';
import { ALWAYS_ALLOWED } from '../parts/catalogue';
import { exerciseKindOf } from './kinds';

/** Whether an exercise lets this kind be used. */
export function isAllowed(exercise: Exercise | null, kind: string): boolean {
  if (!exercise || ALWAYS_ALLOWED.includes(kind) || exercise.allowed.includes(kind)) return true;
  // An input that goes up and down by itself may be a clock.
  return (
    kind === 'clock' &&
    exerciseKindOf(exercise.expected)
      .signals(exercise.expected)
      .inputs.some((i) => i.period !== null)
  );
}
