import type { Lesson } from '@/core/circuit/lesson';
import { withoutGzip } from '@/core/formats/gzip';
import { writeLesson } from '@/core/formats/write-lesson';
import { keepLessonFile } from '@/store/lesson-files';
import { isAllowed, whyNotOpened } from '@/ui/controls/file-handles';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { isLargeLesson, saveLesson } from '@/ui/session/save-lesson';

/*
 * Lessons and the files of this computer: those that the system opens with Manege, and cards that are dragged out.
 */

/** Where an installed application finds the files that it was started with (Web App Launch Handler). */
export interface LaunchQueue {
  setConsumer(consumer: (launch: { readonly files?: readonly FileSystemFileHandle[] }) => void): void;
}

/** A lesson that came from a file of this computer is saved to it again. */
export async function keepHandle(lesson: string, handle: FileSystemFileHandle | undefined): Promise<void> {
  if (handle && withoutGzip(handle.name).endsWith('.json'))
    await keepLessonFile(lesson, handle, (await handle.getFile()).lastModified);
}

/** Asks for a file that was opened in an earlier visit. @returns why it cannot be read, after its name; null where it can. */
export async function whyNotReadable(handle: FileSystemFileHandle): Promise<string | null> {
  try {
    if (!(await isAllowed(handle, 'read'))) return 'may not be read here';
    await handle.getFile();
    return null;
  } catch (error) {
    return whyNotOpened(error);
  }
}

/** Saves a lesson of the shelf as a file. */
export function exportLesson(lesson: Lesson): void {
  if (isLargeLesson(lesson)) saveLesson(lesson);
  else saveFile(fileName(lesson.title, '.manege.json'), writeLesson(lesson));
}

/** Dragged out of the window, a card becomes the file of its lesson, in browsers that know of that. */
export function dragOut(dragged: DataTransfer, lesson: Lesson): void {
  const file = fileName(lesson.title, '.manege.json');
  const address = URL.createObjectURL(new Blob([writeLesson(lesson)], { type: 'application/json' }));
  dragged.setData('DownloadURL', `application/json:${file}:${address}`);
  dragged.effectAllowed = 'copyLink';
  // The browser reads it after the drop, and says nothing of when.
  setTimeout(() => URL.revokeObjectURL(address), DRAG_MS);
}

/** Ms that a drag and what follows it may take. */
const DRAG_MS = 120_000;
