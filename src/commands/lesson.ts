import type { Command } from './command';
import { always, someOnSheet } from './conditions';
import type { EditorContext } from './context';

/** Commands for the page and the whole lesson. */
export const LESSON: readonly Command[] = [
  {
    id: 'lesson.commands',
    name: 'Find a command',
    group: 'lesson',
    keys: ['Ctrl+K'],
    help: 'finds a command, a part, a sheet or a face by any of its words',
    words: 'search palette list',
    isEverywhere: true,
    when: always,
    run: ({ page }) => page.openDialog('commands'),
  },
  {
    id: 'lesson.help',
    name: 'Hands and keys',
    group: 'lesson',
    words: 'help shortcuts keyboard',
    when: always,
    run: ({ page }) => page.openDialog('help'),
  },
  {
    id: 'save.print',
    name: 'Print',
    group: 'save',
    words: 'paper pdf',
    when: someOnSheet,
    run: ({ page }) => page.print(),
  },
];

/** A command for each format in which the sheet can be saved. */
export const saveCommands = ({ page }: EditorContext): readonly Command[] =>
  page.formats().map(({ id, noun }) => ({
    id: `save.${id}`,
    name: `Save as ${noun}`,
    group: 'save',
    words: 'export file picture',
    when: always,
    run: () => page.saveAs(id),
  }));
