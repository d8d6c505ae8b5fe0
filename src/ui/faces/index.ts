import { BENCH_FACE } from './bench';
import { CHIPS_FACE } from './chips';
import type { Face } from './face';
import { FORMULA_FACE } from './formula';
import { MAP_FACE } from './map';
import { STATES_FACE } from './states';
import { TABLE_FACE } from './table';
import { TEXT_FACE } from './text';
import { TIME_FACE } from './time';

/** The faces that can stand beside the drawing, in the order in which they stand. */
export const FACES: readonly Face[] = [
  TABLE_FACE,
  FORMULA_FACE,
  MAP_FACE,
  TIME_FACE,
  STATES_FACE,
  CHIPS_FACE,
  BENCH_FACE,
  TEXT_FACE,
];
