import { mapped } from '../../values/result';
import type { Format } from '../format';

export const RETURNED_FORMAT: Format = {
  id: 'returned',
  noun: 'marked work',
  home: 'drop it on the page of lessons',
  endings: ['.returned.json'],
  mimeType: 'application/json',
  heading: 'manege-returned',
  read: {
    at: ['shelf', 'exercise page'],
    load: async () => {
      const { returnedFromJson } = await import('../returned-file');
      return ({ json }) => mapped(returnedFromJson(json), (returned) => ({ is: 'returned', returned }));
    },
  },
};
