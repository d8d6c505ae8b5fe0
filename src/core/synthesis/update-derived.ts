import type { Lesson } from '../circuit/lesson';
import { type DerivedUpdate, updateBlocks } from '../drawing/editing/derived-blocks';
import { updateTruthNotes } from '../drawing/editing/derived-notes';
import { updateFormulaNotes } from './formula-notes';

/** What blocks and living notes need once an edit has been made. */
export function updateDerived(lesson: Lesson): DerivedUpdate {
  const { edits, wiresLost } = updateBlocks(lesson);
  return { edits: [...edits, ...updateTruthNotes(lesson), ...updateFormulaNotes(lesson)], wiresLost };
}
