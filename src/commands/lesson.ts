import { isWrittenAt } from '@/core/formats/format';
import { FORMATS } from '@/core/formats/kinds';
import type { Command } from './command';
import { all, always, canBeLinked, canChooseFile, isOwnLesson, isRunning, someOnSheet } from './conditions';

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
    id: 'save.file',
    name: 'Save file',
    group: 'save',
    keys: ['Ctrl+S'],
    help: 'saves the lesson: to the file that it has, else as a download',
    words: 'export download disk',
    isEverywhere: true,
    when: always,
    run: ({ page }) => page.saveFile(),
  },
  {
    id: 'save.to',
    name: 'Choose the file that it is saved to',
    group: 'save',
    words: 'save as same file disk folder',
    when: canChooseFile,
    run: ({ page }) => page.saveToChosenFile?.(),
  },
  {
    id: 'save.paper',
    name: 'Worksheet on paper',
    group: 'save',
    keys: ['Ctrl+P'],
    help: 'a worksheet or its answer sheet, on paper or as PDF',
    words: 'print pdf answers answer sheet empty table map lanes',
    isEverywhere: true,
    when: all(isOwnLesson, someOnSheet),
    run: ({ page }) => page.openDialog('paper'),
  },
  {
    id: 'save.print',
    name: 'Print the drawing',
    group: 'save',
    words: 'paper pdf',
    when: someOnSheet,
    run: ({ page }) => page.print(),
  },
  {
    id: 'save.link',
    name: 'Link to this lesson',
    group: 'save',
    words: 'share address embed page course qr code url iframe',
    when: canBeLinked,
    run: ({ page }) => page.openDialog('link'),
  },
  {
    id: 'save.figure',
    name: 'Figure for a text',
    group: 'save',
    words: 'export picture latex tikz svg png script paper clipboard black transparent scale face',
    when: someOnSheet,
    run: ({ page }) => page.openDialog('figure'),
  },
  ...FORMATS.filter(isWrittenAt('sheet')).map(
    ({ id, noun }): Command => ({
      id: `save.${id}`,
      name: `Save as ${noun}`,
      group: 'save',
      words: 'export file picture',
      when: isRunning,
      run: ({ page }) => page.saveAs(id),
    }),
  ),
];
