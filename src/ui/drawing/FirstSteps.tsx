'use client';

import { useEffect, useState } from 'react';
import { kindOf, roleOf } from '@/core/parts/catalogue';
import type { SessionState } from '@/session/state';
import { useByFinger } from '@/ui/controls/useMedia';
import { endSteps, HANDING_OUT } from '@/ui/session/first-steps';
import { useSessionState } from '@/ui/session/session-context';

interface Step {
  readonly name: string;
  /** What to do now. */
  readonly says: (state: SessionState, isByFinger: boolean) => string;
  readonly isDone: (state: SessionState, hasHandedOut: boolean) => boolean;
  /** Whether it speaks of the switch and the lamp, and of nothing else that may lie on the sheet. */
  readonly isOfTwo?: boolean;
}

const sheetIn = (state: SessionState) => state.lesson.sheets.find((s) => s.id === state.rootId)!;
const has = (state: SessionState, role: 'input' | 'output') =>
  [...sheetIn(state).parts.values()].some((part) => roleOf(part)?.role === role);

/** Whether something lies on the sheet that is neither moved by hand nor shows a value: whoever begins with a flip-flop knows the way. */
const hasOthers = (state: SessionState) =>
  [...sheetIn(state).parts.values()].some((part) => {
    const role = roleOf(part);
    const isByHand = role?.role === 'input' && (role.by === 'switch' || role.by === 'button');
    return !isByHand && role?.role !== 'output' && !kindOf(part).isNote;
  });

/** Each is recognised when it has happened, however it was done. */
const STEPS: readonly Step[] = [
  {
    name: 'Place',
    isOfTwo: true,
    says: (state, isByFinger) => {
      const isFirst = !has(state, 'input');
      if (isByFinger)
        return isFirst
          ? 'Hold a finger on the paper for the ring of parts, and choose a switch under Inputs.'
          : 'Now a lamp, to the right of the switch: from the ring, under Outputs.';
      return isFirst
        ? 'Press Space for the ring of parts and choose a switch, or type: sw Key'
        : 'Now a lamp, to the right of the switch: from the ring, or type: lamp Drive';
    },
    isDone: (state) => has(state, 'input') && has(state, 'output'),
  },
  {
    name: 'Wire',
    isOfTwo: true,
    says: () => 'Drag from the pin of the switch to the pin of the lamp.',
    isDone: (state) => sheetIn(state).wires.size > 0,
  },
  {
    name: 'Flip',
    isOfTwo: true,
    says: () => 'Press the switch: the signal goes through.',
    isDone: (state) => state.on.size > 0,
  },
  {
    name: 'Row',
    says: () => 'The table marks the row of this moment. Press another row: the switches follow.',
    isDone: (state) => state.tried.size > 1,
  },
  {
    name: 'Hand out',
    says: () =>
      '“Hand out” makes an exercise of this sheet. Have a look; nothing leaves this browser by itself.',
    isDone: (_, hasHandedOut) => hasHandedOut,
  },
];

/** A short way in that is done on the live sheet: the step that is next, over the paper and under the hand. */
export function FirstSteps({ onEnd }: { onEnd: () => void }) {
  const [hasHandedOut, setHandedOut] = useState(false);
  /** How many steps have been seen done: a step that was done stays so. */
  const [reached, setReached] = useState(0);
  const done = useSessionState((s) => {
    let count = reached;
    while (STEPS[count]?.isDone(s, hasHandedOut)) count++;
    return count;
  });
  const isByFinger = useByFinger();
  const step = STEPS[done];
  const isElsewhere = useSessionState((s) => step?.isOfTwo === true && hasOthers(s));
  const says = useSessionState((s) => step?.says(s, isByFinger) ?? '');
  useEffect(() => setReached(done), [done]);
  useEffect(() => {
    const note = () => setHandedOut(true);
    window.addEventListener(HANDING_OUT, note);
    return () => window.removeEventListener(HANDING_OUT, note);
  }, []);
  useEffect(() => {
    if (step) return;
    endSteps();
    onEnd();
  }, [step, onEnd]);
  if (!step || isElsewhere) return null;
  return (
    <section
      aria-label="First steps"
      className="pointer-events-none absolute inset-x-2 top-2 z-10 flex items-center gap-3 rounded-xl border border-hairline bg-raised/95 py-1 pr-1 pl-3 text-sm shadow"
    >
      <ol className="flex shrink-0 items-center gap-1.5" aria-label={`Step ${done + 1} of ${STEPS.length}`}>
        {STEPS.map(({ name }, i) => (
          <li
            key={name}
            aria-label={`${name}${i < done ? ', done' : ''}`}
            {...(i === done && { 'aria-current': 'step' })}
            className={`size-2.5 rounded-full ${i < done ? 'bg-accent' : i === done ? 'bg-one ring-2 ring-one-soft' : 'bg-hairline'}`}
          />
        ))}
      </ol>
      <p className="min-w-0 flex-1" aria-live="polite">
        <b>{step.name}</b> <span>{says}</span>
      </p>
      <button
        type="button"
        className="pointer-events-auto h-7 shrink-0 cursor-pointer rounded-lg px-2 text-accent hover:bg-accent-soft"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => {
          endSteps();
          onEnd();
        }}
      >
        Leave
      </button>
    </section>
  );
}
