import { toJSONSchema } from 'zod/mini';
import { LessonFile } from '../circuit/lesson-schema';

/**
 * The JSON Schema (2020-12) of a lesson file as it is written, for programs that make or check lessons. What depends on the kinds of
 * parts, such as their parameters and ports, is checked when a file is read.
 */
export function lessonSchemaText(): string {
  const schema = toJSONSchema(LessonFile, { io: 'input', unrepresentable: 'any' });
  return `${JSON.stringify({ ...schema, title: 'Lesson of Manege' }, null, 2)}\n`;
}
