import { apply, type Edit } from '@/core/circuit/edit';
import { type Lesson, type Sheet, sheetOf } from '@/core/circuit/lesson';
import type { Problem } from '@/core/values/result';

/**
 * Edits that each need the one before to be made, gathered into one step of undo. The first that does not apply refuses
 * all of them: those after it are not made.
 */
export class Transaction {
  private readonly edits: Edit[] = [];
  /** Why one of the edits cannot be made; null while all can. */
  problem: Problem | null = null;

  constructor(
    /** The lesson with the edits made so far. */
    public lesson: Lesson,
    private readonly sheetId: string,
  ) {}

  /** The shown sheet with the edits made so far. */
  get sheet(): Sheet {
    return sheetOf(this.lesson, this.sheetId)!;
  }

  /** @returns whether there was an edit, and it was made. */
  make(edit: Edit | null | undefined): boolean {
    if (!edit || this.problem || (edit.type === 'group' && edit.edits.length === 0)) return false;
    const applied = apply(this.lesson, edit);
    if (!applied.ok) {
      this.problem = applied.problem;
      return false;
    }
    this.lesson = applied.value;
    this.edits.push(edit);
    return true;
  }

  /** All of it as one edit; null where nothing was made. */
  get edit(): Edit | null {
    if (this.edits.length === 0) return null;
    return this.edits.length === 1 ? this.edits[0]! : { type: 'group', edits: this.edits };
  }
}
