import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Press a cell twice', 'its value is reversed, and the circuit of that is offered'],
  ['Drag the name of an axis', 'the map in another order'],
];
