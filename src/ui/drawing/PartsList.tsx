'use client';

import { type KeyboardEvent, memo, useDeferredValue, useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Part } from '@/core/circuit/sheet';
import { readingOrder, spokenPart } from '@/session/spoken';
import { AS_FAST, type SessionState } from '@/session/state';
import { useSession, useSessionState } from '@/ui/session/session-context';

const AROUND = 40;

interface Props {
  /** After another part has been selected. */
  readonly onStep: (part: Part) => void;
  readonly onAct: (part: string) => void;
}

/**
 * The sheet's parts as words, for the keyboard and the screen reader: the same parts under the same names as on
 * the canvas. Arrow keys go from part to part; keys that it does not use act on the drawing.
 */
export function PartsList({ onStep, onAct }: Props) {
  const session = useSession();
  const chosen = () => {
    const parts = readingOrder(session.sheet);
    return { parts, at: parts.findIndex((p) => session.state.selection.parts.has(p.id)) };
  };
  const step = (by: number) => {
    const { parts, at } = chosen();
    const next = parts[Math.min(parts.length - 1, Math.max(0, at === -1 ? 0 : at + by))];
    if (!next) return;
    session.select({ parts: new Set([next.id]), wires: new Set() });
    onStep(next);
  };
  const toTell = useMemo(tellable, []);
  // The canvas comes first: the words follow as soon as the page has been painted.
  const state = useDeferredValue(useSessionState(toTell));
  return (
    <Words
      state={state}
      onKey={(event) => {
        if (event.key === 'ArrowDown' && !event.shiftKey) step(1);
        else if (event.key === 'ArrowUp' && !event.shiftKey) step(-1);
        else if (event.key === 'Enter') {
          const { parts, at } = chosen();
          if (at === -1) return;
          onAct(parts[at]!.id);
        } else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    />
  );
}

const isTooQuick = ({ playing, goal, pace }: SessionState) => playing && (goal !== null || pace >= AS_FAST);

/** Parts of the state whose changes are told at once, even during a run at full speed. */
const AT_ONCE = ['lesson', 'path', 'sheetId', 'selection', 'netlist', 'rules'] as const;

/** Gives the state to tell: values of a run at full speed, which nobody could hear in time, are told when it ends. */
function tellable(): (state: SessionState) => SessionState {
  let told: SessionState | null = null;
  return (state) => {
    const before = told;
    if (!before || !isTooQuick(state) || AT_ONCE.some((key) => state[key] !== before[key])) told = state;
    return told ?? state;
  };
}

interface WordsProps {
  readonly state: SessionState;
  readonly onKey: (event: KeyboardEvent) => void;
}

const Words = memo(
  function Words({ state, onKey }: WordsProps) {
    const sheet = sheetOf(state.lesson, state.sheetId)!;
    const parts = useMemo(() => readingOrder(sheet), [sheet]);
    const chosen = parts.findIndex((p) => state.selection.parts.has(p.id));
    const from = Math.max(0, chosen - AROUND);
    return (
      <div
        role="listbox"
        tabIndex={0}
        aria-label={`Parts on ${sheet.name}: ${parts.length}`}
        aria-activedescendant={chosen === -1 ? undefined : `part-${parts[chosen]!.id}`}
        className="absolute size-px overflow-hidden whitespace-nowrap opacity-0"
        onKeyDown={onKey}
      >
        {parts.slice(from, from + 2 * AROUND).map((part) => (
          <div
            key={part.id}
            id={`part-${part.id}`}
            data-part={part.id}
            role="option"
            aria-selected={state.selection.parts.has(part.id)}
            tabIndex={-1}
          >
            {spokenPart(state, sheet, part)}
          </div>
        ))}
      </div>
    );
  },
  // `onKey` reads the session when it is called, so an older one serves as well.
  (was, is) => was.state === is.state,
);
