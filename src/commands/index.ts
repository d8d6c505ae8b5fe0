import { ARRANGE } from './arrange';
import type { Command } from './command';
import type { EditorContext } from './context';
import { faceCommands } from './faces';
import { HISTORY } from './history';
import { LESSON } from './lesson';
import { MOMENT } from './moment';
import { PARTS } from './parts';
import { PLACE, partCommands } from './place';
import { CLIPBOARD, REMOVE } from './remove';
import { SETTING_COMMANDS } from './settings';
import { SHEETS, sheetCommands } from './sheets';
import { VIEW } from './view';
import { WIRES } from './wires';

/**
 * Every command that does not depend on the lesson. Where several share a key, the first that applies takes it: with
 * parts selected an arrow moves them, with a wire it pulls the wire, else it moves the moment.
 */
export const COMMANDS: readonly Command[] = [
  ...PLACE,
  ...CLIPBOARD,
  ...PARTS,
  ...ARRANGE,
  ...WIRES,
  ...REMOVE,
  ...SHEETS,
  ...LESSON,
  ...HISTORY,
  ...MOMENT,
  ...VIEW,
  ...SETTING_COMMANDS,
];

/** Every command of the open lesson: those above, its parts, its sheets and the faces. */
export const commandsOf = (context: EditorContext): readonly Command[] => [
  ...COMMANDS,
  ...partCommands(context),
  ...sheetCommands(context),
  ...faceCommands(context),
];
