import type { Exercise } from '../circuit/exercise';
import { ALWAYS_ALLOWED } from '../parts/catalogue';

/** Whether an exercise lets this kind be used. */
export function isAllowed(exercise: Exercise | null, kind: string): boolean {
  if (!exercise || ALWAYS_ALLOWED.includes(kind) || exercise.allowed.includes(kind)) return true;
  // An input that goes up and down by itself may be a clock.
  const { wanted } = exercise;
  return kind === 'clock' && wanted.is === 'run' && wanted.inputs.some((i) => i.wave.pattern === 'periodic');
}
