import { benchForm } from './bench-form';
import { buildForm } from './build-form';
import { diagramForm } from './diagram-form';
import { faultForm } from './fault-form';
import { formulaForm } from './formula-form';
import { mapForm } from './map-form';
import { numberForm } from './number-form';
import { tableForm } from './table-form';
import type { TaskForm } from './task-form';
import { wordsForm } from './words-form';

/** The forms of all kinds of task, in the order in which they are offered. */
export const FORMS = [
  buildForm,
  benchForm,
  tableForm,
  diagramForm,
  faultForm,
  formulaForm,
  mapForm,
  numberForm,
  wordsForm,
] as unknown as readonly TaskForm[];
