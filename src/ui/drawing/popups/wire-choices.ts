import { type End, isPinEnd, type Part, type PinEnd, type Sheet } from '@/core/circuit/sheet';
import { type Pin, pinOf, pinsOf } from '@/core/drawing/geometry/placement';
import { wireNets } from '@/core/drawing/geometry/wire-nets';
import { spokenName } from '@/core/parts/catalogue';
import type { Result } from '@/core/values/result';
import { moveEnd, wire } from '@/session/changes/wires';
import type { Session } from '@/session/session';
import { readingOrder } from '@/session/spoken';

/** A wire, or an end of a wire, that can be chosen by words. */
export interface WireChoice {
  readonly words: string;
  /** The least first. */
  readonly rank: number;
  run(session: Session): Result<undefined>;
}

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
 * Wires from a part by words alone: the pins to which one of its own may be joined, unwired ones first. Typed
 * text narrows them down.
 */
export function choicesForPart(sheet: Sheet, id: string): WireChoice[] {
  const part = sheet.parts.get(id);
  if (!part) return [];
  const nets = wireNets(sheet);
  const own = pinsOf(part);
  const isFree = (end: PinEnd) => nets.ofEnd(end) === undefined;
  const choices: WireChoice[] = [];
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
export function choicesForWires(sheet: Sheet, ids: readonly string[]): WireChoice[] {
  const nets = wireNets(sheet);
  const pinAt = (end: End) => (isPinEnd(end) ? pinOf(sheet, end.part, end.port) : null);
  const choicesForEnd = (id: string, key: 'from' | 'to'): WireChoice[] => {
    const wire = sheet.wires.get(id)!;
    const now = pinAt(wire[key]);
    const other = pinAt(wire[key === 'to' ? 'from' : 'to']);
    const name = isPinEnd(wire[key])
      ? pinWords(sheet.parts.get(wire[key].part)!, wire[key].port)
      : 'the branch';
    // A wire that branches at both ends may carry any width; any other keeps its width.
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
export function matches(words: string, typed: string): boolean {
  const said = words.toLowerCase().split(/[\s,→]+/);
  return typed
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((t) => said.some((s) => s.startsWith(t)));
}
