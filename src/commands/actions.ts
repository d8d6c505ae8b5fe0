import { COMMANDS } from '.';
import type { Command } from './command';
import type { EditorContext } from './context';
import { GROUPS, type Group } from './groups';

export interface ActionGroup {
  readonly title: string;
  readonly commands: readonly Command[];
  /** Shown as small buttons in rows rather than as lines. */
  readonly isSmall: boolean;
}

/** The groups that the menu at the pointer offers where something is selected. */
const OF_SELECTION: readonly Group[] = ['part', 'order', 'room', 'wire', 'colour', 'remove'];
/** On a touch screen removal comes first: there is no Delete key, and the list may scroll. */
const BY_FINGER: readonly Group[] = ['remove', 'part', 'order', 'room', 'wire', 'colour'];
const SMALL: ReadonlySet<Group> = new Set<Group>(['order', 'room', 'colour']);
/** Left to the keyboard and the list of commands: a menu of them would be longer than it is of use. */
const NOT_IN_MENU = /^(part\.(inputs|move|flip|value)|wire\.pull)/;

/** The actions for the selection, or for the sheet where nothing is selected. */
export function actionsFor(context: EditorContext, isByFinger = false): readonly ActionGroup[] {
  const { parts, wires } = context.session.state.selection;
  if (parts.size === 0 && wires.size === 0) {
    const commands = COMMANDS.filter((c) => ['sheet.tidy', 'view.select-all'].includes(c.id));
    return [{ title: GROUPS.sheet, commands: applicable(commands, context), isSmall: false }];
  }
  return (isByFinger ? BY_FINGER : OF_SELECTION)
    .map((group) => ({
      title: group === 'part' && parts.size > 1 ? `${parts.size} parts` : GROUPS[group],
      commands: applicable(
        COMMANDS.filter((c) => c.group === group && !NOT_IN_MENU.test(c.id)),
        context,
      ),
      isSmall: SMALL.has(group),
    }))
    .filter(({ commands }) => commands.length > 0);
}

const applicable = (commands: readonly Command[], context: EditorContext) =>
  commands.filter((command) => command.when(context).ok);
