import type { StoreApi } from 'zustand/vanilla';
import { sheetOf } from '@/core/circuit/lesson';
import { surveySteps } from '@/core/drawing/geometry/spatial-index';
import { wireNetsSteps } from '@/core/drawing/geometry/wire-nets';
import { compileOnceSteps } from '@/core/netlist/compile';
import { done, type Result } from '@/core/values/result';
import { withRests } from '@/core/values/steps';
import { fetcher } from '@/loading/load';
import { nextTask } from '@/loading/next-task';
import { type Kept, momentOf, openKept, setAsideOf } from '@/store/lessons';
import { tableMaker } from '@/workers/table-client';
import { fetchKernel } from './clockwork';
import { fetchUpdateDerived, hasDerived } from './derived';
import { Desk, type Place } from './desk';
import { EditLock } from './edit-lock';
import { standingsOf } from './persistence';
import { Session } from './session';

/** Parts of a sheet from which compiling would be felt as a pause. */
const LARGE = 2000;

/** An open lesson with everything that must be released when its page is left. */
export interface OpenSession {
  readonly session: Session;
  readonly place: StoreApi<Place>;
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
  /** Puts the lesson back on the shelf as it is shown, after it was deleted in another tab. */
  bringBack(): Promise<void>;
  close(): void;
}

/**
 * Opens a kept lesson: snapshot, journal and moment, and from then on keeps each edit. Only one tab edits a lesson; a
 * second one opens it read-only and follows. Null where there is no lesson of that id.
 */
export async function openSession(id: string): Promise<Result<OpenSession> | null> {
  const lock = new EditLock(id);
  try {
    await lock.ask();
    const read = await openKept(id);
    if (!read?.ok) {
      lock.release();
      return read;
    }
    const open = await keptSession(read.value, lock);
    const setAside = await setAsideOf(id).catch(() => []);
    return done({ ...open, setAside: setAside.length });
  } catch (error) {
    lock.release();
    throw error;
  }
}

const marking = fetcher('the kinds of task', () => import('@/core/exercise/marking'));

async function keptSession(read: Kept, lock: EditLock): Promise<Omit<OpenSession, 'setAside'>> {
  const { lesson } = read;
  const moment = await momentOf(lesson.id);
  const sheet = sheetOf(lesson, moment?.sheet ?? '') ?? lesson.sheets[0]!;
  if (sheet.parts.size > LARGE) {
    void fetchKernel().then((bring) => bring());
    // In steps, so that the page goes on meanwhile; session and drawing then find it done.
    await withRests(compileOnceSteps(sheet, lesson.sheets), nextTask);
    await withRests(surveySteps(sheet), nextTask);
    await withRests(wireNetsSteps(sheet), nextTask);
  }
  const session = new Session(lesson, {
    // The function that keeps blocks and notes up to date is fetched before the first edit.
    updateDerived: hasDerived(lesson) ? await fetchUpdateDerived() : null,
    readOnly: lock.lease === null,
    rules: lesson.exercise ? (await marking()).rulesOn : null,
    makeTable: tableMaker,
    sheetId: moment?.sheet,
    standings: moment ? standingsOf(moment) : new Map(),
  });
  const opened = Date.now();
  const seconds = () => (moment?.seconds ?? 0) + Math.round((Date.now() - opened) / 1000);
  const desk = new Desk(session, lock, seconds);
  if (lock.lease !== null) await desk.begin(read);
  return {
    session,
    seconds,
    place: desk.place,
    isBehind: () => desk.isBehind,
    retrySaving: () => desk.retry(),
    takeOver: () => desk.takeOver(),
    bringBack: () => desk.bringBack(),
    close: () => desk.close(),
  };
}
