import { type Diagnostic, isUnfinished } from '@/core/netlist/diagnostic';
import { counted } from '@/core/values/wording';

/** The look of the button with the number of problems: red only where something contradicts something else. */
export const problemCountLook = (found: readonly Diagnostic[]): string =>
  `ml-auto shrink-0 cursor-pointer rounded-md px-1.5 hover:bg-accent-soft ${
    found.every(isUnfinished) ? 'text-quiet' : 'font-semibold text-bad'
  }`;

/** `1 problem · 2 open inputs`. */
export function problemCountText(found: readonly Diagnostic[]): string {
  const wrong = found.filter((d) => !isUnfinished(d)).length;
  const open = found.filter(isUnfinished).reduce((sum, d) => sum + d.pins.length, 0);
  return [wrong > 0 && counted(wrong, 'problem'), open > 0 && counted(open, 'open input')]
    .filter(Boolean)
    .join(' · ');
}
