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

/** Edits in the journal after which a snapshot takes their place at the next rest, and at once. */
const EDITS_A_SNAPSHOT = 100;
const MOST_EDITS = 1000;
/** Milliseconds without an edit that make a rest: a snapshot takes long, and edits would wait for it. */
const REST_MS = 1000;
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
  /** While a snapshot is written of what the journal holds already. */
  private isResting = false;
  /** Whether the journal lacks an edit: only a snapshot can then keep the lesson. */
  private hasGap = false;
  private failures = 0;
  private sinceSnapshot = 0;
  private stopPause: (() => void) | null = null;
  private stopRest: (() => void) | null = null;
  /** The number of the last edit in the journal. */
  private lastKept = 0;
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
    this.stopRest?.();
    this.stopRest = null;
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
    this.stopRest?.();
  }

  /** Writes a snapshot when no edit has come for a while; one that fails is left to the next rest. */
  private snapshotAtRest(): void {
    this.stopRest?.();
    this.stopRest = this.around.later(() => {
      this.stopRest = null;
      if (this.isBehind || this.isClosed) return;
      this.isResting = true;
      this.around
        .saveSnapshot(this.current(), this.lastKept)
        .then(
          () => {
            this.sinceSnapshot = 0;
          },
          () => {},
        )
        .finally(() => {
          this.isResting = false;
          if (this.waiting.length > 0) void this.write();
        });
    }, REST_MS);
  }

  private async write(): Promise<void> {
    if (this.isWriting || this.isResting || this.stopPause) return;
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
          this.lastKept = seq;
          if (this.sinceSnapshot < MOST_EDITS || this.waiting.length > 0) continue;
          this.hasGap = true;
          await this.around.saveSnapshot(this.current(), seq);
        }
        this.hasGap = false;
        this.failures = 0;
        this.sinceSnapshot = 0;
      }
      this.failures = 0;
      this.tell({ is: 'saved' });
      if (this.sinceSnapshot >= EDITS_A_SNAPSHOT && !this.isClosed) this.snapshotAtRest();
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
