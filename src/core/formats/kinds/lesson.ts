import { done, mapped } from '../../values/result';
import type { Format } from '../format';

export const LESSON_FORMAT: Format = {
  id: 'lesson',
  noun: 'a lesson',
  endings: ['.manege.json', '.json'],
  mimeType: 'application/json',
  heading: 'manege-lesson',
  read: {
    at: ['shelf', 'command line', 'marking'],
    load: async () => {
      const { lessonFromJson } = await import('../lesson-file');
      return ({ json }) => mapped(lessonFromJson(json), (lesson) => ({ is: 'lesson', lesson }));
    },
  },
  write: {
    at: ['command line'],
    load: async () => {
      const { writeLesson } = await import('../write-lesson');
      return ({ lesson }) => done([writeLesson(lesson).trimEnd()]);
    },
  },
};
