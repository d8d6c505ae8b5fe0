/*
 * How large a lesson may be, in memory as in its file: what an edit or a reader makes can always be kept and opened again.
 */

export const MOST_SHEETS = 500;
/** Of one sheet. */
export const MOST_PARTS = 50_000;
/** Of one sheet. */
export const MOST_WIRES = 100_000;
/** Of one wire. */
export const MOST_CORNERS = 200;
