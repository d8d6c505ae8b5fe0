/*
 * The first steps are offered once in a browser, on its first new lesson, and never again.
 */

import { remember, remembered } from '@/loading/page-memory';

const KEY = 'manege-first-steps';
/** Told at the window when the dialog for handing out is opened. */
export const HANDING_OUT = 'manege-handing-out';

/** Whether the first steps are offered on a lesson: the first new one of this browser, until they are left or done. */
export function areStepsOffered(lesson: string): boolean {
  const known = remembered(KEY);
  return known === null ? remember(KEY, lesson) : known === lesson;
}

export function endSteps(): void {
  remember(KEY, 'ended');
}
