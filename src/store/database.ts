import Dexie, { type DexieOptions, type EntityTable, type Table } from 'dexie';
import type { Edit } from '@/core/circuit/edit';
import type { LessonFile } from '@/core/circuit/lesson-schema';
import type { RunMoment } from '@/core/simulate/run-moment';
import { type Problem, problem } from '@/core/values/result';
import { textHash } from '@/core/values/text-hash';
import { load } from '@/loading/load';

/** A lesson as it was at its last snapshot; edits since then stand in the journal. */
export interface LessonRecord {
  readonly id: string;
  readonly title: string;
  /** As JSON text where it is large: the browser copies a text far sooner than a tree of objects. */
  readonly file: LessonFile | string;
  /** The exercise it answers, if it is a student's work. */
  readonly exerciseId: string;
  readonly changed: number;
  /** The rules under which it was written; under the same rules it need not be checked again. */
  readonly rules?: string | undefined;
  /** The place of the next edit in the journal, if the page that edits the lesson wrote this snapshot. */
  readonly next?: JournalPlace;
}

/** The position of an edit among all edits that one page has made. A missing position shows that the store refused an edit. */
export interface JournalPlace {
  /** The number of the page's lease. */
  readonly token: number;
  /** Edits of the page before it. */
  readonly edits: number;
}

export interface JournalRecord {
  readonly seq: number;
  readonly lesson: string;
  readonly edit: Edit;
  /** Older entries do not say. */
  readonly place?: JournalPlace;
}

/** An edit from a journal that could not be made again when its lesson was opened, kept until the person decides. */
export interface SetAsideRecord extends JournalRecord {
  /** Why it could not be made. */
  readonly reason: string;
}

/** The state of a sheet's live circuit. */
export interface SheetMoment {
  readonly inputs: Readonly<Record<string, 0 | 1>>;
  /** Rows that were tried, with the letters of the outputs that were seen. */
  readonly tried: readonly (readonly [row: number, seen: string])[];
  /** The signature of the circuit on which they were tried; older records do not say. */
  readonly circuit?: string | undefined;
  /** How its run stood when a link was opened; it ends with the first visit. */
  readonly moment?: RunMoment | undefined;
}

/** The state of the live circuits: not part of the document, and kept all the same. */
export interface MomentRecord extends SheetMoment {
  readonly lesson: string;
  /** The sheet that runs: `inputs` and `tried` are of it. */
  readonly sheet: string;
  /** Sheets that were looked at before, by id. */
  readonly others?: Readonly<Record<string, SheetMoment>>;
  /** Seconds during which the lesson was open and in use. */
  readonly seconds: number;
}

/** Which page edits a lesson; see `lease.ts`. */
export interface LeaseRecord {
  readonly lesson: string;
  /** The page that holds it. */
  readonly holder: string;
  /** Grows with each page that takes it. */
  readonly token: number;
  /** Ms since 1970 until which it holds. */
  readonly until: number;
  /** Whether the lesson was deleted: nothing more is written of it until it is brought back. */
  readonly isGone?: boolean;
}

/**
 * One record for each lease number that was given, and for the next number if the lesson was deleted. The page with number n
 * begins each write by adding the record n + 1 and deleting it again. If that record is there already, adding it fails, and
 * the whole write with it: the page need not ask first and wait for the answer.
 */
export interface FenceRecord {
  readonly lesson: string;
  readonly token: number;
}

export interface ExerciseRecord {
  readonly id: string;
  /** Its file as JSON, in whichever version it was kept. */
  readonly file: unknown;
  /** Ms since 1970; 0 where it never was. */
  readonly handedOut: number;
  /** The files of the editions that were handed out, the last one behind; older records have none. */
  readonly editions?: readonly unknown[];
}

/** An exercise as it was changed since its record was written: in a record of its own, so that nothing need be read first. */
export interface ExerciseDraftRecord {
  readonly id: string;
  readonly file: unknown;
}

export interface HandInRecord {
  readonly key: number;
  readonly exercise: string;
  readonly file: string;
  readonly text: string;
  /** The hash of its text; see `values/text-hash.ts`. */
  readonly hash: string;
}

/** What was found of a hand-in, so that it need not be marked again. */
export interface FoundRecord {
  /** A name for the tasks by which it was marked; see `markedBy`. */
  readonly by: string;
  /** The hash of the hand-in. */
  readonly id: string;
  readonly found: unknown;
}

/** What a teacher gave for the hand-ins of an exercise. */
export interface ClassMarksRecord {
  readonly exercise: string;
  readonly marks: unknown;
}

/** Marks that one page gave since the record of the exercise was written. */
export interface GivenRecord {
  readonly seq: number;
  readonly exercise: string;
  /** The marks with which the page began. */
  readonly base: unknown;
  readonly marks: unknown;
}

/** Work that came back from a teacher, as its file. */
export interface ReturnedRecord {
  readonly exercise: string;
  readonly text: string;
}

/** The file on this computer that a lesson goes on being saved to. */
export interface LessonFileRecord {
  readonly lesson: string;
  readonly handle: FileSystemFileHandle;
  /** When it was last read or written here, in ms since 1970, as the browser says. */
  readonly modified: number;
}

