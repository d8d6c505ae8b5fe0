'use client';

import { useEffect, useRef, useState } from 'react';
import { type End, isPinEnd, type Part, type PinEnd, type Sheet } from '@/core/circuit/lesson';
import { type Pin, pinOf, pinsOf } from '@/core/drawing/geometry/placement';
import { wireNets } from '@/core/drawing/geometry/wire-nets';
import { spokenName } from '@/core/parts/catalogue';
import { moveEnd, wire } from '@/session/changes/wires';
import type { Session } from '@/session/session';
import { readingOrder } from '@/session/spoken';

interface Props {
  readonly x: number;
  readonly y: number;
  /** A part that is wired to another, or wires one of whose ends is put elsewhere. */
  readonly from: { readonly part: string } | { readonly wires: readonly string[] };
  readonly session: Session;
  readonly onClose: () => void;
}

interface Choice {
  readonly words: string;
  /** The least first. */
  readonly rank: number;
  run(session: Session): void;
}

const SHOWN = 7;

/** A pin as it is said: a part with one pin by its name alone. */
function pinWords(part: Part, port: string): string {
  return pinsOf(part).length === 1 ? spokenName(part) : `${spokenName(part)}, ${port}`;
}

/** All pins of a sheet in reading order. */
function* everyPin(sheet: Sheet): Generator<{ part: Part; pin: Pin; end: PinEnd }> {
  for (const part of readingOrder(sheet))
    for (const pin of pinsOf(part)) yield { part, pin, end: { part: part.id, port: pin.port.name } };
}

/**
 * Wires from a part by words alone: the pins that one of its own may be joined to, those that nothing is wired to
 * first. What is typed narrows them down.
 */
function choicesForPart(sheet: Sheet, id: string): Choice[] {
  const part = sheet.parts.get(id);
  if (!part) return [];
  const nets = wireNets(sheet);
  const own = pinsOf(part);
  const isFree = (end: PinEnd) => nets.ofEnd(end) === undefined;
  const choices: Choice[] = [];
  for (const mine of own)
    for (const { part: other, pin, end: onto } of everyPin(sheet)) {
      if (other.id === id) continue;
      const from = { part: id, port: mine.port.name };
      const joined = !isFree(from) && nets.ofEnd(from) === nets.ofEnd(onto);
      if (!joinable(mine, pin) || joined) continue;
      const reader = pin.port.direction === 'in' ? onto : from;
      choices.push({
        words: `${own.length > 1 ? `${mine.port.name} → ` : ''}${pinWords(other, pin.port.name)}`,
        rank: (isFree(reader) ? 0 : 2) + (isFree(from) ? 0 : 1),
        run: (session) => wire(session, from, onto),
      });
    }
  return choices.sort((a, b) => a.rank - b.rank);
}

/** The pins at which the ends of some wires could be instead, free ones first. */
function choicesForWires(sheet: Sheet, ids: readonly string[]): Choice[] {
  const nets = wireNets(sheet);
  const pinAt = (end: End) => (isPinEnd(end) ? pinOf(sheet, end.part, end.port) : null);
  const choicesForEnd = (id: string, key: 'from' | 'to'): Choice[] => {
    const wire = sheet.wires.get(id)!;
    const now = pinAt(wire[key]);
    const other = pinAt(wire[key === 'to' ? 'from' : 'to']);
    const name = isPinEnd(wire[key])
      ? pinWords(sheet.parts.get(wire[key].part)!, wire[key].port)
      : 'the branch';
    // A wire that hangs on others at both ends may carry any width; else it stays as wide as it is.
    const width = (now ?? other)?.port.width;
    return [...everyPin(sheet)]
      .filter(({ pin, end }) => {
        const isThere = nets.ofEnd(end) === nets.ofWire(id);
        return !isThere && pin.port.width === (width ?? pin.port.width) && (!other || joinable(other, pin));
      })
      .map(({ part, pin, end }) => ({
        words: `${name} → ${pinWords(part, pin.port.name)}`,
        rank: nets.ofEnd(end) === undefined ? 0 : 1,
        run: (session) => moveEnd(session, id, key, end),
      }));
  };
  const choices = ids
    .filter((id) => sheet.wires.has(id))
    .flatMap((id) => [...choicesForEnd(id, 'to'), ...choicesForEnd(id, 'from')]);
  return choices.sort((a, b) => a.rank - b.rank);
}

/** Whether two pins may be joined: not both drive or both read, and as wide as each other. */
function joinable(a: Pin, b: Pin): boolean {
  const both = a.port.direction === b.port.direction && a.port.direction !== 'both';
  return !both && a.port.width === b.port.width;
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

/** A line that wires the selected part to another, or moves an end of the selected wire, for hands on the keyboard. */
export function WireLine({ x, y, from, session, onClose }: Props) {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const input = useRef<HTMLInputElement>(null);
  const [all] = useState(() =>
    'part' in from ? choicesForPart(session.sheet, from.part) : choicesForWires(session.sheet, from.wires),
  );
  const found = all.filter((c) => matches(c.words, text));
  const list = found.slice(0, SHOWN);
  const chosen = list[Math.min(at, list.length - 1)];
  useEffect(() => input.current?.focus(), []);
  const submit = (choice: Choice | undefined) => {
    if (!choice) return;
    onClose();
    choice.run(session);
  };
  const title =
    'part' in from
      ? `Wire ${spokenName(session.sheet.parts.get(from.part)!)} to`
      : 'Move an end of a wire to';
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
        placeholder={`${title} …`}
        value={text}
        role="combobox"
        aria-label={title}
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
            ? 'No free pin is left to wire this to.'
            : `No pin is called “${text.trim()}”.`
          : found.length > SHOWN
            ? `${found.length - SHOWN} more: type a name or a pin`
            : 'type a name or a pin · ↑ ↓ · Enter'}
      </p>
    </div>
  );
}
