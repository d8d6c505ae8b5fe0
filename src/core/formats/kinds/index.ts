import type { Format } from '../format';
import { AAG_FORMAT } from './aag';
import { AIG_FORMAT } from './aig';
import { BLIF_FORMAT } from './blif';
import { EXERCISE_FORMAT } from './exercise';
import { HAND_IN_FORMAT } from './hand-in';
import { KISS_FORMAT } from './kiss';
import { LESSON_FORMAT } from './lesson';
import { MARKING_FORMAT } from './marking';
import { PLA_FORMAT } from './pla';
import { PNG_FORMAT } from './png';
import { RETURNED_FORMAT } from './returned';
import { SVG_FORMAT } from './svg';
import { TABLE_FORMAT } from './table-csv';
import { TIKZ_FORMAT } from './tikz';
import { VERILOG_FORMAT } from './verilog';

/** Every format of files, in the order in which lists show them. */
export const FORMATS: readonly Format[] = [
  LESSON_FORMAT,
  EXERCISE_FORMAT,
  HAND_IN_FORMAT,
  RETURNED_FORMAT,
  MARKING_FORMAT,
  SVG_FORMAT,
  PNG_FORMAT,
  TIKZ_FORMAT,
  VERILOG_FORMAT,
  BLIF_FORMAT,
  AAG_FORMAT,
  AIG_FORMAT,
  PLA_FORMAT,
  KISS_FORMAT,
  TABLE_FORMAT,
];
