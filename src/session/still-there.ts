import type { Lesson } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import { sheetInside } from '@/core/parts/catalogue';

/*
 * The part of a selection, a path or an order that survives a change of the lesson.
 */

/** The ids that are still there; the same set where all are. */
export function kept(ids: ReadonlySet<string>, there: { has(id: string): boolean }): ReadonlySet<string> {
  return [...ids].every((id) => there.has(id)) ? ids : new Set([...ids].filter((id) => there.has(id)));
}

/** Whether two lists have the same keys in the same order. */
export function same<T>(a: readonly T[], b: readonly T[], key: (of: T) => string): boolean {
  return a.length === b.length && a.every((of, i) => key(of) === key(b[i]!));
}

/** Goes from a sheet into its blocks as far as they exist. */
export function walked(
  lesson: Lesson,
  root: Sheet,
  path: readonly string[],
): { path: string[]; sheet: Sheet } {
  const gone: string[] = [];
  let sheet = root;
  for (const block of path) {
    const part = sheet.parts.get(block);
    const inside = part && sheetInside(part, lesson.sheets);
    if (!inside) break;
    gone.push(block);
    sheet = inside;
  }
  return { path: gone, sheet };
}
