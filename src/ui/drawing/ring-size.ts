/** Radius of the whole ring in pixels. */
export const OUTER = 172;
