'use client';

import { Command as Palette } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { commandsOf } from '@/commands';
import { chordText } from '@/commands/chord';
import { type Command, nameOf, runCommand } from '@/commands/command';
import { findCommands } from '@/commands/find';
import { GROUPS } from '@/commands/groups';
import { holdKeys } from '@/ui/controls/held-keys';
import { useEditor } from '@/ui/session/editor-context';

/** More lines than this are too many to read: another word finds the entry sooner. */
const MOST_SHOWN = 60;

/** Finds every command, part, sheet and face by any of its words, and runs it. */
export function CommandPalette({ onClose }: { onClose: () => void }) {
  const editor = useEditor();
  const [typed, setTyped] = useState('');
  const commands = useMemo(() => commandsOf(editor), [editor]);
  const found = findCommands(typed, commands, editor);
  const shown = found.slice(0, MOST_SHOWN);
  /** It runs after the dialog has gone, so that the focus it sets stays. */
  const choose = (command: Command) => {
    const end = holdKeys(false);
    onClose();
    requestAnimationFrame(() => {
      runCommand(command, editor);
      end();
    });
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/35" />
        <Dialog.Content
          className="fixed top-[12vh] left-1/2 z-50 flex max-h-[70vh] w-[min(36rem,calc(100vw-2rem))] -translate-x-1/2 flex-col overflow-hidden rounded-2xl border border-hairline bg-raised shadow-2xl"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <Dialog.Title className="sr-only">Find a command</Dialog.Title>
          <Dialog.Description className="sr-only">
            Type any words of a command, a part, a sheet or a face; Enter runs the chosen one.
          </Dialog.Description>
          <Palette label="Commands" shouldFilter={false} loop className="flex min-h-0 flex-col">
            <Palette.Input
              value={typed}
              onValueChange={setTyped}
              placeholder="A command, a part, a sheet or a face …"
              className="w-full border-b border-hairline bg-transparent px-4 py-3 text-lg outline-none"
            />
            <Palette.List className="min-h-0 overflow-y-auto p-1.5">
              <Palette.Empty className="px-3 py-4 text-quiet">
                Nothing is called “{typed}”. Try another word for it.
              </Palette.Empty>
              {shown.map((command) => (
                <Line key={command.id} command={command} onRun={() => choose(command)} />
              ))}
            </Palette.List>
          </Palette>
          {found.length > shown.length && (
            <p className="border-t border-hairline px-4 py-1.5 text-xs text-quiet">
              and {found.length - shown.length} more: type a word of what you look for
            </p>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A command with its group, its key, and why it does not apply if it does not. */
function Line({ command, onRun }: { command: Command; onRun: () => void }) {
  const editor = useEditor();
  const applies = command.when(editor);
  const isOn = command.isOn?.(editor) ?? false;
  return (
    <Palette.Item
      value={command.id}
      disabled={!applies.ok}
      onSelect={onRun}
      className="flex cursor-pointer items-baseline gap-2 rounded-lg px-3 py-1.5 aria-disabled:cursor-default aria-disabled:text-quiet aria-selected:bg-accent-soft"
    >
      <span className="w-28 shrink-0 truncate text-xs text-quiet">{GROUPS[command.group]}</span>
      <span className="min-w-0 truncate">{nameOf(command, editor)}</span>
      {isOn && <span className="text-xs text-accent">on</span>}
      <span className="ml-auto shrink-0 pl-3 text-xs text-quiet">
        {applies.ok ? (command.keys ?? []).map(chordText).join(' · ') : applies.problem.message}
      </span>
    </Palette.Item>
  );
}
