import { buildForm } from './build-form';
import type { TaskForm } from './task-form';
import { wordsForm } from './words-form';

/** The forms of all kinds of task. */
export const FORMS = [buildForm, wordsForm] as unknown as readonly TaskForm[];
