'use client';

import { fetcher } from '@/loading/load';
import { renameSheet } from '@/session/changes/lesson';
import { told } from '@/session/told';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { OPEN_TAB, OpenTab } from './OpenTab';

const load = fetcher('the menu of the sheet', () => import('./SheetMenu').then((m) => m.SheetMenu));

interface Props {
  /** Whether the name of the open sheet is being typed. */
  readonly isRenaming: boolean;
  readonly onRenamed: () => void;
}

/** The lesson's sheets; the open one has a menu behind its name. */
export function SheetTabs({ isRenaming, onRenamed }: Props) {
  const session = useSession();
  const sheets = useSessionState((s) => s.lesson.sheets);
  const open = useSessionState((s) => s.rootId);
  const within = useSessionState((s) => s.path.length > 0);
  return (
    <nav aria-label="Sheets" className="flex min-w-0 items-center gap-1 overflow-x-auto">
      {sheets.map((sheet) => {
        if (isRenaming && sheet.id === open)
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
                told(renameSheet(session, sheet.id, event.target.value));
                onRenamed();
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') event.currentTarget.blur();
                if (event.key === 'Escape') onRenamed();
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
          <OnDemand key={sheet.id} className={OPEN_TAB} popup="menu" load={load} props={{ name: sheet.name }}>
            <OpenTab name={sheet.name} />
          </OnDemand>
        );
      })}
    </nav>
  );
}
