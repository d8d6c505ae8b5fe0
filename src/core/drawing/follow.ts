import type { Lesson } from '../circuit/lesson';
import { type Following, followSheets } from './blocks';
import { followNotes } from './living-notes';

/** What blocks and living notes need once an edit has been made. */
export function follow(lesson: Lesson): Following {
  const { edits, wiresLost } = followSheets(lesson);
  return { edits: [...edits, ...followNotes(lesson)], wiresLost };
}
