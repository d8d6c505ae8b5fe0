import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import type { Part } from '@/core/circuit/sheet';
import type { DerivedUpdate } from '@/core/drawing/editing/derived-blocks';
import { kindOf } from '@/core/parts/catalogue';
import { fetcher } from '@/loading/load';

/*
 * Content that is derived from a sheet: blocks have its ports, tables and formulas on a sheet show its
 * function.
 */

/** The edits that an edit entails, given the lesson after it. */
export type UpdateDerived = (lesson: Lesson) => DerivedUpdate;

const isDerived = (part: Part) => kindOf(part).follows !== undefined;

/** Whether a lesson has parts that are derived from a sheet. */
export function hasDerived(lesson: Lesson): boolean {
  for (const sheet of lesson.sheets)
    for (const part of sheet.parts.values()) if (isDerived(part)) return true;
  return false;
}

/** Whether an edit of a lesson needs `UpdateDerived`: parts that are derived are there, or come with it. */
export function needsUpdateDerived(lesson: Lesson, edit: Edit): boolean {
  return hasDerived(lesson) || brings(edit);
}

function brings(edit: Edit): boolean {
  if (edit.type === 'group') return edit.edits.some(brings);
  if (edit.type === 'addSheet') return [...edit.sheet.parts.values()].some(isDerived);
  return edit.type === 'addPart' && isDerived(edit.part);
}

/** Fetches it; the page does so before a lesson that needs it takes its first edit. */
export const fetchUpdateDerived: () => Promise<UpdateDerived> = fetcher(
  'what keeps blocks and notes up to date',
  () => import('@/core/synthesis/update-derived').then((m) => m.updateDerived),
);
