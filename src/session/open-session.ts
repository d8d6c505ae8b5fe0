import type { Lesson } from '@/core/circuit/lesson';
import type { Result } from '@/core/values/result';
import { storeProblem } from '@/store/database';
import { isJournaled, journalEdit, momentOf, openLesson, saveMoment, saveSnapshot } from '@/store/lessons';
import { tableMaker } from '@/workers/table-client';
import { Session } from './session';
import type { Keeper, SessionState } from './state';

const EDITS_A_SNAPSHOT = 100;
const MOMENT_EVERY_MS = 400;

/** An open lesson with all that must be let go when its page is left. */
export interface OpenSession {
  readonly session: Session;
  /** Seconds worked so far, over all visits. */
  seconds(): number;
  /** Makes this tab the one that may edit; the other becomes read-only. */
  takeOver(): Promise<void>;
  close(): void;
}

/**
 * Opens a kept lesson: snapshot, journal and moment, and from then on keeps each edit. Only one tab edits a
 * lesson; a second one opens it read-only.
 */
export async function openSession(id: string): Promise<Result<OpenSession> | null> {
  const read = await openLesson(id);
  if (!read?.ok) return read;
  return { ok: true, value: await keptSession(read.value) };
}

async function keptSession(lesson: Lesson): Promise<OpenSession> {
  const moment = await momentOf(lesson.id);
  const on = Object.entries(moment?.inputs ?? {}).flatMap(([part, v]) => (v ? [part] : []));
  const session = new Session(lesson, null, tableMaker, {
    sheetId: moment?.sheet,
    on,
    // Before what was seen was written down as well, a row was a number alone.
    tried: moment?.tried.filter((one) => Array.isArray(one)),
  });
  const opened = Date.now();
  const seconds = () => (moment?.seconds ?? 0) + Math.round((Date.now() - opened) / 1000);
  const keeper = new StoreKeeper(session, seconds);
  const lock = new EditLock(lesson.id, (mine) => {
    session.setKeeper(mine ? keeper : null);
    session.store.setState({ readOnly: !mine });
  });
  await lock.ask();
  if (!session.state.readOnly && (await isJournaled(lesson.id)))
    await saveSnapshot(lesson).catch((error) => session.say(storeProblem(error), 'bad'));
  return {
    session,
    seconds,
    takeOver: async () => {
      await lock.steal();
    },
    close: () => {
      keeper.flush();
      lock.release();
    },
  };
}

class StoreKeeper implements Keeper {
  private since = 0;
  private pending = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly session: Session,
    private readonly seconds: () => number,
  ) {}

  edit(edit: Parameters<Keeper['edit']>[0]): void {
    const fail = (error: unknown) => this.session.say(storeProblem(error), 'bad');
    this.pending++;
    journalEdit(this.session.state.lesson.id, edit).then((seq) => {
      // Only while nothing is on its way does the lesson hold exactly what the journal holds up to `seq`.
      if (--this.pending > 0 || ++this.since < EDITS_A_SNAPSHOT) return;
      this.since = 0;
      saveSnapshot(this.session.state.lesson, seq).catch(fail);
    }, fail);
  }

  moment(_: SessionState): void {
    this.timer ??= setTimeout(() => this.flush(), MOMENT_EVERY_MS);
  }

  flush(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const { lesson, rootId, on, tried } = this.session.state;
    saveMoment({
      lesson: lesson.id,
      sheet: rootId,
      inputs: Object.fromEntries([...on].map((part) => [part, 1 as const])),
      tried: [...tried].slice(0, 5000),
      seconds: this.seconds(),
    }).catch(() => {});
  }
}

/** One tab at a time edits a lesson (Web Locks); browsers without locks always may. */
class EditLock {
  private letGo: (() => void) | undefined;

  constructor(
    private readonly id: string,
    private readonly told: (mine: boolean) => void,
  ) {}

  ask(): Promise<void> {
    return this.request({ ifAvailable: true });
  }

  steal(): Promise<void> {
    return this.request({ steal: true });
  }

  private request(options: LockOptions): Promise<void> {
    if (!navigator.locks) {
      this.told(true);
      return Promise.resolve();
    }
    return new Promise((asked) => {
      navigator.locks
        .request(`lesson:${this.id}`, options, (lock) => {
          this.told(lock !== null);
          asked();
          return lock === null ? undefined : new Promise<void>((done) => (this.letGo = done));
        })
        .catch(() => {
          this.told(false);
          asked();
        });
    });
  }

  release(): void {
    this.letGo?.();
  }
}
