import { apply, type Edit } from '../circuit/edit';
import type { FlatSheet } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { flatSheet } from './begin';

/** A sheet as it was after a step of its drawing. */
export interface EditFrame {
  /** The name of the step, as it follows “Undo:”: `place 1 part`; empty for how it was before all of them. */
  readonly step: string;
  readonly sheet: FlatSheet;
}

/** A step that can be taken back. */
interface Undoable {
  readonly name: string;
  readonly inverse: Edit;
}

/** Steps that are told, at most. */
export const MOST_FRAMES = 300;
/** Parts in all frames together, so that a large drawing takes no longer to pack than a small one. */
const MOST_PARTS = 8000;

/**
 * How the sheets of a lesson came about, the oldest first: a frame for each sheet that a step changed, and one for how it was before.
 * @param steps the newest last, as far back as they can be taken.
 */
export function editFrames(lesson: Lesson, steps: readonly Undoable[]): EditFrame[] {
  const frames: EditFrame[] = [];
  let after = lesson;
  let parts = 0;
  /** By sheet the oldest state that was reached. */
  const oldest = new Map<string, FlatSheet>();
  for (const { name, inverse } of steps.slice(-MOST_FRAMES).reverse()) {
    const before = apply(after, inverse);
    if (!before.ok || parts > MOST_PARTS) break;
    for (const sheet of after.sheets) {
      const was = before.value.sheets.find(({ id }) => id === sheet.id);
      if (was === sheet) continue;
      frames.push({ step: name, sheet: flatSheet(sheet) });
      parts += sheet.parts.size;
      if (was) oldest.set(sheet.id, flatSheet(was));
    }
    after = before.value;
  }
  for (const sheet of oldest.values()) frames.push({ step: '', sheet });
  return frames.reverse();
}
