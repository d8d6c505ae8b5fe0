import { isPinEnd, type Part, type Sheet } from '../../circuit/sheet';
import { kindOf, roleOf, sheetIdInside } from '../../parts/catalogue';
import { naturalOrder } from '../../values/natural-order';
import { pinOf } from '../geometry/placement';

/*
 * Parts that a textbook draws in one row: the flip-flops of a counter or a shift register along their clock, and blocks
 * through which a carry runs.
 */

/** The families of parts that remember. */
export const STORING: ReadonlySet<string> = new Set(['Storage', 'Registers']);
/** Longer rows are no help to the eye, and sheets with more parts are unreadable. */
const LONGEST_ROW = 16;
const MOST_PARTS = 400;

/** Parts that drive a part, and those that it drives, by its id; each as often as there are wires. */
export interface Flow {
  readonly before: ReadonlyMap<string, readonly string[]>;
  readonly after: ReadonlyMap<string, readonly string[]>;
}

/** Parts in a row, from left to right. */
export interface PartRow {
  readonly parts: readonly string[];
  /** The pin that clocks several of them, as `part port`; null where there is none. */
  readonly clock: string | null;
}

const stores = (part: Part | undefined) => part !== undefined && STORING.has(kindOf(part).family);

/** Whether a pin of storage acts at once, as a clear does: no data flows in there. */
export const isAtOnce = (part: Part, port: string): boolean => stores(part) && /^(CLR|PRE)/.test(port);

/** The rows of a sheet; none of a large one. @param flow without the pins that act at once. */
export function rowsOf(sheet: Sheet, flow: Flow): readonly PartRow[] {
  if (sheet.parts.size > MOST_PARTS) return [];
  return [...storageRows(sheet, flow), ...carryRows(sheet, flow)];
}

/** The storage that is reached from a part through gates alone. */
function reached(sheet: Sheet, from: string, next: Flow['after']): string[] {
  const found = new Set<string>();
  const seen = new Set<string>();
  const todo = [...(next.get(from) ?? [])];
  for (let id = todo.pop(); id !== undefined; id = todo.pop()) {
    if (seen.has(id)) continue;
    seen.add(id);
    if (stores(sheet.parts.get(id))) found.add(id);
    else todo.push(...(next.get(id) ?? []));
  }
  return [...found];
}

/** Storage that hangs together by its data, in an order in which most of it runs forward. */
function storageRows(sheet: Sheet, { after }: Flow): PartRow[] {
  const storage = [...sheet.parts.values()].filter(stores).sort((a, b) => naturalOrder(a.label, b.label));
  const leadsTo = new Map(
    storage.map(({ id }) => [id, new Set(reached(sheet, id, after).filter((other) => other !== id))]),
  );
  const rows: PartRow[] = [];
  const taken = new Set<string>();
  for (const { id } of storage) {
    if (taken.has(id)) continue;
    const group = new Set([id]);
    for (const one of group)
      for (const [a, onto] of leadsTo)
        if (a === one) for (const b of onto) group.add(b);
        else if (onto.has(one)) group.add(a);
    for (const one of group) taken.add(one);
    if (group.size < 2 || group.size > LONGEST_ROW) continue;
    const members = storage.map((part) => part.id).filter((one) => group.has(one));
    rows.push({ parts: forward(members, leadsTo), clock: clockOf(sheet, group) });
  }
  return rows;
}

/**
 * An order in which few edges run back (Eades, Lin and Smyth, 1993, "A fast and effective heuristic for the feedback arc
 * set problem"); among equals as given.
 */
function forward(members: readonly string[], leadsTo: ReadonlyMap<string, ReadonlySet<string>>): string[] {
  const rest = [...members];
  const head: string[] = [];
  const tail: string[] = [];
  const out = (id: string) => rest.filter((other) => leadsTo.get(id)!.has(other)).length;
  const into = (id: string) => rest.filter((other) => leadsTo.get(other)!.has(id)).length;
  const take = (id: string) => void rest.splice(rest.indexOf(id), 1);
  while (rest.length > 0) {
    const sink = rest.findLast((id) => out(id) === 0);
    const source = rest.find((id) => into(id) === 0);
    if (source !== undefined) {
      head.push(source);
      take(source);
    } else if (sink !== undefined) {
      tail.unshift(sink);
      take(sink);
    } else {
      const best = rest.reduce((a, b) => (out(b) - into(b) > out(a) - into(a) ? b : a));
      head.push(best);
      take(best);
    }
  }
  return [...head, ...tail];
}

