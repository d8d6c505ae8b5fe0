import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['0, 1, x in a table to fill in', 'fill it down the column; Enter draws it, F2 changes names'],
  ['Paste into it', 'cells from a spreadsheet, or a whole table'],
  ['Press an output twice', 'its value is reversed, and the circuit of that is offered'],
  ['Drag a heading', 'the rows in another order'],
];
