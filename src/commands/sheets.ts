import { sheetOf } from '@/core/circuit/lesson';
import { DONE, refused } from '@/core/values/result';
import { tidySheet } from '@/session/changes/arrange';
import { addSheet, duplicateSheet, portsForSheet, removeSheet } from '@/session/changes/sheets';
import type { Command } from './command';
import { all, always, canEdit, canWrite, isRunning, someOnSheet } from './conditions';
import type { EditorContext } from './context';

/** Commands for the open sheet. */
export const SHEETS: readonly Command[] = [
  {
    id: 'sheet.rename',
    name: 'Rename',
    group: 'sheet',
    when: canEdit,
    run: ({ page }) => page.openDialog('rename-sheet'),
  },
  {
    id: 'sheet.remove',
    name: 'Remove',
    group: 'sheet',
    words: 'delete',
    undoName: 'remove',
    when: all(canEdit, ({ session }) =>
      session.state.lesson.sheets.length > 1
        ? DONE
        : refused('only-sheet', 'a lesson keeps at least one sheet'),
    ),
    run: ({ session }) => removeSheet(session, session.state.rootId),
  },
  {
    id: 'sheet.add',
    name: 'Add a sheet',
    group: 'sheet',
    words: 'new page',
    undoName: 'add',
    when: canWrite,
    run: ({ session }) => addSheet(session),
  },
  {
    id: 'sheet.ports',
    name: 'Make it usable as a block',
    group: 'sheet',
    words: 'ports subcircuit',
    undoName: 'make',
    when: all(canEdit, someOnSheet),
    run: ({ session }) => portsForSheet(session, session.state.rootId),
  },
  {
    id: 'sheet.duplicate',
    name: 'Duplicate, with its table',
    group: 'sheet',
    words: 'copy sheet clone',
    undoName: 'duplicate',
    when: canEdit,
    run: ({ session }) => duplicateSheet(session, session.state.rootId),
  },
  {
    id: 'sheet.tidy',
    name: 'Tidy the whole sheet',
    group: 'sheet',
    words: 'layout arrange clean',
    undoName: 'tidy',
    when: all(canEdit, someOnSheet),
    run: ({ session }) => tidySheet(session),
  },
  {
    id: 'sheet.compare',
    name: 'Compare with a sheet or formula',
    group: 'sheet',
    words: 'equivalence prove same equal',
    when: isRunning,
    run: ({ page }) => page.openDialog('compare'),
  },
];

/** A command for each other sheet of the lesson, and for each way out of a block. */
export function sheetCommands({ session }: EditorContext): readonly Command[] {
  const { lesson, rootId, path } = session.state;
  const others = lesson.sheets.filter((sheet) => sheet.id !== rootId || path.length > 0);
  return others.map(({ id }) => ({
    id: `sheet.open-${id}`,
    name: `Open ${sheetOf(lesson, id)!.name}`,
    group: 'sheet',
    words: 'go to tab',
    when: always,
    run: () => session.openSheet(id),
  }));
}
