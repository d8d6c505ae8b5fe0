import { type Format, isWrittenAt } from '@/core/formats/format';
import { FORMATS } from '@/core/formats/kinds';
import { expectDone } from '@/core/values/result';
import { load } from '@/loading/load';
import type { Session } from '@/session/session';
import { fileName, saveFile } from '@/ui/controls/files';

/** A format in which the open sheet can be saved. */
interface SheetFormat {
  readonly id: string;
  /** As it follows “Save as”. */
  readonly noun: string;
  save(session: Session): Promise<void>;
}

/** A format whose files are text. */
const ofText = ({ id, noun, endings, mimeType, write }: Format): SheetFormat => ({
  id,
  noun,
  save: async ({ state, sheet }) => {
    const writer = await load(`the writer of ${noun}`, () => write!.load());
    const lines = expectDone(writer({ lesson: state.lesson, sheet }));
    saveFile(fileName(sheet.name, endings[0]!), `${[...lines].join('\n')}\n`, mimeType);
  },
});

/** The sheet as it is now, signals and all: only a browser can paint it. */
const PNG: SheetFormat = {
  id: 'png',
  noun: 'a picture (PNG)',
  save: async (session) => {
    const { pictureOf } = await load('the picture writer', () => import('@/ui/drawing/canvas/picture'));
    saveFile(fileName(session.sheet.name, '.png'), await pictureOf(session.state), 'image/png');
  },
};

export const SHEET_FORMATS: readonly SheetFormat[] = [
  ...FORMATS.filter(isWrittenAt('sheet')).map(ofText),
  PNG,
];

/** Prints the open sheet by itself. */
export async function printOpenSheet(session: Session): Promise<void> {
  const { printSheet } = await load('the printer', () => import('@/ui/drawing/canvas/picture'));
  await printSheet(session.state, `${session.state.lesson.title} · ${session.sheet.name}`);
}
