import { list, text, title, z } from '../values/schema';
import { AnyExpected } from './kinds';

/** The content of an exercise file, without its heading. */
export const ExerciseSchema = z.object({
  id: z.string().check(z.regex(/^[a-z0-9-]{4,64}$/i)),
  title: title(120, 'the exercise has no title'),
  task: text(20_000),
  expected: AnyExpected,
  allowed: list(text(40), 200),
  made: z.datetime(),
});
