import FlatQueue from 'flatqueue';
import type { Part } from '../../circuit/sheet';
import { kindOf, roleOf } from '../../parts/catalogue';
import { STORING } from './rows';

/*
 * In which column each part of a sheet stands that is laid out from left to right. Parts are known by their numbers.
 */

/** A list for each part, as compressed rows: part i has the entries from `start[i]` up to `start[i + 1]`. */
export interface Adjacency {
  readonly start: Int32Array;
  readonly list: Int32Array;
}

/** Drivers (`before`) and readers (`after`) of each part, one entry for each wire. */
export interface Flow {
  readonly before: Adjacency;
  readonly after: Adjacency;
}

/** Groups values by owner, keeping their order. */
export function adjacency(owners: number, owner: Int32Array, value: Int32Array): Adjacency {
  const start = new Int32Array(owners + 1);
  for (const one of owner) start[one + 1]!++;
  for (let i = 0; i < owners; i++) start[i + 1]! += start[i]!;
  const next = start.slice();
  const list = new Int32Array(owner.length);
  for (let i = 0; i < owner.length; i++) list[next[owner[i]!]!++] = value[i]!;
  return { start, list };
}

const lengthOf = ({ start }: Adjacency, i: number) => start[i + 1]! - start[i]!;

/**
 * The column of each part, from 0; columns may be empty. Inputs come first, then each part behind the parts that it reads,
 * outputs last. A gate that fits several columns goes where most gates of its kind are: product terms line up, and so do the
 * gates that combine them. Inverters of inputs stand beside the inputs.
 */
export function assignColumns(parts: readonly Part[], flow: Flow): Int32Array {
  const column = byLongestPath(parts, flow);
  let last = 0;
  for (const one of column) last = Math.max(last, one);
  for (const [i, part] of parts.entries()) if (roleOf(part)?.role === 'output') column[i] = last;
  align(parts, flow, column);
  return column;
}

/** How many parts stand before each at least: the longest path from an input; loops are broken, at storage first. */
function byLongestPath(parts: readonly Part[], { before, after }: Flow): Int32Array {
  const count = parts.length;
  const column = new Int32Array(count).fill(-1);
  const waits = Int32Array.from(parts, (_, i) => lengthOf(before, i));
  const isDone = new Uint8Array(count);
  const ready: number[] = [];
  for (let i = 0; i < count; i++)
    if (waits[i] === 0) {
      ready.push(i);
      column[i] = 0;
    }
  // A loop is broken at storage, or where something comes in, or at the part that waits for the fewest.
  const worth = (i: number) => {
    const stores = STORING.has(kindOf(parts[i]!).family);
    return ((stores ? 0 : 1e7) + (column[i] === -1 ? 1e6 : 0) + waits[i]!) * count + i;
  };
  /** Parts by their worth, once there is a loop; entries that were overtaken by better ones are passed over. */
  let open: FlatQueue<number> | null = null;
  const breakLoop = () => {
    if (!open) {
      open = new FlatQueue<number>();
      for (let i = 0; i < count; i++) if (!isDone[i]) open.push(i, worth(i));
    }
    let next = open.pop()!;
    while (isDone[next]) next = open.pop()!;
    waits[next] = 0;
    return next;
  };
  for (let at = 0, left = count; left > 0; at++) {
    if (at === ready.length) ready.push(breakLoop());
    const part = ready[at]!;
    if (isDone[part]) continue;
    isDone[part] = 1;
    left--;
    const own = Math.max(0, column[part]!);
    column[part] = own;
    for (let i = after.start[part]!; i < after.start[part + 1]!; i++) {
      const reader = after.list[i]!;
      if (isDone[reader]) continue;
      column[reader] = Math.max(column[reader]!, own + 1);
      waits[reader]!--;
      (open as FlatQueue<number> | null)?.push(reader, worth(reader));
      if (waits[reader] === 0) ready.push(reader);
    }
  }
  return column;
}

/** Moves gates, constants and what takes bits off a bus to the right where there is room before their readers. */
function align(parts: readonly Part[], { before, after }: Flow, column: Int32Array): void {
  const roles = parts.map((part) => roleOf(part)?.role);
  const isGate = parts.map((part) => kindOf(part).isGate === true);
  /** The first column in which a reader stands behind a part; infinity without one. */
  const firstReader = (part: number) => {
    let first = Number.POSITIVE_INFINITY;
    for (let i = after.start[part]!; i < after.start[part + 1]!; i++) {
      const at = column[after.list[i]!]!;
      if (at > column[part]!) first = Math.min(first, at);
    }
    return first;
  };
  const some = ({ start, list }: Adjacency, part: number, holds: (other: number) => boolean) => {
    for (let i = start[part]!; i < start[part + 1]!; i++) if (holds(list[i]!)) return true;
    return false;
  };
  /** Whether all wires to a part come from one other. */
  const inverts = parts.map((_, part) => {
    const first = before.list[before.start[part]!];
    return lengthOf(before, part) > 0 && !some(before, part, (other) => other !== first);
  });
  const readsInput = (part: number) => some(before, part, (other) => roles[other] === 'input');
  // How many of each kind stand in each column; what inverts is a kind of its own.
  const kinds = new Map<string, [Int32Array | null, Int32Array | null]>();
  const columns = column.reduce((most, one) => Math.max(most, one), 0) + 1;
  const crowdOf = (part: number): Int32Array => {
    const { kind } = parts[part]!;
    let both = kinds.get(kind);
    if (!both) {
      both = [null, null];
      kinds.set(kind, both);
    }
    const which = inverts[part] ? 1 : 0;
    both[which] ??= new Int32Array(columns);
    return both[which];
  };
  // From right to left: the readers of a gate already have their columns.
  const gates: number[] = [];
  for (let part = 0; part < parts.length; part++) if (isGate[part]) gates.push(part);
  gates.sort((a, b) => column[b]! - column[a]!);
  for (const gate of gates) crowdOf(gate)[column[gate]!]!++;
  for (const gate of gates) {
    const first = firstReader(gate);
    if (first === Number.POSITIVE_INFINITY || (inverts[gate] && readsInput(gate))) continue;
    const own = column[gate]!;
    const crowd = crowdOf(gate);
    crowd[own]!--;
    const only = !some(after, gate, (reader) => column[reader]! > own && roles[reader] !== 'output');
    // Among columns with equally many of its kind, a term stands next to its reader, a last gate next to its
    // inputs.
    let [best, most] = [own, -1];
    for (let at = own; at < first; at++) {
      const there = crowd[at]!;
      if (there > most || (there === most && !only)) [best, most] = [at, there];
    }
    crowd[best]!++;
    column[gate] = best;
  }
  // One bus runs along, and its bits leave it where they are read.
  const isTap = (part: number) => kindOf(parts[part]!).family === 'Wiring' && lengthOf(before, part) === 1;
  for (let part = 0; part < parts.length; part++) {
    if (roles[part] !== 'constant' && !isTap(part)) continue;
    const first = firstReader(part);
    if (first !== Number.POSITIVE_INFINITY) column[part] = first - 1;
  }
}
