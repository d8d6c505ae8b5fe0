import { strToU8, zipSync } from 'fflate';
import type { Exercise } from '@/core/circuit/exercise';
import { returnedWork } from '@/core/exercise/returned';
import { sealedExercise } from '@/core/exercise/sealing';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { readHandIn } from '@/core/formats/hand-in-file';
import { writeReturned } from '@/core/formats/returned-file';
import { nextTask } from '@/loading/next-task';
import { handInTexts } from '@/store/hand-ins';
import { ownKeysMade } from '@/store/keys';
import { fileName } from '@/ui/controls/files';
import { answerIn, type Row } from './marked-row';

/** The exercise as it goes back: with its wanted answers, or with those sealed that were sealed when it was handed out. */
const goingBack = async (exercise: Exercise, isOpen: boolean): Promise<Exercise> =>
  isOpen ? exercise : sealedExercise(exercise, (await ownKeysMade()).publicKey);

/** Gives each student a file name of their own. */
function fileNames(title: string): (student: string) => string {
  const taken = new Set<string>();
  return (student) => {
    let name = fileName(`${title} ${student}`, '.returned.json');
    for (let n = 2; taken.has(name); n++) name = fileName(`${title} ${student} ${n}`, '.returned.json');
    taken.add(name);
    return name;
  };
}

/** A file for a student: the name, and the text. */
export interface BackFile {
  readonly name: string;
  readonly text: string;
}

/** What goes back to students, a file each, with nothing of the others. @param isOpen whether wanted answers go along. @param tell gets how many are done. */
export async function filesBack(
  rows: readonly Row[],
  exercise: Exercise,
  marks: ClassMarks,
  isOpen: boolean,
  tell: (done: number) => void = () => {},
): Promise<BackFile[]> {
  const out = await goingBack(exercise, isOpen);
  const now = new Date();
  const nameFor = fileNames(exercise.title);
  const files: BackFile[] = [];
  for (const [done, row] of rows.entries()) {
    // Hundreds of them leave the page its frames.
    await nextTask();
    tell(done);
    const [kept] = await handInTexts([row.key]);
    const read = kept && readHandIn(kept.text);
    if (!read?.ok) continue;
    const name = nameFor(row.handIn.name);
    const answers = row.marks.map((_, at) => answerIn(row, at));
    files.push({ name, text: writeReturned(returnedWork(read.value, answers, marks, out, now)) });
  }
  return files;
}

/** Files as one zip archive. */
export const zipped = (files: readonly BackFile[]): Uint8Array =>
  zipSync(Object.fromEntries(files.map(({ name, text }) => [name, strToU8(text)])), { level: 6 });
