import { sheetOf } from '@/core/circuit/lesson';
import type { SessionState } from '@/session/state';

/** Whether the shown sheet is the running one, and is drawn with its designators and pin numbers. */
export const arePinsNoted = ({ path, lesson, rootId }: SessionState): boolean =>
  path.length === 0 && sheetOf(lesson, rootId)!.chips?.shown === true;
