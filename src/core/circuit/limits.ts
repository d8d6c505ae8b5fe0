/*
 * The largest lesson that an edit or a reader may make. Files have the same limits, so every lesson can be saved and opened again.
 */

export const MOST_SHEETS = 500;
/** Of one sheet. */
export const MOST_PARTS = 120_000;
/** Of one sheet. */
export const MOST_WIRES = 300_000;
/** Of one wire. */
export const MOST_CORNERS = 200;
