import type { Lesson } from '@/core/circuit/lesson';
import { isGzipName } from '@/core/formats/gzip';
import { nextTask } from '@/loading/next-task';
import type { Session } from '@/session/session';
import { fileOfLesson, keepLessonFile } from '@/store/lesson-files';
import { isAllowed, whyNotOpened } from '@/ui/controls/file-handles';
import { fileName } from '@/ui/controls/save-file';
import { ENDING, LARGE_ENDING } from './lesson-endings';
import { isLargeLesson, largeFiles, lessonText, saveLesson } from './save-lesson';

/*
 * Saving a lesson to the same file again, where the browser lets a page do that. Everywhere else it is a download.
 */

/** What browsers with File System Access have beside the standard of files. */
interface FileAccess {
  showSaveFilePicker(options: {
    readonly suggestedName: string;
    readonly types: readonly { readonly description: string; readonly accept: Record<string, string[]> }[];
  }): Promise<FileSystemFileHandle>;
}

/** Whether a page may write to a file of one's choice here. */
export const canKeepFile = (): boolean => typeof window !== 'undefined' && 'showSaveFilePicker' in window;

/** Saves a lesson: to its file where it has one, else as a download. Says where it went. */
export async function saveToFile(session: Session): Promise<void> {
  const { lesson } = session.state;
  const kept = await fileOfLesson(lesson.id).catch(() => undefined);
  if (!kept) {
    await download(session, lesson);
    return;
  }
  const { handle, modified } = kept;
  try {
    if (!(await isAllowed(handle, 'readwrite')))
      await instead(session, lesson, `The browser may not write to ${handle.name}`);
    else if ((await handle.getFile()).lastModified !== modified)
      await instead(session, lesson, `${handle.name} was changed by something else since`);
    else await written(session, lesson, handle);
  } catch (error) {
    await instead(session, lesson, `${handle.name} ${whyNotOpened(error)}`);
  }
}

/** Saves a download. A large lesson is packed first, and as that takes a moment, it is said. */
async function download(session: Session, lesson: Lesson): Promise<void> {
  if (!isLargeLesson(lesson)) {
    saveLesson(lesson);
    return;
  }
  session.say('Packing the lesson …');
  const { saveLarge } = await largeFiles();
  await nextTask();
  session.say(`Saved as ${await saveLarge(lesson)}, a packed file that opens like any other.`);
}

/** Saves a download in place of the file, and says why. */
async function instead(session: Session, lesson: Lesson, why: string): Promise<void> {
  await download(session, lesson);
  session.say(`${why}: the lesson was saved as a download.`, 'bad');
}

/** Saves a lesson to a file that is chosen now, and to the same one from then on. */
export async function saveToChosenFile(session: Session): Promise<void> {
  const { lesson } = session.state;
  const { showSaveFilePicker } = window as unknown as FileAccess;
  let handle: FileSystemFileHandle;
  try {
    handle = await showSaveFilePicker({
      suggestedName: fileName(lesson.title, isLargeLesson(lesson) ? LARGE_ENDING : ENDING),
      types: isLargeLesson(lesson)
        ? [{ description: 'Lesson of Manege', accept: { 'application/gzip': ['.gz'] } }]
        : [{ description: 'Lesson of Manege', accept: { 'application/json': [ENDING, '.json'] } }],
    });
  } catch {
    // It was closed without a choice.
    return;
  }
  await written(session, lesson, handle);
}

async function written(session: Session, lesson: Lesson, handle: FileSystemFileHandle): Promise<void> {
  try {
    const writing = await handle.createWritable();
    const { name } = handle;
    if (isLargeLesson(lesson)) session.say(`Saving to ${name} …`);
    await writing.write(
      isLargeLesson(lesson) || isGzipName(name)
        ? await (await largeFiles()).contentFor(lesson, name)
        : lessonText(lesson),
    );
    await writing.close();
    await keepLessonFile(lesson.id, handle, (await handle.getFile()).lastModified);
    session.say(`Saved to ${handle.name}.`);
  } catch (error) {
    const why = error instanceof Error ? error.message : 'the browser refused';
    await instead(session, lesson, `${handle.name} could not be written (${why})`);
  }
}
