'use client';

import { type Logic, letterOf } from '@/core/values/logic';
import { isTimed, rowNow, rowsOf } from '@/session/moment';
import { hint } from '@/ui/controls/hint';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { Dial } from './Dial';

const TimeMoment = lazyComponent('the time controls', () => import('./TimeMoment').then((m) => m.TimeMoment));

/** The moment: a row with its dial where inputs alone decide, a time with its controls where a clock runs. */
export function MomentBar() {
  const timed = useSessionState((s) => isTimed(s.netlist, s.lesson.settings.delays));
  const rows = useSessionState(rowsOf);
  const still = useSessionState((s) => s.rules.still);
  if (still) return null;
  if (timed) return <TimeMoment />;
  return rows === null ? null : <RowMoment rows={rows} />;
}

function RowMoment({ rows }: { rows: number }) {
  const session = useSession();
  const row = useSessionState((s) => rowNow(s.netlist, s.values));
  const tried = useSessionState((s) => s.tried);
  const values = useSessionState((s) => s.values);
  const inputs = useSessionState((s) => s.netlist.inputColumns);
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot be a row of a bar in every browser
    <div
      className="flex h-11 items-center gap-2 rounded-full border border-hairline bg-paper pr-3 pl-1"
      role="group"
      aria-label="The moment"
    >
      <Dial rows={rows} row={row} tried={tried} size={42} />
      <p aria-live="polite">
        Row <b>{row}</b>{' '}
        <span className="text-quiet" data-way={2}>
          of {rows}
        </span>{' '}
        {inputs.length <= 4 && (
          <span className="ml-1 text-sm text-quiet" data-way={1}>
            {inputs.map((t) => `${t.name} ${letterOf(values[t.nets[0]!] as Logic)}`).join(' · ')}
          </span>
        )}
      </p>
      <button
        type="button"
        className="icon-button size-7"
        onClick={() => session.stepRow(-1)}
        aria-label="Row before"
        {...hint('Row before (←)')}
      >
        ◂
      </button>
      <button
        type="button"
        className="icon-button size-7"
        onClick={() => session.stepRow(1)}
        aria-label="Next row"
        {...hint('Next row (→)')}
      >
        ▸
      </button>
      <span
        data-way={2}
        className="border-l border-hairline pl-2.5 text-sm font-semibold whitespace-nowrap text-accent"
      >
        {tried.size} of {rows} tried
      </span>
    </div>
  );
}
