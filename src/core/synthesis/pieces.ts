import type { Sheet } from '../circuit/sheet';
import { widthAt } from '../drawing/editing/remedies';
import { MOST_BITS } from '../parts/limits';
import { done, type Result, refused } from '../values/result';
import { counted } from '../values/wording';
import { labelled, sourceNamed } from './names-on-sheet';

/*
 * Bits of a bus, `A[3]` and `A[7:4]`, and several signals as one, `{A, B}`, as they stand in a statement (the notation of
 * IEEE Std 1364).
 */

export type Piece =
  | {
      readonly is: 'bits';
      readonly of: string;
      readonly width: number;
      readonly high: number;
      readonly low: number;
      /** Whether no bus is called so yet: all its bits are named, so that it can be placed. */
      readonly isNew: boolean;
    }
  /** The first of them with the highest bits. */
  | { readonly is: 'joined'; readonly of: readonly string[]; readonly widths: readonly number[] };

/** Pieces by the text that names each. */
export type Pieces = ReadonlyMap<string, Piece>;

export const pieceWidth = (piece: Piece): number =>
  piece.is === 'bits' ? piece.high - piece.low + 1 : piece.widths.reduce((a, b) => a + b, 0);

const BITS = /([\p{L}][\p{L}\p{N}_.]*)\s*\[\s*(\d{1,2})\s*(?::\s*(\d{1,2})\s*)?\]/gu;
const JOINED = /\{[^{}]*\}/g;

/** The pieces that a text names; refused where a bus is not there, or has no such bits. */
export function piecesIn(sheet: Sheet, text: string): Result<Pieces> {
  const found = new Map<string, Piece>();
  for (const [said, name = '', first = '', second = first] of text.matchAll(BITS)) {
    if (labelled(sheet, said)) continue;
    const source = sourceNamed(sheet, name);
    const [high, low] = [Math.max(Number(first), Number(second)), Math.min(Number(first), Number(second))];
    if (!source && low === 0 && high > 0 && high < MOST_BITS) {
      found.set(said, { is: 'bits', of: name, width: high + 1, high, low, isNew: true });
      continue;
    }
    if (!source)
      return refused(
        'no-such-bus',
        `nothing is called ${name} on this sheet: place it first, as in sw 8 ${name}`,
      );
    const width = widthAt(sheet, source);
    if (high >= width)
      return refused(
        'no-such-bit',
        `${name} has ${counted(width, 'bit')}: ${width === 1 ? 'bit 0' : `from ${width - 1} down to 0`}`,
      );
    found.set(said, { is: 'bits', of: name, width, high, low, isNew: false });
  }
  for (const [said] of text.matchAll(JOINED)) {
    const of = said
      .slice(1, -1)
      .split(',')
      .map((t) => t.trim())
      .filter(Boolean);
    if (of.length < 2) continue;
    const widths: number[] = [];
    for (const name of of) {
      const piece = found.get(name);
      const source = sourceNamed(sheet, name);
      if (!piece && !source)
        return refused('no-such-name', `nothing is called ${name} on this sheet, so it cannot be joined`);
      widths.push(piece ? pieceWidth(piece) : widthAt(sheet, source!));
    }
    const total = widths.reduce((a, b) => a + b, 0);
    if (total > MOST_BITS)
      return refused('too-wide', `${said} would have ${total} bits; ${MOST_BITS} is the most`);
    found.set(said, { is: 'joined', of, widths });
  }
  return done(found);
}