/** The pin that drives the clocks of most of a group; null where no pin drives two. */
function clockOf(sheet: Sheet, group: ReadonlySet<string>): string | null {
  const counts = new Map<string, number>();
  for (const { from, to } of sheet.wires.values()) {
    if (!isPinEnd(from) || !isPinEnd(to)) continue;
    for (const [at, other] of [
      [to, from],
      [from, to],
    ] as const) {
      const isDriver = pinOf(sheet, other.part, other.port)?.port.direction === 'out';
      if (!group.has(at.part) || at.port !== 'C' || !isDriver) continue;
      const key = `${other.part} ${other.port}`;
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most && most[1] > 1 ? most[0] : null;
}

/** Blocks of one sheet that each lead into the next, three or more. */
function carryRows(sheet: Sheet, { after }: Flow): PartRow[] {
  const inside = (id: string) => sheetIdInside(sheet.parts.get(id)!);
  const next = new Map<string, string>();
  const befores = new Map<string, number>();
  for (const { id } of sheet.parts.values()) {
    if (inside(id) === undefined) continue;
    const likes = [...new Set(after.get(id) ?? [])].filter((b) => b !== id && inside(b) === inside(id));
    for (const b of likes) befores.set(b, (befores.get(b) ?? 0) + 1);
    if (likes.length === 1) next.set(id, likes[0]!);
  }
  const rows: PartRow[] = [];
  for (const id of next.keys()) {
    if (befores.has(id)) continue;
    const parts = [id];
    for (let at = next.get(id); at !== undefined && befores.get(at) === 1; at = next.get(at)) parts.push(at);
    if (parts.length > 2 && parts.length <= LONGEST_ROW) rows.push({ parts, clock: null });
  }
  return rows;
}

/**
 * The flow of a sheet as it is laid out: the members of a row follow one another, and what runs back along it is left out.
 * A gate stands before the first member that it leads to if anything comes to it from further left; else, as one that
 * clears a counter, behind the members that it reads.
 */
export function flowAlong(sheet: Sheet, flow: Flow, rows: readonly PartRow[]): Flow {
  if (rows.length === 0) return flow;
  const back = new Set<string>();
  const drop = (a: string, b: string) => back.add(`${a} ${b}`);
  for (const { parts } of rows) {
    const at = new Map(parts.map((id, i) => [id, i]));
    const isGate = (id: string) => !stores(sheet.parts.get(id)) && roleOf(sheet.parts.get(id)!) === undefined;
    const onto = spread(parts, flow.before, isGate, Math.min);
    const first = spread(parts, flow.after, isGate, Math.min);
    const last = spread(parts, flow.after, isGate, Math.max);
    const fed = new Set(
      [...sheet.parts.keys()].filter((id) => isGate(id) && hasInput(sheet, id, flow.before, isGate)),
    );
    const isEarly = (id: string) => fed.has(id) || (first.get(id) ?? -1) < (onto.get(id) ?? -1);
    for (const [a, readers] of flow.after)
      for (const b of readers) {
        const [i, j] = [at.get(a), at.get(b)];
        const [goesTo, comesFrom] = [onto.get(b), last.get(a)];
        if (i !== undefined && j !== undefined) j <= i && drop(a, b);
        else if (i !== undefined && goesTo !== undefined) isEarly(b) && goesTo <= i && drop(a, b);
        else if (j !== undefined && comesFrom !== undefined) !isEarly(a) && j <= comesFrom && drop(a, b);
        else if (goesTo !== undefined && comesFrom !== undefined)
          !isEarly(a) && isEarly(b) && goesTo <= comesFrom && drop(a, b);
      }
  }
  const kept = (map: Flow['after'], key: (id: string, other: string) => string) =>
    new Map([...map].map(([id, list]) => [id, list.filter((other) => !back.has(key(id, other)))]));
  const after = kept(flow.after, (a, b) => `${a} ${b}`);
  const before = kept(flow.before, (b, a) => `${a} ${b}`);
  for (const { parts } of rows)
    for (const [i, id] of parts.entries()) {
      const prior = parts[i - 1];
      if (prior === undefined) continue;
      after.set(prior, [...(after.get(prior) ?? []), id]);
      before.set(id, [...(before.get(id) ?? []), prior]);
    }
  return { before, after };
}

/** For each gate the place in a row, by `choose` among several, to which the flow leads from it through gates. */
function spread(
  parts: readonly string[],
  next: Flow['after'],
  isGate: (id: string) => boolean,
  choose: (a: number, b: number) => number,
): Map<string, number> {
  const found = new Map<string, number>();
  for (const [place, id] of parts.entries()) {
    const seen = new Set<string>();
    const todo = [...(next.get(id) ?? [])];
    for (let gate = todo.pop(); gate !== undefined; gate = todo.pop()) {
      if (seen.has(gate) || !isGate(gate)) continue;
      seen.add(gate);
      found.set(gate, choose(found.get(gate) ?? place, place));
      todo.push(...(next.get(gate) ?? []));
    }
  }
  return found;
}

/** Whether an input of the sheet leads to a gate through gates alone. */
function hasInput(
  sheet: Sheet,
  id: string,
  before: Flow['before'],
  isGate: (id: string) => boolean,
): boolean {
  const seen = new Set<string>();
  const todo = [...(before.get(id) ?? [])];
  for (let at = todo.pop(); at !== undefined; at = todo.pop()) {
    if (seen.has(at)) continue;
    seen.add(at);
    if (roleOf(sheet.parts.get(at)!)?.role === 'input') return true;
    if (isGate(at)) todo.push(...(before.get(at) ?? []));
  }
  return false;
}
