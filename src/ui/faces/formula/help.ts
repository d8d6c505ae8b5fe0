import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Change, beside a formula', 'type it in any notation; new names become inputs'],
];
