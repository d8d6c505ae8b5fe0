import { isOrdered, LEAVING, type Link, type Slot, type Slots } from './slots';

/** How often the columns are gone through, forth and back in turn. */
const SWEEPS = 12;
const COARSE_SWEEPS = 4;

/** The links at each slot: to what stands before it, and to what stands behind it; and how much each matters. */
interface Beside {
  readonly worth: ReadonlyMap<Link, number>;
  readonly before: ReadonlyMap<Slot, readonly Link[]>;
  readonly after: ReadonlyMap<Slot, readonly Link[]>;
}

/**
 * Orders the slots of each column so that few links cross: by the mean of their neighbours (Sugiyama, Tagawa and Toda,
 * 1981), and by swapping neighbours as long as that helps; a large sheet by the mean alone. Inputs and outputs keep
 * their order.
 */
export function orderSlots({ columns, links, isCoarse }: Slots): void {
  for (const column of columns) {
    const ranked = column.filter(isOrdered).sort((a, b) => a.part!.rank - b.part!.rank);
    column.sort((a, b) => +isOrdered(b) - +isOrdered(a));
    column.splice(0, ranked.length, ...ranked);
    number(column);
  }
  const beside = besideOf(links);
  const sortAll = (forth: boolean) => {
    for (const column of forth ? columns : [...columns].reverse())
      sortByMean(column, forth ? beside.before : beside.after, forth);
  };
  if (isCoarse) {
    for (let sweep = 0; sweep < COARSE_SWEEPS; sweep++) sortAll(sweep % 2 === 0);
    return;
  }
  let best = columns.map((column) => [...column]);
  let least = crossings(links, beside.worth);
  for (let sweep = 0; sweep < SWEEPS && least > 0; sweep++) {
    sortAll(sweep % 2 === 0);
    for (const column of columns) swapNeighbours(column, beside);
    const now = crossings(links, beside.worth);
    if (now >= least) continue;
    least = now;
    best = columns.map((column) => [...column]);
  }
  for (const [i, column] of best.entries()) {
    columns[i]!.splice(0, column.length, ...column);
    number(columns[i]!);
  }
}

function number(column: readonly Slot[]): void {
  for (const [at, slot] of column.entries()) slot.at = at;
}

function besideOf(links: Slots['links']): Beside {
  const before = new Map<Slot, Link[]>();
  const after = new Map<Slot, Link[]>();
  const worth = new Map<Link, number>();
  const add = (map: Map<Slot, Link[]>, slot: Slot, link: Link) => {
    const list = map.get(slot);
    if (list) list.push(link);
    else map.set(slot, [link]);
  };
  for (const gap of links)
    for (const link of gap) {
      add(after, link.from, link);
      add(before, link.to, link);
    }
  // The branches of one signal hang on one line down: what crosses that crosses it once.
  for (const list of after.values())
    for (const link of list) {
      const branches = list.filter((l) => l.fromAt === link.fromAt).length;
      worth.set(link, (isOrdered(link.to) ? LEAVING : 1) / branches);
    }
  return { before, after, worth };
}

/** Where a link's end stands in its column: by the slot, and within it by the pin. */
const endAt = (slot: Slot, at: number) => slot.at + (at + slot.above + 1) / (slot.above + slot.below + 2) / 2;
const fromOf = (link: Link) => endAt(link.from, link.fromAt);
const toOf = (link: Link) => endAt(link.to, link.toAt);

function sortByMean(column: Slot[], near: ReadonlyMap<Slot, readonly Link[]>, forth: boolean): void {
  const mean = (slot: Slot) => {
    const links = near.get(slot);
    if (!links) return slot.at;
    return links.reduce((sum, link) => sum + (forth ? fromOf(link) : toOf(link)), 0) / links.length;
  };
  const means = new Map(column.map((slot) => [slot, mean(slot)]));
  const ordered = column.filter(isOrdered);
  column.sort((a, b) => means.get(a)! - means.get(b)! || a.at - b.at);
  // Those with an order of their own fill in that order the places that they have got.
  let next = 0;
  for (const [i, slot] of column.entries()) if (isOrdered(slot)) column[i] = ordered[next++]!;
  number(column);
}

function swapNeighbours(column: Slot[], { before, after, worth }: Beside): void {
  for (let isBetter = true, round = 0; isBetter && round < column.length; round++) {
    isBetter = false;
    for (let i = 0; i + 1 < column.length; i++) {
      const [a, b] = [column[i]!, column[i + 1]!];
      if (isOrdered(a) && isOrdered(b)) continue;
      const left = inversions(before.get(a), before.get(b), fromOf, worth);
      const right = inversions(after.get(a), after.get(b), toOf, worth);
      if (left.now + right.now < left.swapped + right.swapped + 1e-9) continue;
      column[i] = b;
      column[i + 1] = a;
      b.at = i;
      a.at = i + 1;
      isBetter = true;
    }
  }
}

/** Crossings of the links of two neighbours on one side, as they stand and swapped. */
function inversions(
  upper: readonly Link[] = [],
  lower: readonly Link[] = [],
  endOf: (link: Link) => number,
  worth: ReadonlyMap<Link, number>,
): { now: number; swapped: number } {
  let [now, swapped] = [0, 0];
  for (const a of upper)
    for (const b of lower) {
      const [x, y] = [endOf(a), endOf(b)];
      const counts = worth.get(a)! * worth.get(b)!;
      if (x > y) now += counts;
      else if (x < y) swapped += counts;
    }
  return { now, swapped };
}

/** How many pairs of links cross, each counted by what the two are worth; links from one pin do not cross. */
function crossings(links: Slots['links'], worth: ReadonlyMap<Link, number>): number {
  let count = 0;
  for (const gap of links) {
    const ends = gap
      .map((link) => ({ from: fromOf(link), to: toOf(link), worth: worth.get(link)! }))
      .sort((a, b) => a.from - b.from || a.to - b.to);
    for (const [i, a] of ends.entries())
      for (const b of ends.slice(i + 1)) if (b.from > a.from && b.to < a.to) count += a.worth * b.worth;
  }
  return count;
}
