'use client';

import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { addSheet, removeSheet, renameSheet } from '@/session/commands';
import { useSession, useSessionState } from './session-context';

/** The lesson's sheets; the open one has a menu behind its name. */
export function SheetTabs() {
  const session = useSession();
  const sheets = useSessionState((s) => s.lesson.sheets);
  const open = useSessionState((s) => s.sheetId);
  const readOnly = useSessionState((s) => s.readOnly);
  const [renaming, setRenaming] = useState<string | null>(null);
  return (
    <nav aria-label="Sheets" className="flex min-w-0 items-center gap-1 overflow-x-auto">
      {sheets.map((sheet) => {
        if (renaming === sheet.id)
          return (
            <input
              key={sheet.id}
              className="field h-8 w-36"
              defaultValue={sheet.name}
              aria-label="Name of the sheet"
              autoFocus
              maxLength={60}
              onFocus={(event) => event.target.select()}
              onBlur={(event) => {
                renameSheet(session, sheet.id, event.target.value);
                setRenaming(null);
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur();
                if (event.key === 'Escape') setRenaming(null);
              }}
            />
          );
        if (sheet.id !== open)
          return (
            <button
              key={sheet.id}
              type="button"
              className="h-8 max-w-40 cursor-pointer truncate rounded-full px-3 hover:bg-accent-soft"
              onClick={() => session.openSheet(sheet.id)}
            >
              {sheet.name}
            </button>
          );
        return (
          <DropdownMenu.Root key={sheet.id}>
            <DropdownMenu.Trigger
              className="flex h-8 max-w-44 shrink-0 cursor-pointer items-center gap-1 rounded-full bg-accent-soft px-3 font-semibold text-accent"
              aria-current="page"
            >
              <span className="truncate">{sheet.name}</span> <span aria-hidden="true">▾</span>
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content
                className="menu"
                sideOffset={4}
                align="start"
                onCloseAutoFocus={(e) => e.preventDefault()}
              >
                <DropdownMenu.Item
                  className="menu-item"
                  disabled={readOnly}
                  onSelect={() => setRenaming(sheet.id)}
                >
                  Rename
                </DropdownMenu.Item>
                <DropdownMenu.Item
                  className="menu-item"
                  disabled={readOnly || sheets.length === 1}
                  onSelect={() => removeSheet(session, sheet.id)}
                >
                  Remove
                </DropdownMenu.Item>
                <DropdownMenu.Item
                  className="menu-item"
                  disabled={readOnly}
                  onSelect={() => addSheet(session)}
                >
                  Add a sheet
                </DropdownMenu.Item>
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        );
      })}
    </nav>
  );
}
