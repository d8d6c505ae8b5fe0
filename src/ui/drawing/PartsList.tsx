'use client';

import { useMemo } from 'react';
import { readingOrder, spokenPart } from '@/session/spoken';
import { useSession, useSessionState } from '@/ui/lesson/session-context';

const AROUND = 40;

/**
 * The sheet's parts as words, for the keyboard and the screen reader: the same parts under the same names as on
 * the canvas. Arrow keys go from part to part; keys that it does not use act on the drawing.
 */
export function PartsList({ onAct }: { onAct: (part: string) => void }) {
  const session = useSession();
  const state = useSessionState((s) => s);
  const sheet = session.sheet;
  const parts = useMemo(() => readingOrder(sheet), [sheet]);
  const chosen = parts.findIndex((p) => state.selection.parts.has(p.id));
  const from = Math.max(0, chosen - AROUND);
  const step = (by: number) => {
    const next = parts[Math.min(parts.length - 1, Math.max(0, chosen === -1 ? 0 : chosen + by))];
    if (next) session.select({ parts: new Set([next.id]), wires: new Set() });
  };
  return (
    <div
      role="listbox"
      tabIndex={0}
      aria-label={`Parts on ${sheet.name}: ${parts.length}`}
      aria-activedescendant={chosen === -1 ? undefined : `part-${parts[chosen]!.id}`}
      className="absolute size-px overflow-hidden whitespace-nowrap opacity-0"
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown' && !event.shiftKey) step(1);
        else if (event.key === 'ArrowUp' && !event.shiftKey) step(-1);
        else if (event.key === 'Enter' && chosen !== -1) onAct(parts[chosen]!.id);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
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
}
