import type { Lesson } from '../circuit/lesson';
import { type DerivedUpdate, updateBlocks } from '../drawing/editing/derived-blocks';
import { updateTruthNotes } from '../drawing/editing/derived-notes';
import { updateFormulaNotes } from './formula-notes';

/** The edits that bring blocks and derived notes up to date after an edit. */
export function updateDerived(lesson: Lesson): DerivedUpdate {
  const { edits, wiresLost } = updateBlocks(lesson);
  return { edits: [...edits, ...updateTruthNotes(lesson), ...updateFormulaNotes(lesson)], wiresLost };
}
