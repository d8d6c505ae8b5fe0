'use client';

import type { Diagnostic } from '@/core/netlist/diagnostic';
import { fetcher } from '@/loading/load';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSessionState } from '@/ui/session/session-context';
import { PROBLEM_COUNT, problemCountText } from './problem-count-text';

const load = fetcher('the list of problems', () => import('./ProblemList').then((m) => m.ProblemList));

/** How many things are wrong on the sheet; a press lists them in words. */
export function ProblemCount({ onShow }: { onShow: (problem: Diagnostic) => void }) {
  const count = useSessionState((s) => s.diagnostics.length);
  if (count === 0) return <span className="ml-auto text-quiet">nothing loose</span>;
  return (
    <OnDemand className={PROBLEM_COUNT} popup="dialog" load={load} props={{ onShow }}>
      {problemCountText(count)}
    </OnDemand>
  );
}
