import { remembers } from '../parts/primitive';
import type { Netlist } from './netlist';

/** Gates as they lie in typed arrays, before they are ordered. */
export type GateArrays = Pick<Netlist, 'nets' | 'op' | 'out' | 'inStart' | 'ins' | 'fanStart' | 'fan'>;

/** Readers of each net as compressed rows, by counting. */
export function fanOut(nets: number, inStart: Int32Array, ins: Int32Array) {
  const fanStart = new Int32Array(nets + 1);
  for (let i = 0; i < ins.length; i++) fanStart[ins[i]! + 1]!++;
  for (let n = 0; n < nets; n++) fanStart[n + 1]! += fanStart[n]!;
  const next = fanStart.slice();
  const fan = new Int32Array(ins.length);
  for (let g = 0; g + 1 < inStart.length; g++)
    for (let i = inStart[g]!; i < inStart[g + 1]!; i++) fan[next[ins[i]!]!++] = g;
  return { fanStart, fan };
}

/** Kahn's topological order (1962) over the gates that remember nothing. */
export function levelled({ nets, op, out, inStart, ins, fanStart, fan }: GateArrays) {
  const gates = op.length;
  const driven = new Uint8Array(nets);
  let remembering = 0;
  for (let g = 0; g < gates; g++)
    if (remembers(op[g]!)) remembering++;
    else driven[out[g]!] = 1;
  const waits = new Int32Array(gates);
  const level = new Int32Array(gates);
  const order = new Int32Array(gates - remembering);
  const storage = new Int32Array(remembering);
  let ordered = 0;
  let stored = 0;
  for (let g = 0; g < gates; g++) {
    if (remembers(op[g]!)) {
      storage[stored++] = g;
      continue;
    }
    for (let i = inStart[g]!; i < inStart[g + 1]!; i++) waits[g]! += driven[ins[i]!]!;
    if (waits[g] === 0) {
      level[g] = 1;
      order[ordered++] = g;
    }
  }
  for (let at = 0; at < ordered; at++) {
    const g = order[at]!;
    const net = out[g]!;
    for (let f = fanStart[net]!; f < fanStart[net + 1]!; f++) {
      const reader = fan[f]!;
      if (remembers(op[reader]!)) continue;
      if (level[reader]! <= level[g]!) level[reader] = level[g]! + 1;
      if (--waits[reader]! === 0) order[ordered++] = reader;
    }
  }
  const looped = new Int32Array(order.length - ordered);
  let loops = 0;
  for (let g = 0; g < gates; g++)
    if (!remembers(op[g]!) && waits[g]! > 0) {
      looped[loops++] = g;
      level[g] = 0;
    }
  return { order: order.subarray(0, ordered), level, storage, looped };
}

/** Of gates on or behind a loop, those that lie on one: the others are peeled off from behind. */
export function onLoops(
  { nets, out, inStart, ins, fanStart, fan }: GateArrays,
  looped: Int32Array,
): number[] {
  const rest = new Set(looped);
  const driver = new Int32Array(nets).fill(-1);
  const readers = new Map<number, number>();
  for (const g of looped) driver[out[g]!] = g;
  const done: number[] = [];
  for (const g of looped) {
    let count = 0;
    for (let f = fanStart[out[g]!]!; f < fanStart[out[g]! + 1]!; f++) if (rest.has(fan[f]!)) count++;
    readers.set(g, count);
    if (count === 0) done.push(g);
  }
  for (let g = done.pop(); g !== undefined; g = done.pop()) {
    rest.delete(g);
    for (let i = inStart[g]!; i < inStart[g + 1]!; i++) {
      const d = driver[ins[i]!]!;
      if (d === -1 || !rest.has(d)) continue;
      const left = readers.get(d)! - 1;
      readers.set(d, left);
      if (left === 0) done.push(d);
    }
  }
  return [...rest];
}

/**
 * The longest way through a sheet without storage, counted in the parts that are drawn on it: a gate, an adder or a block
 * counts one, however much is inside.
 */
export function drawnLevels(netlist: Netlist): number {
  const { order, owner, out, inStart, ins } = netlist;
  const roots = new Map<number, string>();
  const rootOf = (gate: number) => {
    const own = owner[gate]!;
    let root = roots.get(own);
    if (root === undefined) {
      root = netlist.partName(own).split('/')[0]!;
      roots.set(own, root);
    }
    return root;
  };
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (const g of order) driver[out[g]!] = g;
  const level = new Int32Array(netlist.op.length);
  let most = 0;
  for (const g of order) {
    let deepest = 1;
    for (let i = inStart[g]!; i < inStart[g + 1]!; i++) {
      const before = driver[ins[i]!]!;
      if (before === -1) continue;
      deepest = Math.max(deepest, level[before]! + (rootOf(before) === rootOf(g) ? 0 : 1));
    }
    level[g] = deepest;
    most = Math.max(most, deepest);
  }
  return most;
}
