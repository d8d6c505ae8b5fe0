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
 * Writes of the journal that may be under way at once; edits beyond them wait, and go together. Many: while keys are pressed a
 * page hears of no write that has ended.
 */
const MOST_UNDER_WAY = 500;

/**
 * Keeps the edits of one lesson in the order in which they were made. Each is handed to the browser at once, behind those
 * before it. Where a write is refused, the journal has a gap that nothing may be added behind: from then on the lesson is
 * written whole, again and again, until that succeeds.
 */
export class LessonWriter {
  private waiting: Edit[] = [];
  private readonly underWay = new Set<Promise<void>>();
  /** While edits that were handed in together wait for the last of them. */
  private isGathering = false;
  /** While the lesson is written whole because the journal alone does not hold it. */
  private isMending = false;
  /** Whether the journal lacks an edit, or has grown too long: only a snapshot can then keep the lesson. */
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
    return this.waiting.length > 0 || this.underWay.size > 0 || this.hasGap;
  }

  /** Hands in an edit that has just been made. */
  edit(edit: Edit): void {
    this.waiting.push(edit);
    this.stopRest?.();
    this.stopRest = null;
    if (!this.hasGap) this.tell({ is: 'saving' });
    void this.gather();
  }

  /** Writes the waiting edits at once. */
  retry(): void {
    this.stopPause?.();
    this.stopPause = null;
    void this.gather();
  }

  /** No more attempts are made after those under way. */
  close(): void {
    this.isClosed = true;
    this.stopPause?.();
    this.stopRest?.();
  }

  private async gather(): Promise<void> {
    if (this.isGathering) return;
    this.isGathering = true;
    // The edit that was just handed in belongs to the lesson by the time anything is written.
    await null;
    this.isGathering = false;
    this.write();
  }

  private write(): void {
    if (this.isMending || this.stopPause) return;
    if (this.hasGap) {
      if (!this.isClosed) void this.mend();
    } else if (this.waiting.length > 0 && this.underWay.size < MOST_UNDER_WAY) this.journal();
  }

  /** Hands the waiting edits to the browser, behind those that are on their way. */
  private journal(): void {
    const edits = this.waiting;
    this.waiting = [];
    const written = this.around.journalEdits(edits).then(
      (seq) => {
        this.lastKept = seq;
        this.sinceSnapshot += edits.length;
        // Nothing more is added until a snapshot has taken the journal's place.
        if (this.sinceSnapshot >= MOST_EDITS) this.hasGap = true;
      },
      (error) => {
        // The edits will be in the snapshot that takes the journal's place.
        const isFirst = !this.hasGap;
        this.hasGap = true;
        if (isFirst) this.failed(error);
      },
    );
    this.underWay.add(written);
    void written.then(() => {
      this.underWay.delete(written);
      this.write();
      this.tellIfSaved();
    });
  }

  /** Writes the lesson whole, after all that is under way: it may have been refused as well. */
  private async mend(): Promise<void> {
    this.isMending = true;
    try {
      await Promise.all(this.underWay);
      this.waiting = [];
      await this.around.saveSnapshot(this.current());
      this.hasGap = false;
      this.failures = 0;
      this.sinceSnapshot = 0;
    } catch (error) {
      this.failed(error);
    }
    this.isMending = false;
    this.write();
    this.tellIfSaved();
  }

  private failed(error: unknown): void {
    const problem = storeProblem(error);
    // Another tab has the lesson for good: it is not tried again.
    if (problem.code === 'lease-lost') this.close();
    this.tell({ is: 'failed', problem });
    const pause = PAUSES[Math.min(this.failures++, PAUSES.length - 1)]!;
    if (this.isClosed) return;
    this.stopPause?.();
    this.stopPause = this.around.later(() => {
      this.stopPause = null;
      this.write();
    }, pause);
  }

  private tellIfSaved(): void {
    if (this.isBehind) return;
    this.tell({ is: 'saved' });
    if (this.sinceSnapshot >= EDITS_A_SNAPSHOT && !this.isClosed) this.snapshotAtRest();
  }

  /** Writes a snapshot when no edit has come for a while; one that fails is left to the next rest. */
  private snapshotAtRest(): void {
    this.stopRest?.();
    this.stopRest = this.around.later(() => {
      this.stopRest = null;
      if (this.isBehind || this.isClosed) return;
      const { sinceSnapshot } = this;
      this.around.saveSnapshot(this.current(), this.lastKept).then(
        () => {
          this.sinceSnapshot -= sinceSnapshot;
        },
        () => {},
      );
    }, REST_MS);
  }
}
