/** The look of the button with the number of problems. */
export const PROBLEM_COUNT =
  'ml-auto cursor-pointer rounded-md px-1.5 font-semibold text-bad hover:bg-accent-soft';

export function problemCountText(count: number): string {
  return count === 1 ? '1 problem' : `${count} problems`;
}
