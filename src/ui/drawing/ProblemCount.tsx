'use client';

import { sheetOf } from '@/core/circuit/lesson';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import { fetcher } from '@/loading/load';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSessionState } from '@/ui/session/session-context';
import { problemCountLook, problemCountText } from './problem-count-text';

const load = fetcher('the list of problems', () => import('./ProblemList').then((m) => m.ProblemList));

/** How many things are wrong or not wired yet on the sheet; a press lists them in words. */
export function ProblemCount({ onShow }: { onShow: (problem: Diagnostic) => void }) {
  const found = useSessionState((s) => s.diagnostics);
  const isEmpty = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!.parts.size === 0);
  if (found.length === 0) return <span className="ml-auto text-quiet">{!isEmpty && 'all wired'}</span>;
  return (
    <OnDemand className={problemCountLook(found)} popup="dialog" load={load} props={{ onShow }}>
      {problemCountText(found)}
    </OnDemand>
  );
}
