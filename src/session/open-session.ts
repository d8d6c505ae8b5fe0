import type { Exercise } from '@/core/circuit/exercise';
import type { Lesson } from '@/core/circuit/lesson';
import { done, type Result } from '@/core/values/result';
import { fetcher } from '@/loading/load';
import { storeProblem } from '@/store/database';
import { LessonWriter } from '@/store/lesson-writer';
import { momentOf, openKept, saveMoment, setAsideOf, settleJournal } from '@/store/lessons';
import { tableMaker } from '@/workers/table-client';
import { fetchUpdateDerived, hasDerived } from './derived';
import { EditLock } from './edit-lock';
import { Persistence, standingsOf } from './persistence';
import { Session } from './session';
import type { Beginning } from './state';

/** An open lesson with everything that must be released when its page is left. */
export interface OpenSession {
  readonly session: Session;
  /** Edits of earlier visits that no longer apply and were set aside. */
  readonly setAside: number;
  /** Seconds worked so far, over all visits. */
  seconds(): number;
  /** Whether edits were made that are not kept yet. */
  isBehind(): boolean;
  /** Retries at once to keep the edits that could not be kept. */
  retrySaving(): void;
  /** Makes this tab the one that may edit; the other becomes read-only. */
  takeOver(): Promise<void>;
  close(): void;
}

/**
 * Opens a kept lesson: snapshot, journal and moment, and from then on keeps each edit. Only one tab edits a lesson; a
 * second one opens it read-only. Null where there is no lesson of that id.
 */
export async function openSession(id: string): Promise<Result<OpenSession> | null> {
  const lock = new EditLock(id);
  const isMine = await lock.ask();
  const read = await openKept(id).catch((error) => {
    lock.release();
    throw error;
  });
  if (!read?.ok) {
    lock.release();
    return read;
  }
  const { lesson } = read.value;
  // The function that keeps blocks and notes up to date is fetched before the first edit.
  const updateDerived = hasDerived(lesson) ? await fetchUpdateDerived() : null;
  const open = await keptSession(lesson, lock, {
    updateDerived,
    readOnly: !isMine,
    taskNeedsTime: lesson.exercise ? await needsTime(lesson.exercise) : false,
  });
  if (isMine) {
    await settleJournal(read.value).catch((error) =>
      open.session.say(`${storeProblem(error).message}.`, 'bad'),
    );
  }
  const setAside = await setAsideOf(id).catch(() => []);
  return done({ ...open, setAside: setAside.length });
}

const exerciseKinds = fetcher('the kinds of exercise', () => import('@/core/exercise/kinds'));

/** Whether time runs while a circuit is held against an exercise. */
async function needsTime({ expected }: Exercise): Promise<boolean> {
  const { exerciseKindOf } = await exerciseKinds();
  return exerciseKindOf(expected).drive(expected) !== null;
}

async function keptSession(
  lesson: Lesson,
  lock: EditLock,
  beginning: Beginning,
): Promise<Omit<OpenSession, 'setAside'>> {
  const moment = await momentOf(lesson.id);
  const session = new Session(lesson, {
    ...beginning,
    makeTable: tableMaker,
    sheetId: moment?.sheet,
    standings: moment ? standingsOf(moment) : new Map(),
  });
  const opened = Date.now();
  const seconds = () => (moment?.seconds ?? 0) + Math.round((Date.now() - opened) / 1000);
  const persistence = new Persistence(
    session,
    (tell) => new LessonWriter(lesson.id, () => session.state.lesson, tell),
    (moment) => saveMoment({ ...moment, lesson: lesson.id, seconds: seconds() }),
  );
  if (!session.state.readOnly) session.setSink(persistence);
  lock.onLost(() => {
    session.setSink(null);
    session.setReadOnly(true);
  });
  return {
    session,
    seconds,
    isBehind: () => persistence.isBehind,
    retrySaving: () => persistence.retry(),
    takeOver: () => lock.steal(),
    close: () => {
      persistence.close();
      lock.release();
    },
  };
}
