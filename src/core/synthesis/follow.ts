import type { Lesson } from '../circuit/lesson';
import { type Following, followSheets } from '../drawing/blocks';
import { followNotes } from '../drawing/living-notes';
import { followFormulas } from './formula-notes';

/** What blocks and living notes need once an edit has been made. */
export function follow(lesson: Lesson): Following {
  const { edits, wiresLost } = followSheets(lesson);
  return { edits: [...edits, ...followNotes(lesson), ...followFormulas(lesson)], wiresLost };
}
