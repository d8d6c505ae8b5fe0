/** A small button that looks like a link. */
export const SMALL = 'cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';
/** A cell of a table of numbers. */
export const CELL = 'px-1.5 py-0.5 text-right whitespace-nowrap tabular-nums';
