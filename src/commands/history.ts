import { DONE, refused } from '@/core/values/result';
import type { Step } from '@/session/history';
import type { Command } from './command';
import { all, canWrite } from './conditions';

/** `Undo: move 3 parts`, or the word alone where there is nothing. */
const stepName = (word: string, step: Step | undefined) => (step ? `${word}: ${step.name}` : word);

export const UNDO: Command = {
  id: 'history.undo',
  name: 'Undo',
  group: 'history',
  keys: ['Ctrl+Z'],
  words: 'back revert',
  isEverywhere: true,
  nameNow: ({ session }) => stepName('Undo', session.state.history.undo.at(-1)),
  when: all(canWrite, ({ session }) =>
    session.state.history.undo.length > 0 ? DONE : refused('no-step', 'there is nothing to undo'),
  ),
  run: ({ session }) => session.undo(),
};

export const REDO: Command = {
  id: 'history.redo',
  name: 'Redo',
  group: 'history',
  keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
  words: 'again repeat',
  isEverywhere: true,
  nameNow: ({ session }) => stepName('Redo', session.state.history.redo.at(-1)),
  when: all(canWrite, ({ session }) =>
    session.state.history.redo.length > 0 ? DONE : refused('no-step', 'there is nothing to redo'),
  ),
  run: ({ session }) => session.redo(),
};

export const HISTORY: readonly Command[] = [UNDO, REDO];
