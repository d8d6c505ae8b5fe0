import { apply, type Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';

const last = new WeakMap<Edit, { readonly to: Lesson; readonly made: Result<Lesson> }>();

/** The lesson as a gesture's edit would make it; made once for all who ask at a step of the gesture. */
export function applied(lesson: Lesson, edit: Edit): Result<Lesson> {
  const known = last.get(edit);
  if (known?.to === lesson) return known.made;
  const made = apply(lesson, edit);
  last.set(edit, { to: lesson, made });
  return made;
}
