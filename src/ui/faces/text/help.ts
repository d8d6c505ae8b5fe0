import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Click a line of the text', 'selects its part in the drawing; the lines of what is selected are lit'],
  ['Copy · Save as Verilog', 'the whole text, as IEEE 1364 has it'],
];
