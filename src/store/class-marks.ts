import { ClassMarks, NO_MARKS } from '@/core/exercise/teacher-marks';
import { database } from './database';

/** What was given for the hand-ins of an exercise; nothing where none was, or where it cannot be read. */
export async function keptMarks(exercise: string): Promise<ClassMarks> {
  const record = await database.classMarks.get(exercise);
  const read = ClassMarks.safeParse(record?.marks);
  return read.success ? read.data : NO_MARKS;
}

export async function saveMarks(exercise: string, marks: ClassMarks): Promise<void> {
  await database.classMarks.put({ exercise, marks });
}
