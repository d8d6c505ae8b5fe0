import { mapped } from '../../values/result';
import type { Format } from '../format';

export const MARKING_FORMAT: Format = {
  id: 'marking',
  noun: 'a marking',
  home: 'drop it on the marking page',
  endings: ['.marking.json'],
  mimeType: 'application/json',
  heading: 'manege-marking',
  read: {
    at: ['marking'],
    load: async () => {
      const { markingFromJson } = await import('../marking-file');
      return ({ json }) => mapped(markingFromJson(json), (marking) => ({ is: 'marking', marking }));
    },
  },
};
