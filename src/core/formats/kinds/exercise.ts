import { mapped } from '../../values/result';
import type { Format } from '../format';

export const EXERCISE_FORMAT: Format = {
  id: 'exercise',
  noun: 'an exercise',
  endings: ['.exercise.json'],
  mimeType: 'application/json',
  heading: 'manege-exercise',
  read: {
    at: ['shelf', 'exercise page', 'marking'],
    load: async () => {
      const { exerciseFromJson } = await import('../exercise-file');
      return ({ json }) => mapped(exerciseFromJson(json), (exercise) => ({ is: 'exercise', exercise }));
    },
  },
};
