import { FORMATS } from '@/core/formats/kinds';
import { expectDone } from '@/core/values/result';
import { load } from '@/loading/load';
import type { Session } from '@/session/session';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { pictureOf, printSheet } from '@/ui/drawing/canvas/picture';

/** Saves the open sheet as a file. @param id of a format that is written at sheets. */
export async function saveSheet(session: Session, id: string): Promise<void> {
  const { noun, endings, mimeType, write } = FORMATS.find((format) => format.id === id)!;
  const { state, sheet } = session;
  const file = fileName(sheet.name, endings[0]!);
  if (!write) {
    saveFile(file, await pictureOf(state), mimeType);
    return;
  }
  const writer = await load(`the writer of ${noun}`, () => write.load());
  const lines = expectDone(writer({ lesson: state.lesson, sheet }));
  saveFile(file, `${[...lines].join('\n')}\n`, mimeType);
}

/** Prints the open sheet by itself. */
export const printOpenSheet = ({ state, sheet }: Session): Promise<void> =>
  printSheet(state, `${state.lesson.title} · ${sheet.name}`);
