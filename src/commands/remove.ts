import { copied, pasteText } from '@/session/changes/clipboard';
import { removeSelected } from '@/session/changes/parts';
import { copyAndSay, readClipboard } from '@/session/page-clipboard';
import type { Session } from '@/session/session';
import { told } from '@/session/told';
import type { Command } from './command';
import { all, canEdit, isRunning, someParts, somethingSelected } from './conditions';

const copy = (session: Session): Promise<boolean> => copyAndSay(session, copied(session)!, null);

/** Commands that remove parts and wires. */
export const REMOVE: readonly Command[] = [
  {
    id: 'remove.selected',
    name: 'Remove',
    group: 'remove',
    keys: ['Delete', 'Backspace'],
    words: 'delete erase',
    undoName: 'remove',
    when: all(canEdit, somethingSelected),
    run: ({ session }) => removeSelected(session),
  },
  {
    id: 'remove.healing',
    name: 'Remove, wires go on',
    group: 'remove',
    keys: ['Shift+Delete', 'Shift+Backspace'],
    words: 'delete heal join',
    undoName: 'remove',
    when: all(canEdit, someParts),
    run: ({ session }) => removeSelected(session, true),
  },
];

export const CLIPBOARD: readonly Command[] = [
  {
    id: 'clipboard.copy',
    help: 'copy · cut · paste',
    name: 'Copy',
    group: 'place',
    keys: ['Ctrl+C'],
    isBrowserKey: true,
    when: all(isRunning, someParts),
    run: ({ session }) => copy(session),
  },
  {
    id: 'clipboard.cut',
    help: 'copy · cut · paste',
    name: 'Cut',
    group: 'place',
    keys: ['Ctrl+X'],
    isBrowserKey: true,
    when: all(canEdit, someParts),
    run: async ({ session }) => {
      if (await copy(session)) told(removeSelected(session));
    },
  },
  {
    id: 'clipboard.paste',
    help: 'copy · cut · paste',
    name: 'Paste',
    group: 'place',
    keys: ['Ctrl+V'],
    isBrowserKey: true,
    when: canEdit,
    run: async ({ session }) => {
      const text = await readClipboard(session);
      if (text !== null) told(await pasteText(session, text));
    },
  },
];
