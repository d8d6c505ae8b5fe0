import Dexie, { type EntityTable, type Table } from 'dexie';
import type { Edit } from '@/core/circuit/edit';
import type { Exercise } from '@/core/circuit/exercise';
import type { LessonFile } from '@/core/circuit/lesson-schema';

/** A lesson as it was at its last snapshot; edits since then stand in the journal. */
export interface LessonRecord {
  readonly id: string;
  readonly title: string;
  readonly file: LessonFile;
  /** The exercise it answers, where it is a student's work. */
  readonly exerciseId: string;
  readonly changed: number;
  /** The rules under which it was written; under the same it need not be checked again. */
  readonly rules?: string | undefined;
}

export interface JournalRecord {
  readonly seq: number;
  readonly lesson: string;
  readonly edit: Edit;
}

/** What stands on the live circuit: not part of the document, and kept all the same. */
export interface MomentRecord {
  readonly lesson: string;
  readonly sheet: string;
  readonly inputs: Readonly<Record<string, 0 | 1>>;
  /** Rows that were tried, with the letters of the outputs that were seen. */
  readonly tried: readonly (readonly [row: number, seen: string])[];
  /** Seconds during which the lesson was open and in use. */
  readonly seconds: number;
}

export interface ExerciseRecord {
  readonly id: string;
  readonly exercise: Exercise;
  readonly handedOut: number;
}

export interface HandInRecord {
  readonly key: number;
  readonly exercise: string;
  readonly file: string;
  readonly text: string;
}

class Database extends Dexie {
  lessons!: EntityTable<LessonRecord, 'id'>;
  journal!: EntityTable<JournalRecord, 'seq'>;
  moments!: EntityTable<MomentRecord, 'lesson'>;
  exercises!: EntityTable<ExerciseRecord, 'id'>;
  handIns!: EntityTable<HandInRecord, 'key'>;
  marks!: Table<{ name: string; value: unknown }, string>;

  constructor() {
    super('manege');
    this.version(1).stores({
      lessons: 'id, exerciseId, changed',
      journal: '++seq, lesson',
      moments: 'lesson',
      exercises: 'id, handedOut',
      handIns: '++key, exercise',
      marks: 'name',
    });
  }
}

export const database = new Database();

/** An id of 16 random letters and digits; needs no secure origin, as `randomUUID` does. */
export function randomId(): string {
  const letters = 'abcdefghijklmnopqrstuvwxyz0123456789';
  return Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => letters[b % letters.length]).join('');
}

/** A sentence for a failed write: the disk may be full, or the browser may refuse to keep anything. */
export function storeProblem(error: unknown): string {
  const name = error instanceof Error ? error.name : '';
  return /Quota/.test(name)
    ? 'This browser has no room left. Nothing is lost on this page: export the lesson as a file, then delete lessons that are no longer needed.'
    : 'This browser does not keep data for this page (private window, or blocked). Export the lesson as a file before closing it.';
}
