import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import type { Problem } from '@/core/values/result';
import { storeProblem } from './database';

/** How far the work is kept. */
export type Saving =
  | { readonly is: 'saved' }
  | { readonly is: 'saving' }
  | { readonly is: 'failed'; readonly problem: Problem };

/** The part of the store and the clock that the writer needs; tests put their own in its place. */
export interface WriterSurroundings {
  /** Adds edits to the journal, all or none. @returns the number of the last one. */
  readonly journalEdits: (edits: readonly Edit[]) => Promise<number>;
  /** Writes a lesson whole, and clears its journal up to a number. */
  readonly saveSnapshot: (lesson: Lesson, upTo?: number) => Promise<void>;
  /** Calls after some milliseconds. @returns takes it back. */
  readonly later: (work: () => void, ms: number) => () => void;
}

/** The clock of the page. */
export const laterInPage: WriterSurroundings['later'] = (work, ms) => {
  const timer = setTimeout(work, ms);
  return () => clearTimeout(timer);
};

/** Edits in the journal after which a snapshot takes their place. */
const EDITS_A_SNAPSHOT = 100;
/** Milliseconds between one attempt to write and the next after failures, the last for all that follow. */
const PAUSES = [200, 1000, 3000, 10_000];

/**
 * Keeps the edits of one lesson in the order in which they were made. One write is under way at a time; edits that come
 * meanwhile go together in the next. Where a write is refused, the journal has a gap that nothing may be added behind:
 * from then on the lesson is written whole, again and again, until that succeeds.
 */
export class LessonWriter {
  private waiting: Edit[] = [];
  private isWriting = false;
  /** Whether the journal lacks an edit: only a snapshot can then keep the lesson. */
  private hasGap = false;
  private failures = 0;
  private sinceSnapshot = 0;
  private stopPause: (() => void) | null = null;
  private isClosed = false;

  /**
   * @param current the lesson with all edits that were handed in.
   * @param tell is told of each change.
   * @param around the store, and the clock.
   */
  constructor(
    private readonly current: () => Lesson,
    private readonly tell: (saving: Saving) => void,
    private readonly around: WriterSurroundings,
  ) {}

  /** Whether anything that was handed in is not kept yet. */
  get isBehind(): boolean {
    return this.waiting.length > 0 || this.isWriting || this.hasGap;
  }

  /** Hands in an edit that has just been made. */
  edit(edit: Edit): void {
    this.waiting.push(edit);
    if (!this.hasGap) this.tell({ is: 'saving' });
    void this.write();
  }

  /** Writes the waiting edits at once. */
  retry(): void {
    this.stopPause?.();
    this.stopPause = null;
    void this.write();
  }

  /** No more attempts are made after the one under way. */
  close(): void {
    this.isClosed = true;
    this.stopPause?.();
  }

  private async write(): Promise<void> {
    if (this.isWriting || this.stopPause) return;
    this.isWriting = true;
    // The edit that was just handed in belongs to the lesson by the time anything is written.
    await null;
    try {
      while (this.hasGap || this.waiting.length > 0) {
        const edits = this.waiting;
        this.waiting = [];
        if (this.hasGap) await this.around.saveSnapshot(this.current());
        else {
          // Where this fails, the edits are in the snapshot that takes the journal's place.
          this.hasGap = true;
          const seq = await this.around.journalEdits(edits);
          this.hasGap = false;
          this.sinceSnapshot += edits.length;
          if (this.sinceSnapshot < EDITS_A_SNAPSHOT || this.waiting.length > 0) continue;
          this.hasGap = true;
          await this.around.saveSnapshot(this.current(), seq);
        }
        this.hasGap = false;
        this.failures = 0;
        this.sinceSnapshot = 0;
      }
      this.failures = 0;
      this.tell({ is: 'saved' });
    } catch (error) {
      const problem = storeProblem(error);
      // Another tab has the lesson for good: it is not tried again.
      if (problem.code === 'lease-lost') this.close();
      this.tell({ is: 'failed', problem });
      const pause = PAUSES[Math.min(this.failures++, PAUSES.length - 1)]!;
      if (!this.isClosed)
        this.stopPause = this.around.later(() => {
          this.stopPause = null;
          void this.write();
        }, pause);
    } finally {
      this.isWriting = false;
    }
  }
}
