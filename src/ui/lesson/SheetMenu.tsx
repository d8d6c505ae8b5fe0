'use client';

import { DropdownMenu } from 'radix-ui';
import type { Sheet } from '@/core/circuit/lesson';
import { addSheet, removeSheet } from '@/session/commands';
import { OPEN_TAB, OpenTab } from './OpenTab';
import { useSession, useSessionState } from './session-context';

interface Props {
  readonly sheet: Sheet;
  /** Whether it is the lesson's only sheet. */
  readonly alone: boolean;
  readonly onRename: () => void;
}

/** What can be done with the open sheet. */
export function SheetMenu({ sheet, alone, onRename }: Props) {
  const session = useSession();
  const readOnly = useSessionState((s) => s.readOnly);
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger className={OPEN_TAB}>
        <OpenTab name={sheet.name} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="menu"
          sideOffset={4}
          align="start"
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <DropdownMenu.Item className="menu-item" disabled={readOnly} onSelect={onRename}>
            Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            disabled={readOnly || alone}
            onSelect={() => removeSheet(session, sheet.id)}
          >
            Remove
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" disabled={readOnly} onSelect={() => addSheet(session)}>
            Add a sheet
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
