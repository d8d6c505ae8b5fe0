/*
 * The first steps are offered once in a browser, on its first new lesson, and never again.
 */

const KEY = 'manege-first-steps';
/** Told at the window when the dialog for handing out is opened. */
export const HANDING_OUT = 'manege-handing-out';

/** Whether the first steps are offered on a lesson: the first new one of this browser, until they are left or done. */
export function areStepsOffered(lesson: string): boolean {
  try {
    const known = localStorage.getItem(KEY);
    if (known === null) localStorage.setItem(KEY, lesson);
    return known === null || known === lesson;
  } catch {
    return false;
  }
}

export function endSteps(): void {
  try {
    localStorage.setItem(KEY, 'ended');
  } catch {
    // A browser that keeps nothing is offered nothing.
  }
}
