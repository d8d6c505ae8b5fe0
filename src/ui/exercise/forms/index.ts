import { buildForm } from './build-form';
import { tableForm } from './table-form';
import type { TaskForm } from './task-form';
import { wordsForm } from './words-form';

/** The forms of all kinds of task. */
export const FORMS = [buildForm, tableForm, wordsForm] as unknown as readonly TaskForm[];
