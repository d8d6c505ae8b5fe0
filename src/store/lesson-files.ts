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

/** The files of all lessons, the last read or written first. */
export const filesOfLessons = async (): Promise<LessonFileRecord[]> =>
  (await database.lessonFiles.toArray()).sort((a, b) => b.modified - a.modified);

/** Files each once, under the lesson that stands first. @param most as many as are wanted. */
export async function eachOnce(
  files: readonly LessonFileRecord[],
  most: number,
): Promise<readonly LessonFileRecord[]> {
  const found: LessonFileRecord[] = [];
  for (const one of files) {
    if (found.length === most) break;
    const alike = found.filter(({ handle }) => handle.name === one.handle.name);
    const same = await Promise.all(alike.map(({ handle }) => handle.isSameEntry(one.handle)));
    if (!same.includes(true)) found.push(one);
  }
  return found;
}
