'use client';

import type { Diagnostic } from '@/core/netlist/diagnostic';
import { fetcher } from '@/loading/load';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSessionState } from '@/ui/lesson/session-context';
import { TROUBLE, troubleText } from './trouble-text';

const load = fetcher('the list of problems', () => import('./TroubleList').then((m) => m.TroubleList));

/** How many things are wrong on the sheet; a press lists them in words. */
export function Trouble({ onShow }: { onShow: (trouble: Diagnostic) => void }) {
  const count = useSessionState((s) => s.diagnostics.length);
  if (count === 0) return <span className="ml-auto text-quiet">nothing loose</span>;
  return (
    <OnDemand className={TROUBLE} popup="dialog" load={load} props={{ onShow }}>
      {troubleText(count)}
    </OnDemand>
  );
}
