import type { HelpLine } from '../face';

/** The lines of this face on the help page. */
export const HELP: readonly HelpLine[] = [
  ['Point at a unit of a package', 'its gate is lit in the drawing, and the other way round'],
  ['Click a unit', 'selects its gate, and offers another unit or its inputs exchanged'],
  ['Family · Drawer', 'which packages are used, and how many of each there are'],
  ['Pins on the drawing', 'designators and pin numbers at the gates, on paper and in pictures as well'],
  ['Lists', 'parts and wires as CSV or Markdown, and printed'],
];
