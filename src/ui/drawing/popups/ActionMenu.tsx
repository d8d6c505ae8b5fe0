'use client';

import { useEffect, useRef } from 'react';
import { type ActionGroup, actionsFor } from '@/commands/actions';
import { chordText } from '@/commands/chord';
import { type Command, runCommand } from '@/commands/command';
import { hint } from '@/ui/controls/hint';
import { useByFinger } from '@/ui/controls/useMedia';
import { useEditor } from '@/ui/session/editor-context';

interface Props {
  /** Pixels from the upper left corner of the drawing. */
  readonly x: number;
  readonly y: number;
  /** Most pixels that it may be high. */
  readonly room: number;
  readonly onClose: () => void;
}

const SMALL =
  'cursor-pointer rounded-md border border-hairline px-1.5 py-0.5 text-xs pointer-coarse:px-3 pointer-coarse:py-2 hover:bg-accent-soft focus:bg-accent-soft';
const LINE =
  'flex w-full cursor-pointer items-center rounded-lg px-2 py-1 text-left text-sm pointer-coarse:py-2.5 hover:bg-accent-soft focus:bg-accent-soft';

/** The actions for the selection, in a list at the pointer. */
export function ActionMenu({ x, y, room, onClose }: Props) {
  const editor = useEditor();
  const isByFinger = useByFinger();
  const root = useRef<HTMLDivElement>(null);
  // The list does not change while it is open.
  const groups = useRef<readonly ActionGroup[] | null>(null);
  groups.current ??= actionsFor(editor, isByFinger);
  useEffect(() => {
    root.current?.querySelector<HTMLElement>('[role="menuitem"]')?.focus();
  }, []);
  const run = (command: Command) => {
    const { drawing } = editor;
    const menu = drawing.popup();
    runCommand(command, editor);
    // A command may have opened something in its place.
    if (drawing.popup() === menu) onClose();
  };
  const go = (by: number) => {
    const items = [...(root.current?.querySelectorAll<HTMLElement>('[role="menuitem"]') ?? [])];
    const at = items.indexOf(document.activeElement as HTMLElement);
    items[(at + by + items.length) % items.length]?.focus();
  };
  return (
    <div
      ref={root}
      role="menu"
      aria-label="What can be done"
      className="absolute z-30 w-64 overflow-y-auto rounded-xl border border-hairline bg-raised p-1.5 shadow-lg"
      style={{ left: x, top: y, maxHeight: room }}
      onPointerDown={(event) => event.stopPropagation()}
      onContextMenu={(event) => event.preventDefault()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        else if (event.key === 'ArrowDown' || event.key === 'ArrowRight') go(1);
        else if (event.key === 'ArrowUp' || event.key === 'ArrowLeft') go(-1);
        else return;
        event.preventDefault();
      }}
    >
      {groups.current.map(({ title, isSmall, commands }) => (
        <fieldset
          key={title}
          className="mb-1 border-b border-hairline pb-1 last:mb-0 last:border-0 last:pb-0"
        >
          <legend className="px-2 pt-0.5 text-xs text-quiet">{title}</legend>
          <div className={isSmall ? 'flex flex-wrap gap-1 px-1.5 py-0.5' : ''}>
            {commands.map((command) => (
              <Item key={command.id} command={command} isSmall={isSmall} onRun={() => run(command)} />
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  );
}

interface ItemProps {
  readonly command: Command;
  readonly isSmall: boolean;
  readonly onRun: () => void;
}

function Item({ command: { name, keys, gesture, swatch }, isSmall, onRun }: ItemProps) {
  const key = keys?.[0] ? chordText(keys[0]) : gesture;
  if (swatch)
    return (
      <button
        type="button"
        role="menuitem"
        tabIndex={-1}
        aria-label={name}
        {...hint(name)}
        className="size-6 cursor-pointer rounded-full border border-hairline text-xs pointer-coarse:size-9"
        style={{ background: swatch === 'none' ? undefined : `var(--wire-${swatch})` }}
        onClick={onRun}
      >
        {swatch === 'none' ? '×' : ''}
      </button>
    );
  return (
    <button
      type="button"
      role="menuitem"
      tabIndex={-1}
      {...hint(isSmall ? key : undefined)}
      className={isSmall ? SMALL : LINE}
      onClick={onRun}
    >
      {name}
      {!isSmall && key && (
        <span className="ml-auto pl-3 text-xs text-quiet pointer-coarse:hidden">{key}</span>
      )}
    </button>
  );
}
