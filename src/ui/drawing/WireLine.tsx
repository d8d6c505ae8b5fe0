'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { PinEnd, Sheet } from '@/core/circuit/lesson';
import { pinsOf } from '@/core/drawing/placement';
import { wireNets } from '@/core/drawing/wire-nets';
import { spokenName } from '@/core/parts/catalogue';
import { wire } from '@/session/commands';
import type { Session } from '@/session/session';
import { readingOrder } from '@/session/spoken';

interface Props {
  readonly x: number;
  readonly y: number;
  readonly part: string;
  readonly session: Session;
  readonly onClose: () => void;
}

interface Choice {
  readonly from: PinEnd;
  readonly onto: PinEnd;
  readonly words: string;
}

const SHOWN = 7;

/**
 * Wires from a part by words alone: the pins that one of its own may be joined to, those that nothing is wired to
 * first. What is typed narrows them down.
 */
function choicesFor(sheet: Sheet, id: string): Choice[] {
  const part = sheet.parts.get(id);
  if (!part) return [];
  const nets = wireNets(sheet);
  const own = pinsOf(part);
  const isFree = (end: PinEnd) => nets.ofEnd(end) === undefined;
  const choices: (Choice & { rank: number })[] = [];
  for (const mine of own)
    for (const other of readingOrder(sheet)) {
      if (other.id === id) continue;
      const theirs = pinsOf(other);
      for (const pin of theirs) {
        const from = { part: id, port: mine.port.name };
        const onto = { part: other.id, port: pin.port.name };
        const bothDrive = mine.port.direction === 'out' && pin.port.direction === 'out';
        const bothRead = mine.port.direction === 'in' && pin.port.direction === 'in';
        const joined = !isFree(from) && nets.ofEnd(from) === nets.ofEnd(onto);
        if (bothDrive || bothRead || joined || mine.port.width !== pin.port.width) continue;
        const reader = pin.port.direction === 'in' ? onto : from;
        const named = (p: typeof part, port: string, alone: boolean) =>
          alone ? spokenName(p) : `${spokenName(p)}, ${port}`;
        choices.push({
          from,
          onto,
          words: `${own.length > 1 ? `${mine.port.name} → ` : ''}${named(other, pin.port.name, theirs.length === 1)}`,
          rank: (isFree(reader) ? 0 : 2) + (isFree(from) ? 0 : 1),
        });
      }
    }
  return choices.sort((a, b) => a.rank - b.rank);
}

/** Whether each typed word begins a word of the choice, in any order. */
function matches(words: string, typed: string): boolean {
  const said = words.toLowerCase().split(/[\s,→]+/);
  return typed
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((t) => said.some((s) => s.startsWith(t)));
}

/** A line that wires the selected part to another, for hands on the keyboard. */
export function WireLine({ x, y, part, session, onClose }: Props) {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const all = useMemo(() => choicesFor(session.sheet, part), [session, part]);
  const found = all.filter((c) => matches(c.words, text));
  const list = found.slice(0, SHOWN);
  const chosen = list[Math.min(at, list.length - 1)];
  useEffect(() => input.current?.focus(), []);
  const submit = (choice: Choice | undefined) => {
    if (!choice) return;
    onClose();
    wire(session, choice.from, choice.onto);
  };
  const name = spokenName(session.sheet.parts.get(part)!);
  return (
    <div
      className="absolute z-30 w-72 rounded-xl border border-hairline bg-raised shadow-lg"
      style={{ left: x, top: y }}
      onPointerDown={(event) => event.stopPropagation()}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
    >
      <input
        ref={input}
        className="w-full rounded-t-xl bg-transparent px-3 py-2 font-semibold outline-none"
        placeholder={`Wire ${name} to …`}
        value={text}
        role="combobox"
        aria-label={`Wire ${name} to`}
        aria-expanded="true"
        aria-controls="wire-choices"
        aria-activedescendant={chosen ? `wire-${list.indexOf(chosen)}` : undefined}
        spellCheck={false}
        autoComplete="off"
        maxLength={100}
        onChange={(event) => {
          setText(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') onClose();
          else if (event.key === 'Enter') submit(chosen);
          else if (event.key === 'ArrowDown') setAt((i) => Math.min(i + 1, list.length - 1));
          else if (event.key === 'ArrowUp') setAt((i) => Math.max(i - 1, 0));
          else return;
          event.preventDefault();
        }}
      />
      <div id="wire-choices" role="listbox" aria-label="Pins" className="border-t border-hairline p-1">
        {list.map((choice, i) => (
          <div
            key={choice.words}
            id={`wire-${i}`}
            role="option"
            aria-selected={choice === chosen}
            tabIndex={-1}
            className={`cursor-pointer rounded-lg px-2 py-1 text-sm ${choice === chosen ? 'bg-accent-soft' : ''}`}
            onPointerDown={(event) => {
              event.preventDefault();
              submit(choice);
            }}
          >
            {choice.words}
          </div>
        ))}
      </div>
      <p className="px-3 pb-2 text-xs text-quiet" aria-live="polite">
        {found.length === 0
          ? all.length === 0
            ? 'There is no pin left that this part could be wired to.'
            : `No pin is called “${text.trim()}”.`
          : found.length > SHOWN
            ? `${found.length - SHOWN} more: type a name or a pin`
            : 'type a name or a pin · ↑ ↓ · Enter'}
      </p>
    </div>
  );
}
