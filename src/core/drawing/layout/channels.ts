import type { LayoutNode, Link } from './layout-nodes';

/*
 * Between two columns each signal that changes its height runs down or up one line, its track, on which all its
 * branches hang.
 */

/** Tracks for the links between two columns. */
export interface Channel {
  /** For each link of a signal that changes its height the track, from 0, the leftmost. */
  readonly tracks: ReadonlyMap<Link, number>;
  readonly count: number;
  /** Links that no order of tracks lets through: they would run along a foreign signal. */
  readonly refused: ReadonlySet<Link>;
}

/** A signal as it comes from the left at one height and goes on to the right at others. */
interface Signal {
  readonly y: number;
  readonly links: Link[];
  readonly low: number;
  readonly high: number;
  /** Signals that must have their tracks to the right of this one's, with the links for which they must. */
  readonly leftOf: Map<Signal, Link[]>;
}

const sourceY = ({ from, fromAt }: Link) => from.y + fromAt;
const targetY = ({ to, toAt }: Link) => to.y + toAt;

/**
 * Gives signals tracks such that none runs along another and few cross. Where one signal comes in at the height at
 * which another goes out, its track must lie to the left of the other's (the vertical constraints of channel routing:
 * Hashimoto and Stevens, 1971); within that order neighbours are swapped as long as that saves crossings, and signals
 * that do not meet share a track.
 * @param links between two columns, their nodes at their heights.
 */
export function channelOf(links: readonly Link[]): Channel {
  const signals = signalsOf(links);
  const refused = new Set<Link>();
  const order = sorted(constrained(signals), refused);
  swapNeighbours(order);
  const tracks = new Map<Link, number>();
  const trackOf = new Map<Signal, number>();
  let count = 0;
  for (const [i, signal] of order.entries()) {
    let track = 0;
    for (const other of order.slice(0, i))
      if (meet(other, signal) || other.leftOf.has(signal)) track = Math.max(track, trackOf.get(other)! + 1);
    trackOf.set(signal, track);
    count = Math.max(count, track + 1);
    for (const link of signal.links) tracks.set(link, track);
  }
  return { tracks, count, refused };
}

const meet = (a: Signal, b: Signal) => a.low <= b.high && b.low <= a.high;

/** The signals that change their height. */
function signalsOf(links: readonly Link[]): Signal[] {
  const groups = new Map<LayoutNode, Map<number, Link[]>>();
  for (const link of links) {
    const pins = groups.get(link.from) ?? new Map<number, Link[]>();
    groups.set(link.from, pins);
    pins.set(link.fromAt, [...(pins.get(link.fromAt) ?? []), link]);
  }
  const signals: Signal[] = [];
  for (const pins of groups.values())
    for (const list of pins.values()) {
      const y = sourceY(list[0]!);
      const heights = [y, ...list.map(targetY)];
      const [low, high] = [Math.min(...heights), Math.max(...heights)];
      if (low < high) signals.push({ y, links: list, low, high, leftOf: new Map() });
    }
  return signals.sort((a, b) => a.y - b.y);
}

function constrained(signals: Signal[]): Signal[] {
  const bySource = new Map(signals.map((s) => [s.y, s]));
  for (const signal of signals)
    for (const link of signal.links) {
      const other = bySource.get(targetY(link));
      if (!other || other === signal) continue;
      other.leftOf.set(signal, [...(other.leftOf.get(signal) ?? []), link]);
    }
  return signals;
}

/**
 * Signals in an order that keeps the constraints; in a cycle of constraints some are dropped and their links
 * refused.
 */
function sorted(signals: readonly Signal[], refused: Set<Link>): Signal[] {
  const waits = new Map(signals.map((s) => [s, 0]));
  for (const s of signals) for (const other of s.leftOf.keys()) waits.set(other, waits.get(other)! + 1);
  const rest = new Set(signals);
  const order: Signal[] = [];
  while (rest.size > 0) {
    const next = [...rest].reduce((best, s) => (waits.get(s)! < waits.get(best)! ? s : best));
    for (const other of rest) {
      const links = other.leftOf.get(next);
      if (!links) continue;
      for (const link of links) refused.add(link);
      other.leftOf.delete(next);
    }
    rest.delete(next);
    order.push(next);
    for (const other of next.leftOf.keys()) waits.set(other, waits.get(other)! - 1);
  }
  return order;
}

/** How many crossings two signals make where the track of the one lies to the left of that of the other. */
function crossings(left: Signal, right: Signal): number {
  const within = (y: number, s: Signal) => y > s.low && y < s.high;
  const out = left.links.reduce((sum, link) => sum + +within(targetY(link), right), 0);
  return out + +within(right.y, left);
}

function swapNeighbours(order: Signal[]): void {
  for (let isBetter = true, round = 0; isBetter && round < order.length; round++) {
    isBetter = false;
    for (let i = 0; i + 1 < order.length; i++) {
      const [a, b] = [order[i]!, order[i + 1]!];
      if (a.leftOf.has(b) || crossings(a, b) <= crossings(b, a)) continue;
      order[i] = b;
      order[i + 1] = a;
      isBetter = true;
    }
  }
}
