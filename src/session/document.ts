import { applyWithInverse, type Edit, isCosmetic } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { kindOf } from '@/core/parts/catalogue';
import { DONE, done, type Result, refusal, refused } from '@/core/values/result';
import { counted } from '@/core/values/wording';
import { needsUpdateDerived, type UpdateDerived } from './derived';
import { type History, noted, redone, type Step, stepOf, undone } from './history';
import { forbidden, type RuleBook } from './rules';
import type { Notice, SessionState } from './state';
import { type Made, Transaction } from './transaction';

/** How a lesson has changed: only in looks and places, by a new edit, or by going back to how it was. */
export type Change = 'cosmetic' | 'new' | 'back';

/** The part of the session that the document needs. */
export interface DocumentHost {
  readonly state: SessionState;
  /** Takes another version of the lesson to all faces. */
  adopt(lesson: Lesson, history: History, change: Change): void;
  /** Hands an edit that was made to the journal. */
  keep(edit: Edit): void;
  say(text: string, tone?: Notice['tone']): void;
  sayUndoable(text: string): void;
}

/** The edits that settle a sheet after an edit that led from one lesson to the next. */
export type Settle = (before: Lesson, after: Lesson, edit: Edit) => Edit[];

/** Refused while another tab edits the lesson, or if it is only looked at. */
const READ_ONLY = refused('read-only', 'this lesson cannot be changed here');

/** The one door through which an open lesson changes: transactions, and their way back. */
export class LessonDocument {
  /** Whether the last step of undo may still grow: nothing has come between it and now. */
  private stepIsOpen = false;

  /**
   * @param updateDerived the function that `needsUpdateDerived` asks for; null until it is there.
   * @param rules what an exercise lets be done; null where everything may be.
   * @param settled the edits that settle a sheet after an edit; null until the tools of the drawing are there.
   */
  constructor(
    private readonly host: DocumentHost,
    public updateDerived: UpdateDerived | null,
    private readonly rules: RuleBook | null = null,
    public settled: Settle | null = null,
  ) {}

  /**
   * Makes edits that each need the one before, as one step of undo: all of them, with everything that is
   * derived from them, or none. They are handed to the journal before this returns. A refusal is shown to the
   * person as well.
   * @param name the name of the step, as it follows “Undo:”: `move 3 parts`.
   * @param merge steps with the same key become one while nothing comes between them.
   * @returns the result of `work`.
   */
  transaction<T>(name: string, work: (made: Transaction) => T, merge: string | null): Result<T> {
    const { lesson, sheetId, readOnly } = this.host.state;
    if (readOnly) return this.told(READ_ONLY);
    const transaction = new Transaction(lesson, sheetId);
    const value = work(transaction);
    const broken = this.rules && transaction.made && forbidden(this.rules, lesson, transaction.made.edit);
    if (broken) return this.told(refusal(broken));
    const wiresLost = this.addDerived(transaction);
    if (!wiresLost.ok) return this.told(wiresLost);
    this.settle(transaction);
    const { problem, made } = transaction;
    if (problem) return this.told(refusal(problem));
    if (!made) return done(value);
    const step = stepOf(name, made.inverse, merge);
    this.take(made, noted(this.host.state.history, step, this.stepIsOpen), 'new');
    this.stepIsOpen = merge !== null;
    if (wiresLost.value > 0)
      this.host.sayUndoable(
        `${counted(wiresLost.value, 'wire')} ended on a port that the block no longer has, and went with it.`,
      );
    return done(value);
  }

  /**
   * Makes an edit that stands whatever is undone or done again.
   * @param overrides which edits can then no longer be taken back or made again.
   */
  note(edit: Edit, overrides: (edit: Edit) => boolean): Result<undefined> {
    const { lesson, readOnly, history } = this.host.state;
    if (readOnly) return READ_ONLY;
    const applied = applyWithInverse(lesson, edit);
    if (!applied.ok) return applied;
    const stays = (step: Step) => !overrides(step.inverse);
    const left = { undo: history.undo.filter(stays), redo: history.redo.filter(stays) };
    this.take({ ...applied.value, edit }, left, 'new');
    return DONE;
  }

  /** Ends the last step of undo: the next edit is a step of its own. */
  endStep(): void {
    this.stepIsOpen = false;
  }

  undo(): Result<undefined> {
    return this.back(this.host.state.history.undo.at(-1), undone);
  }

  redo(): Result<undefined> {
    return this.back(this.host.state.history.redo.at(-1), redone);
  }

  private told<T>(result: Result<T>): Result<T> {
    if (!result.ok) this.host.say(`That does not work: ${result.problem.message}.`, 'bad');
    return result;
  }

  /** Adds the edits by which blocks and notes follow a transaction. @returns the number of wires lost by it. */
  private addDerived(transaction: Transaction): Result<number> {
    const { made } = transaction;
    if (!made || transaction.problem || !needsUpdateDerived(this.host.state.lesson, made.edit))
      return done(0);
    if (!this.updateDerived)
      return refused(
        'not-loaded',
        'the part of Manege that keeps blocks and notes up to date has not been fetched yet; try again in a moment',
      );
    const { edits, wiresLost } = this.updateDerived(transaction.lesson);
    transaction.make({ type: 'group', edits });
    return done(wiresLost);
  }

  /** Adds the edits that keep parts apart and wires clear of each other. */
  private settle(transaction: Transaction): void {
    const { made, problem, lesson } = transaction;
    if (made && !problem && this.settled)
      transaction.make({ type: 'group', edits: this.settled(this.host.state.lesson, lesson, made.edit) });
  }

  private back(step: Step | undefined, remember: typeof undone): Result<undefined> {
    if (!step) return DONE;
    const { lesson, readOnly, history } = this.host.state;
    if (readOnly) return this.told(READ_ONLY);
    const applied = applyWithInverse(lesson, step.inverse);
    if (!applied.ok) return this.told(applied);
    this.stepIsOpen = false;
    this.take({ ...applied.value, edit: step.inverse }, remember(history, applied.value.inverse), 'back');
    return DONE;
  }

  /** Takes edits that were made to all faces and to the journal. */
  private take({ edit, lesson }: Made, history: History, change: Change): void {
    const cosmetic = isCosmetic(this.host.state.lesson, edit, (kind) => kindOf({ kind }).isNote === true);
    this.host.adopt(lesson, history, cosmetic ? 'cosmetic' : change);
    this.host.keep(edit);
  }
}
