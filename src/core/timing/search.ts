import type { Trace } from '../simulate/trace';
import { type Logic, ONE, ZERO } from '../values/logic';

/**
 * The target of a search on a lane: any change, an edge of its lowest bit, a value, or a pulse shorter than
 * so many ps.
 */
export type SearchTarget =
  | { readonly is: 'change' | 'rise' | 'fall' }
  | { readonly is: 'value'; readonly bits: readonly Logic[] }
  | { readonly is: 'pulse'; readonly shorter: number };

/** A change of a lane: its time, and the bits from then on. */
function* changesOf(
  trace: Trace,
  nets: readonly number[],
  from: number,
): Generator<{ time: number; bits: Logic[] }> {
  const bitOf = new Map(nets.map((net, bit) => [net, bit]));
  const bits = nets.map((net) => trace.valueAt(net, from));
  let at: number | null = null;
  for (const { time, net, value } of trace.changes(from, Number.POSITIVE_INFINITY)) {
    const bit = bitOf.get(net);
    if (bit === undefined || bits[bit] === value) continue;
    // All bits of one instant change together.
    if (at !== null && time > at) yield { time: at, bits: [...bits] };
    at = time;
    bits[bit] = value as Logic;
  }
  if (at !== null) yield { time: at, bits: [...bits] };
}

/**
 * The time in ps of the next match on some nets after `from`, or, going back, of the last one before it; null
 * if there is none.
 * @param nets the least significant first.
 */
export function search(
  trace: Trace,
  nets: readonly number[],
  wanted: SearchTarget,
  from: number,
  back = false,
): number | null {
  let last: number | null = null;
  let before: number | null = null;
  const begin = back ? trace.begins : wanted.is === 'pulse' ? trace.begins : from;
  for (const { time, bits } of changesOf(trace, nets, begin)) {
    const isHit =
      wanted.is === 'change' ||
      (wanted.is === 'rise' && bits[0] === ONE) ||
      (wanted.is === 'fall' && bits[0] === ZERO) ||
      (wanted.is === 'value' && bits.every((bit, i) => bit === (wanted.bits[i] ?? ZERO)));
    const hit =
      wanted.is === 'pulse'
        ? before !== null && time - before < wanted.shorter
          ? before
          : null
        : isHit
          ? time
          : null;
    before = time;
    if (hit === null) continue;
    if (!back && hit > from) return hit;
    if (back && hit >= from) return last;
    last = hit;
  }
  return back ? last : null;
}
