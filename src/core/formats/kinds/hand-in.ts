import { mapped } from '../../values/result';
import type { Format } from '../format';

export const HAND_IN_FORMAT: Format = {
  id: 'hand-in',
  noun: 'a hand-in',
  home: 'drop it on the marking page',
  endings: ['.handin.json'],
  mimeType: 'application/json',
  heading: 'manege-hand-in',
  read: {
    at: ['marking', 'shelf', 'exercise page'],
    load: async () => {
      const { handInFromJson } = await import('../hand-in-file');
      return ({ json }) => mapped(handInFromJson(json), (handIn) => ({ is: 'hand-in', handIn }));
    },
  },
};
