'use client';

import { fetcher } from '@/loading/load';
import { renameSheet } from '@/session/changes/lesson';
import { told } from '@/session/told';
import { Fold } from '@/ui/controls/Bar';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useEditor } from '@/ui/session/editor-context';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { OPEN_TAB, OpenTab } from './OpenTab';

const load = fetcher('the menu of the sheet', () => import('./SheetMenu').then((m) => m.SheetMenu));

interface Props {
  /** Whether the name of the open sheet is being typed. */
  readonly isRenaming: boolean;
  readonly onRenamed: () => void;
}

/** The lesson's sheets; the open one has a menu behind its name, and two presses rename it. */
export function SheetTabs({ isRenaming, onRenamed }: Props) {
  const session = useSession();
  const { page } = useEditor();
  const sheets = useSessionState((s) => s.lesson.sheets);
  const open = useSessionState((s) => s.rootId);
  const within = useSessionState((s) => s.path.length > 0);
  return (
    <nav
      aria-label="Sheets"
      className="flex items-center gap-1"
      data-shrinks
      onDoubleClick={() => !session.state.readOnly && page.openDialog('rename-sheet')}
    >
      {(sheets.length > 1 || within) && (
        <Fold way={3} label="The other sheets">
          {sheets.flatMap((sheet, i) =>
            sheet.id !== open || within ? (
              <button
                key={sheet.id}
                type="button"
                style={{ order: i }}
                className="h-8 max-w-72 shrink-0 cursor-pointer truncate rounded-full px-3 hover:bg-accent-soft"
                onClick={() => session.openSheet(sheet.id)}
              >
                {sheet.name}
              </button>
            ) : (
              []
            ),
          )}
        </Fold>
      )}
      {sheets.map((sheet, i) => {
        if (isRenaming && sheet.id === open)
          return (
            <input
              key={sheet.id}
              className="field h-8 w-36"
              style={{ order: i }}
              defaultValue={sheet.name}
              aria-label="Name of the sheet"
              // biome-ignore lint/a11y/noAutofocus: the tab was pressed to rename it
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
        if (sheet.id !== open || within) return null;
        return (
          <div key={sheet.id} className="shrink-0" data-shrinks style={{ order: i }}>
            <OnDemand className={OPEN_TAB} popup="menu" load={load} props={{ name: sheet.name }}>
              <OpenTab name={sheet.name} />
            </OnDemand>
          </div>
        );
      })}
    </nav>
  );
}
