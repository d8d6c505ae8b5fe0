import { type Applied, applyWithInverse, type Edit } from '@/core/circuit/edit';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { Problem } from '@/core/values/result';

/** The edits of a transaction as one, with the lesson that they led to and the edit that takes them back. */
export interface Made extends Applied {
  readonly edit: Edit;
}

const grouped = (edits: readonly Edit[]): Edit => (edits.length === 1 ? edits[0]! : { type: 'group', edits });

/**
 * Edits that each need the one before to be made, gathered into one step of undo. The first that does not apply refuses
 * all of them: those after it are not made.
 */
export class Transaction {
  private readonly edits: Edit[] = [];
  /** What takes the edits back, the last one first. */
  private readonly inverses: Edit[] = [];
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
    const applied = applyWithInverse(this.lesson, edit);
    if (!applied.ok) {
      this.problem = applied.problem;
      return false;
    }
    this.lesson = applied.value.lesson;
    this.edits.push(edit);
    this.inverses.unshift(applied.value.inverse);
    return true;
  }

  /** All of it; null where nothing was made. */
  get made(): Made | null {
    if (this.edits.length === 0) return null;
    return { edit: grouped(this.edits), lesson: this.lesson, inverse: grouped(this.inverses) };
  }
}
