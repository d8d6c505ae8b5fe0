'use client';

import { useMemo } from 'react';
import type { Edit } from '@/core/circuit/edit';
import type { End, PinEnd } from '@/core/circuit/sheet';
import {
  type Remedy,
  remediesFor,
  remediesForAll,
  widthAt,
  widthRemedies,
} from '@/core/drawing/editing/remedies';
import { type Diagnostic, isUnfinished } from '@/core/netlist/diagnostic';
import { counted } from '@/core/values/wording';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { Panel } from './Panel';
import type { PopoverPlace } from './SheetPopover';

/** A problem in words, its remedies as buttons, and the way to the next one. */
export function ProblemPanel({
  index,
  onGo,
  ...at
}: PopoverPlace & { index: number; onGo: (index: number) => void }) {
  const session = useSession();
  const problems = useSessionState((s) => s.diagnostics);
  const problem: Diagnostic | undefined = problems[Math.min(index, problems.length - 1)];
  const remedies = useMemo(
    () => (problem ? remediesFor(session.state.lesson, session.state.sheetId, problem) : []),
    [session, problem],
  );
  const forAll = useMemo(
    () =>
      problem && isUnfinished(problem)
        ? remediesForAll(session.state.lesson, session.state.sheetId, problems)
        : [],
    [session, problem, problems],
  );
  if (!problem) return null;
  const go = (by: number) => onGo((index + by + problems.length) % problems.length);
  return (
    <Panel
      label={isUnfinished(problem) ? 'Open input' : 'Problem'}
      {...at}
      onKey={(key) => {
        if (key === 'F8' || key === 'ArrowRight') go(1);
        else if (key === 'ArrowLeft') go(-1);
        else return false;
        return true;
      }}
    >
      <p>{problem.message}</p>
      <Remedies remedies={remedies} onClose={at.onClose} />
      {forAll.length > 0 && (
        <div className="flex flex-wrap gap-1.5 border-t border-hairline pt-2">
          {forAll.map(({ name, find }) => (
            <button
              key={name}
              type="button"
              className="button small"
              onClick={() => {
                at.onClose();
                return session.edit(`remedy: ${name}`, find());
              }}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      {problems.length > 1 && (
        <div className="flex items-center gap-1 text-xs text-quiet">
          <button
            type="button"
            className="icon-button size-7"
            aria-label="The one before"
            onClick={() => go(-1)}
          >
            ◂
          </button>
          {index + 1} of {problems.length}
          <button
            type="button"
            className="icon-button size-7"
            aria-label="The next one"
            onClick={() => go(1)}
          >
            ▸
          </button>
          <span className="ml-auto">F8: next</span>
        </div>
      )}
    </Panel>
  );
}

function Remedies({ remedies, onClose }: { remedies: readonly Remedy[]; onClose: () => void }) {
  const session = useSession();
  const take = (name: string, edit: Edit) => {
    onClose();
    return session.edit(`remedy: ${name}`, edit);
  };
  if (remedies.length === 0) return null;
  return (
    <div className="flex flex-wrap gap-1.5">
      {remedies.map(({ name, edit }) => (
        <button key={name} type="button" className="button small" onClick={() => take(name, edit)}>
          {name}
        </button>
      ))}
    </div>
  );
}

/** Why two ends cannot simply be joined, and the parts that fit between them. */
export function UnequalWidths({ from, to, ...at }: PopoverPlace & { from: End; to: PinEnd }) {
  const session = useSession();
  const [width, wanted] = [widthAt(session.sheet, from), widthAt(session.sheet, to)];
  const remedies = useMemo(() => widthRemedies(session.sheet, from, width, to), [session, from, to, width]);
  return (
    <Panel label="Unequal widths" {...at}>
      <p>
        This wire has <b>{counted(width, 'bit')}</b>, the pin takes <b>{counted(wanted, 'bit')}</b>.{' '}
        {width > wanted ? 'Which bits are meant?' : 'What are the other bits to be?'}
      </p>
      <Remedies remedies={remedies} onClose={at.onClose} />
      {remedies.length === 0 && <p className="text-quiet">No part fits between them.</p>}
    </Panel>
  );
}
