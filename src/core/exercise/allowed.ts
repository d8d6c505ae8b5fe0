import type { Exercise } from '../circuit/exercise';
import { findKind } from '../parts/catalogue';
import { exerciseKindOf } from './kinds';

/** Whether an exercise lets this kind be used. */
export function isAllowed(exercise: Exercise | null, kind: string): boolean {
  const entry = findKind(kind);
  if (!exercise || entry?.alwaysAllowed || exercise.allowed.includes(kind)) return true;
  // An input that goes up and down by itself may be a clock.
  return (
    entry?.isClock === true &&
    exerciseKindOf(exercise.expected)
      .signals(exercise.expected)
      .inputs.some((i) => i.period !== null)
  );
}
