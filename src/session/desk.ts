import { createStore } from 'zustand/vanilla';
import { storeProblem } from '@/store/database';
import { LessonStore } from '@/store/lesson-store';
import { LessonWriter, laterInPage } from '@/store/lesson-writer';
import { type Kept, readKept } from '@/store/lessons';
import type { EditLock } from './edit-lock';
import { type Watch, watchKept, watchWhetherThere } from './follow';
import { Persistence } from './persistence';
import type { Session } from './session';
import { SAVED } from './state';

/**
 * Where the lesson that a page shows is edited: on this page; in another tab, which it follows; in another tab, while
 * edits of this one could not be kept; or nowhere, as it was deleted.
 */
export type Place = 'here' | 'elsewhere' | 'overtaken' | 'deleted';

/** Milliseconds after which a tab that looks on asks whether the other one is still there. */
const ASK_AGAIN = 4000;

/**
 * One open lesson between its tab and the store: the tab that has the lease keeps each edit; the others follow, until the
 * lease is theirs. A lesson that was deleted elsewhere stays on the page and can be brought back.
 */
export class Desk {
  readonly place = createStore<Place>(() => 'elsewhere');
  private persistence: Persistence | null = null;
  /** Where the lesson was last kept from this page. */
  private store: LessonStore | null = null;
  private watch: Watch;
  private readonly timer: ReturnType<typeof setInterval>;
  /** While the lesson is being taken. */
  private taking: Promise<boolean> | null = null;

  constructor(
    private readonly session: Session,
    private readonly lock: EditLock,
    private readonly seconds: () => number,
  ) {
    lock.onGiving(() => this.settled());
    lock.onLost(() => this.lookOn());
    this.watch = this.watching();
    this.timer = setInterval(() => void this.askAgain(), ASK_AGAIN);
  }

  private get id(): string {
    return this.session.state.lesson.id;
  }

  private watching(): Watch {
    const { id } = this;
    if (this.lock.lease !== null) return watchWhetherThere(id, (isThere) => this.found(isThere));
    return watchKept(id, (lesson) => {
      this.found(lesson !== null);
      if (lesson && this.place.getState() === 'elsewhere') this.session.follow(lesson);
    });
  }

  /** Takes notice of whether the lesson is on the shelf. */
  private found(isThere: boolean): void {
    const place = this.place.getState();
    if (!isThere) this.place.setState('deleted', true);
    else if (place === 'deleted') {
      this.place.setState(this.lock.lease === null ? 'elsewhere' : 'here', true);
      this.retry();
    }
  }

  /** Another tab has the lesson now. */
  private lookOn(): void {
    const { session, isBehind } = this;
    session.setSink(null);
    session.setReadOnly(true);
    this.place.setState(isBehind ? 'overtaken' : 'elsewhere', true);
    if (isBehind) return;
    this.persistence?.close();
    this.persistence = null;
    session.setSaving(SAVED);
    this.watchAnew();
  }

  private watchAnew(): void {
    this.watch.end();
    this.watch = this.watching();
  }

  /** Resolves when all that was done is kept, or cannot be. */
  private async settled(): Promise<void> {
    await this.persistence?.flush();
    await this.session.savedOrFailed();
  }

  /** Takes over if the other tab is gone; a hidden tab leaves the lesson to others. */
  private async askAgain(): Promise<void> {
    if (this.taking || document.visibilityState !== 'visible') return;
    const ask = this.takeBy(() => this.lock.ask());
    // A store that refuses now is asked again later.
    if (await ask.catch(() => false))
      this.session.say('The other tab has left this lesson: it can be edited here.');
  }

  /**
   * Takes the lesson and goes on with it as it is kept now. Only once at a time: a second lease of the same page would fence
   * out what is written with the first.
   * @param taken tries to take the lease.
   * @returns whether the lesson is edited here by it.
   */
  private takeBy(taken: () => Promise<boolean>): Promise<boolean> {
    const take = async () => {
      if (this.place.getState() !== 'elsewhere' || !(await taken())) return false;
      await this.takeUp();
      return this.place.getState() === 'here';
    };
    this.taking ??= take().finally(() => {
      this.taking = null;
    });
    return this.taking;
  }

  /** Whether edits were made that are not kept yet. */
  get isBehind(): boolean {
    return this.persistence?.isBehind ?? false;
  }

  retry(): void {
    this.persistence?.retry();
  }

  /** Keeps each edit from now on. @param read the lesson as it was kept. */
  async begin(read: Kept): Promise<void> {
    const { session, lock, id } = this;
    if (lock.lease === null) return;
    const store = new LessonStore(id, lock.lease);
    const { journalEdits, saveSnapshot } = store;
    this.store = store;
    const persistence = new Persistence(
      session,
      (tell) =>
        new LessonWriter(
          () => session.state.lesson,
          (saving) => {
            tell(saving);
            if (saving.is !== 'failed') return;
            if (saving.problem.code === 'lease-lost') lock.noticeLoss();
            if (saving.problem.code === 'lesson-gone') this.place.setState('deleted', true);
          },
          { journalEdits, saveSnapshot, later: laterInPage },
        ),
      (moment) => store.saveMoment({ ...moment, lesson: id, seconds: this.seconds() }),
    );
    this.persistence = persistence;
    this.place.setState('here', true);
    session.setReadOnly(false);
    session.setSink(persistence);
    this.watchAnew();
    await store.settleJournal(read).catch((error) => session.say(`${storeProblem(error).message}.`, 'bad'));
  }

  async takeOver(): Promise<void> {
    // One that only asks is let end first.
    await this.taking?.catch(() => {});
    await this.takeBy(async () => {
      await this.lock.takeOver();
      return true;
    });
  }

  /** Goes on with the lesson as it is kept now. */
  private async takeUp(): Promise<void> {
    const read = await readKept(this.id);
    if (!read?.ok) return;
    this.session.follow(read.value.lesson);
    await this.begin(read.value);
  }

  async bringBack(): Promise<void> {
    const { lock, session } = this;
    if (lock.lease === null) await lock.takeOver();
    const { lesson } = session.state;
    const goesOn = this.persistence !== null && this.store?.token === lock.lease;
    const store = goesOn ? this.store! : new LessonStore(this.id, lock.lease!);
    await store.bringBack(lesson);
    if (goesOn) {
      this.place.setState('here', true);
      this.retry();
    } else await this.begin({ lesson, aside: [], edits: 0 });
  }

  close(): void {
    this.watch.end();
    clearInterval(this.timer);
    this.persistence?.close();
    this.lock.release();
  }
}
