import { Fragment } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { sheetInside } from '@/core/parts/catalogue';
import { useSession, useSessionState } from '@/ui/session/session-context';

/** Where one is inside blocks, and the way back. */
export function Breadcrumbs() {
  const session = useSession();
  const path = useSessionState((s) => s.path);
  const lesson = useSessionState((s) => s.lesson);
  const rootId = useSessionState((s) => s.rootId);
  const steps: string[] = [];
  let sheet = sheetOf(lesson, rootId);
  steps.push(sheet?.name ?? '');
  for (const block of path) {
    const part = sheet?.parts.get(block);
    sheet = part && sheetInside(part, lesson.sheets);
    steps.push(part?.label || (sheet?.name ?? ''));
  }
  return (
    <nav aria-label="Inside" className="flex min-w-0 items-center gap-1 truncate">
      {steps.map((name, depth) => (
        <Fragment key={depth}>
          {depth > 0 && <span className="text-quiet">›</span>}
          {depth < path.length ? (
            <button
              type="button"
              className="cursor-pointer rounded-md px-1 text-accent hover:bg-accent-soft"
              onClick={() => session.leave(depth)}
            >
              {name}
            </button>
          ) : (
            <span className="px-1 font-semibold">{name}</span>
          )}
        </Fragment>
      ))}
    </nav>
  );
}
