import { database, type LessonFileRecord } from './database';

/*
 * The file on this computer that a lesson was opened from or saved to, for browsers that let a page write to one again (File
 * System Access).
 */

/** The file of a lesson; undefined where it has none. */
export const fileOfLesson = (lesson: string): Promise<LessonFileRecord | undefined> =>
  database.lessonFiles.get(lesson);

/** Remembers the file of a lesson. @param modified when it was last written, in ms since 1970, as the browser says. */
export async function keepLessonFile(
  lesson: string,
  handle: FileSystemFileHandle,
  modified: number,
): Promise<void> {
  await database.lessonFiles.put({ lesson, handle, modified });
}

/** The lesson that a file was opened as, if it has not been written by anything else since. */
export async function lessonOfFile(handle: FileSystemFileHandle, modified: number): Promise<string | null> {
  for (const record of await database.lessonFiles.toArray()) {
    if (record.modified !== modified || !(await record.handle.isSameEntry(handle))) continue;
    if ((await database.lessons.get(record.lesson)) !== undefined) return record.lesson;
  }
  return null;
}

/** The names of the files that lessons are saved to, by lesson. */
export const namesOfFiles = async (): Promise<ReadonlyMap<string, string>> =>
  new Map((await database.lessonFiles.toArray()).map(({ lesson, handle }) => [lesson, handle.name]));
