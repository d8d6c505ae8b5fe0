'use client';

import { DropdownMenu } from 'radix-ui';
import { commandsOf } from '@/commands';
import { chordText } from '@/commands/chord';
import { type Command, runCommand } from '@/commands/command';
import type { Group } from '@/commands/groups';
import { updateDerived } from '@/core/synthesis/update-derived';
import { useEditor } from '@/ui/session/editor-context';
import { OPEN_TAB, OpenTab } from './OpenTab';

const GROUPS: readonly Group[] = ['sheet', 'save'];
/** Also offered here: it makes a sheet. */
const MORE = 'part.block';
/** Nearer at hand elsewhere: another tab, and the keyboard. */
const NOT_IN_MENU = /^(sheet\.open|view\.)/;

/** The menu of the open sheet. @param name of it. */
export function SheetMenu({ name }: { name: string }) {
  const editor = useEditor();
  editor.session.setUpdateDerived(updateDerived);
  const commands = commandsOf(editor).filter((c) => !NOT_IN_MENU.test(c.id));
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className={OPEN_TAB}>
        <OpenTab name={name} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="menu"
          sideOffset={4}
          align="start"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          {GROUPS.map((group, i) => (
            <DropdownMenu.Group key={group}>
              {i > 0 && <DropdownMenu.Separator className="my-1 h-px bg-hairline" />}
              {[
                ...commands.filter((command) => command.group === group),
                ...commands.filter((command) => group === 'sheet' && command.id === MORE),
              ].map((command) => (
                <Item key={command.id} command={command} />
              ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function Item({ command }: { command: Command }) {
  const editor = useEditor();
  const applies = command.when(editor);
  const [key] = command.keys ?? [];
  return (
    <DropdownMenu.Item
      className="menu-item"
      disabled={!applies.ok}
      onSelect={() => runCommand(command, editor)}
    >
      {command.name}
      <span className="ml-auto pl-4 text-xs text-quiet">
        {applies.ok ? key && chordText(key) : applies.problem.message}
      </span>
    </DropdownMenu.Item>
  );
}
