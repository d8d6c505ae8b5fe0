import { strToU8, zipSync } from 'fflate';
import type { Exercise } from '@/core/circuit/exercise';
import { foundText, type Returned } from '@/core/exercise/returned';
import { sealedExercise } from '@/core/exercise/sealing';
import { type ClassMarks, pointsFor, remarksOn } from '@/core/exercise/teacher-marks';
import { writeReturned } from '@/core/formats/returned-file';
import { ownKeysMade } from '@/store/keys';
import { fileName } from '@/ui/controls/files';
import { answerIn, type Row } from './marked-row';

/** Most letters and complaints that go back; a hostile hand-in makes no larger file. */
const MOST_COMPLAINTS = 100;
const MOST_LETTERS = 500;

/** The exercise as it goes back: with its wanted answers, or with those sealed that were sealed when it was handed out. */
const goingBack = async (exercise: Exercise, isOpen: boolean): Promise<Exercise> =>
  isOpen ? exercise : sealedExercise(exercise, (await ownKeysMade()).publicKey);

function returnedOf(row: Row, exercise: Exercise, marks: ClassMarks, now: Date): Returned {
  const { handIn } = row;
  return {
    name: handIn.name,
    handedIn: handIn.handedIn,
    returned: now.toISOString(),
    tasks: Object.fromEntries(
      row.marks.map((marked, at) => [
        marked.task.id,
        {
          points: pointsFor(marks, answerIn(row, at)),
          of: marked.task.points,
          solved: marked.mark.solved,
          found: foundText(marked).slice(0, 2000),
          complaints: marked.mark.complaints.slice(0, MOST_COMPLAINTS).map((c) => c.slice(0, MOST_LETTERS)),
          remarks: remarksOn(marks, answerIn(row, at)),
        },
      ]),
    ),
    lesson: { ...handIn.lesson, exercise },
  };
}

/** A file for a student: the name, and the text. */
export interface BackFile {
  readonly name: string;
  readonly text: string;
}

/** What goes back to students, a file each, with nothing of the others. @param isOpen whether wanted answers go along. */
export async function filesBack(
  rows: readonly Row[],
  exercise: Exercise,
  marks: ClassMarks,
  isOpen: boolean,
): Promise<BackFile[]> {
  const out = await goingBack(exercise, isOpen);
  const now = new Date();
  const taken = new Set<string>();
  return rows.map((row) => {
    let name = fileName(`${exercise.title} ${row.handIn.name}`, '.returned.json');
    for (let n = 2; taken.has(name); n++)
      name = fileName(`${exercise.title} ${row.handIn.name} ${n}`, '.returned.json');
    taken.add(name);
    return { name, text: writeReturned(returnedOf(row, out, marks, now)) };
  });
}

/** Files as one zip archive. */
export const zipped = (files: readonly BackFile[]): Uint8Array =>
  zipSync(Object.fromEntries(files.map(({ name, text }) => [name, strToU8(text)])), { level: 6 });
