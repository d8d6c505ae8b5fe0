import { buildForm } from './build-form';
import { formulaForm } from './formula-form';
import { mapForm } from './map-form';
import { numberForm } from './number-form';
import { tableForm } from './table-form';
import type { TaskForm } from './task-form';
import { wordsForm } from './words-form';

/** The forms of all kinds of task, in the order in which they are offered. */
export const FORMS = [
  buildForm,
  tableForm,
  formulaForm,
  mapForm,
  numberForm,
  wordsForm,
] as unknown as readonly TaskForm[];