class Database extends Dexie {
  lessons!: EntityTable<LessonRecord, 'id'>;
  journal!: EntityTable<JournalRecord, 'seq'>;
  setAside!: EntityTable<SetAsideRecord, 'seq'>;
  moments!: EntityTable<MomentRecord, 'lesson'>;
  leases!: EntityTable<LeaseRecord, 'lesson'>;
  fences!: Table<FenceRecord, [string, number]>;
  exercises!: EntityTable<ExerciseRecord, 'id'>;
  handIns!: EntityTable<HandInRecord, 'key'>;
  marks!: Table<{ name: string; value: unknown }, string>;
  classMarks!: EntityTable<ClassMarksRecord, 'exercise'>;
  returned!: EntityTable<ReturnedRecord, 'exercise'>;
  found!: Table<FoundRecord, [string, string]>;
  lessonFiles!: EntityTable<LessonFileRecord, 'lesson'>;
  exerciseDrafts!: EntityTable<ExerciseDraftRecord, 'id'>;
  given!: EntityTable<GivenRecord, 'seq'>;

  /** @param around the browser's own store, or one in its place. */
  constructor(around?: Pick<DexieOptions, 'indexedDB' | 'IDBKeyRange'>) {
    // What is watched is read again; a copy of each write to answer it sooner would cost more than that.
    super('manege', { ...around, cache: 'disabled' });
    this.version(1).stores({
      lessons: 'id, exerciseId, changed',
      journal: '++seq, lesson',
      moments: 'lesson',
      exercises: 'id, handedOut',
      handIns: '++key, exercise',
      marks: 'name',
    });
    this.version(2)
      .stores({ setAside: 'seq, lesson' })
      .upgrade((transaction) =>
        // Exercises were kept without the heading that says in which version they are.
        transaction
          .table('exercises')
          .toCollection()
          .modify((record) => {
            record.file = { format: 'manege-exercise', version: 1, ...record.exercise };
            delete record.exercise;
          }),
      );
    this.version(3).stores({ leases: 'lesson' });
    this.version(4).stores({ fences: '[lesson+token]' });
    this.version(5).stores({ classMarks: 'exercise', returned: 'exercise' });
    this.version(6)
      .stores({ handIns: '++key, exercise, [exercise+hash]', found: '[by+id], id' })
      .upgrade((transaction) =>
        transaction
          .table<HandInRecord & { hash: string }>('handIns')
          .toCollection()
          .modify((record) => {
            (record as { hash: string }).hash = textHash(record.text);
          }),
      );
    this.version(7).stores({ lessonFiles: 'lesson' });
    this.version(8).stores({ exerciseDrafts: 'id', given: '++seq, exercise' });
  }
}

/** The store of this browser, or the one in memory that stands in for it; see `storeReady`. */
export let database = new Database();
let isKept = true;

/** Whether what is written outlives the page. */
export const isStoreKept = (): boolean => isKept;

let hasUnkeptWork = false;

/** Whether lessons were edited that go with the page. */
export const isWorkUnkept = (): boolean => hasUnkeptWork;

/** To be called when an edit was written. */
export function noteWork(): void {
  hasUnkeptWork ||= !isKept;
}

let ready: Promise<void> | undefined;

/**
 * Opens the store, before anything else is asked of it. A browser that keeps no data for pages gets a store in memory, so
 * that one can work and save files.
 * @throws Error where the data were written by a newer version of Manege.
 */
export function storeReady(): Promise<void> {
  ready ??= database.open().then(
    () => {},
    async (error: Error) => {
      if (error.name === 'VersionError') throw error;
      const { indexedDB, IDBKeyRange } = await load('the store in memory', () => import('fake-indexeddb'));
      database = new Database({ indexedDB, IDBKeyRange });
      isKept = false;
      await database.open();
    },
  );
  return ready;
}

/** An id of 16 random letters and digits; needs no secure origin, as `randomUUID` does. */
export function randomId(): string {
  const letters = 'abcdefghijklmnopqrstuvwxyz0123456789';
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => letters[b % letters.length]).join('');
}

/** Why a write failed: the disk may be full, or the browser may refuse to keep anything. */
export function storeProblem(error: unknown): Problem {
  const name = error instanceof Error ? error.name : '';
  if (name === 'LeaseLost') return problem('lease-lost', 'this lesson is edited in another tab now');
  if (name === 'LessonGone') return problem('lesson-gone', 'this lesson was deleted in another tab');
  if (name === 'LessonInUse')
    return problem(
      'lesson-in-use',
      'this lesson is open in another tab. Rename it there, or close that tab first',
    );
  // A page of an older build is closed out when one of a newer build opens the store.
  if (name === 'VersionError' || name === 'DatabaseClosedError')
    return problem(
      'newer-data',
      'a newer version of Manege keeps the lessons of this browser now. Save what is on this page as a file, then reload it',
    );
  return /Quota/.test(name)
    ? problem(
        'disk-full',
        'this browser has no room left. Nothing is lost on this page: save the lesson as a file, then delete lessons that are no longer needed',
      )
    : problem(
        'storage-blocked',
        'this browser does not keep data for this page (private window, or blocked). Save the lesson as a file before closing it',
      );
}

/** Whether work at an exercise came back from a teacher. */
export const isReturned = async (exercise: string): Promise<boolean> =>
  (await database.returned.where('exercise').equals(exercise).count()) > 0;
