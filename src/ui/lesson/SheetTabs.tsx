'use client';

import { useState } from 'react';
import { fetcher } from '@/loading/load';
import { renameSheet } from '@/session/changes/lesson';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSession, useSessionState } from '../session/session-context';
import { OPEN_TAB, OpenTab } from './OpenTab';

const CompareDialog = lazyComponent('the comparison', () =>
  import('@/ui/compare/CompareDialog').then((m) => m.CompareDialog),
);
const load = fetcher('the menu of the sheet', () => import('./SheetMenu').then((m) => m.SheetMenu));

/** The lesson's sheets; the open one has a menu behind its name. */
export function SheetTabs() {
  const session = useSession();
  const sheets = useSessionState((s) => s.lesson.sheets);
  const open = useSessionState((s) => s.rootId);
  const within = useSessionState((s) => s.path.length > 0);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [isComparing, setComparing] = useState(false);
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
        if (sheet.id !== open || within)
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
          <OnDemand
            key={sheet.id}
            className={OPEN_TAB}
            popup="menu"
            load={load}
            props={{
              sheet,
              alone: sheets.length === 1,
              onRename: () => setRenaming(sheet.id),
              onCompare: () => setComparing(true),
            }}
          >
            <OpenTab name={sheet.name} />
          </OnDemand>
        );
      })}
      {isComparing && <CompareDialog onClose={() => setComparing(false)} />}
    </nav>
  );
}
