import { strToU8, Zip, ZipDeflate } from 'fflate';
import type { Exercise } from '@/core/circuit/exercise';
import { returnedWork } from '@/core/exercise/returned';
import { sealedExercise } from '@/core/exercise/sealing';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { readHandIn } from '@/core/formats/hand-in-file';
import { writeReturned } from '@/core/formats/returned-file';
import { nextTask } from '@/loading/next-task';
import { handInTexts } from '@/store/hand-ins';
import { ownKeysMade } from '@/store/keys';
import { fileName } from '@/ui/controls/save-file';
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

/**
 * What goes back to students, a file each, with nothing of the others; one by one, so that hundreds of them leave the page its frames.
 * @param isOpen whether wanted answers go along.
 */
export async function* filesBack(
  rows: readonly Row[],
  exercise: Exercise,
  marks: ClassMarks,
  isOpen: boolean,
): AsyncGenerator<BackFile> {
  const out = await goingBack(exercise, isOpen);
  const now = new Date();
  const nameFor = fileNames(exercise.title);
  for (const row of rows) {
    await nextTask();
    const [kept] = await handInTexts([row.key]);
    const read = kept && readHandIn(kept.text);
    if (!read?.ok) continue;
    const name = nameFor(row.handIn.name);
    const answers = row.marks.map((_, at) => answerIn(row, at));
    yield { name, text: writeReturned(returnedWork(read.value, answers, marks, out, now)) };
  }
}

/** Files as one zip archive. @param tell gets how many are in it, as they come. */
export async function zipped(files: AsyncIterable<BackFile>, tell: (done: number) => void): Promise<Blob> {
  const pieces: BlobPart[] = [];
  const archive = new Zip((error, piece) => {
    if (error) throw error;
    pieces.push(piece as BlobPart);
  });
  let done = 0;
  for await (const { name, text } of files) {
    const file = new ZipDeflate(name, { level: 6 });
    archive.add(file);
    file.push(strToU8(text), true);
    tell(++done);
  }
  archive.end();
  return new Blob(pieces, { type: 'application/zip' });
}
