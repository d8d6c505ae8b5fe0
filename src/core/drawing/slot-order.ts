import { type Beside, besideOf, isOrdered, LEAVING, type Link, type Slot, type Slots } from './slots';

/** How often the columns are gone through, forth and back in turn. */
const SWEEPS = 12;
const COARSE_SWEEPS = 4;

/**
 * Orders the slots of each column so that few links cross: by the mean of their neighbours (Sugiyama, Tagawa and Toda,
 * 1981), and by swapping neighbours as long as that helps; a large sheet by the mean alone. Inputs and outputs keep
 * their order.
 */
export function orderSlots(slots: Slots): void {
  const { columns, links } = slots;
  for (const column of columns) {
    const ranked = column.filter(isOrdered).sort((a, b) => a.part!.rank - b.part!.rank);
    column.sort((a, b) => +isOrdered(b) - +isOrdered(a));
    column.splice(0, ranked.length, ...ranked);
    number(column);
  }
  const beside = besideOf(slots);
  const sortAll = (forth: boolean) => {
    for (const column of forth ? columns : [...columns].reverse())
      sortByMean(column, forth ? beside.before : beside.after, forth);
  };
  if (slots.isCoarse) {
    for (let sweep = 0; sweep < COARSE_SWEEPS; sweep++) sortAll(sweep % 2 === 0);
    return;
  }
  const worth = worthOf(beside);
  let best = columns.map((column) => [...column]);
  let least = crossings(links, worth);
  for (let sweep = 0; sweep < SWEEPS && least > 0; sweep++) {
    sortAll(sweep % 2 === 0);
    for (const column of columns) swapNeighbours(column, beside, worth);
    const now = crossings(links, worth);
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

/** How much each link matters where others cross it. */
type Worth = ReadonlyMap<Link, number>;

function worthOf({ after }: Beside): Worth {
  const worth = new Map<Link, number>();
  // The branches of one signal hang on one line down: what crosses that crosses it once.
  for (const list of after.values())
    for (const link of list) {
      const branches = list.filter((l) => l.fromAt === link.fromAt).length;
      worth.set(link, (isOrdered(link.to) ? LEAVING : 1) / branches);
    }
  return worth;
}

/** Where a link's end stands in its column: by the slot, and within it by the pin. */
const endAt = (slot: Slot, at: number) => slot.at + (at + slot.above + 1) / (slot.above + slot.below + 2) / 2;
const fromOf = (link: Link) => endAt(link.from, link.fromAt);
const toOf = (link: Link) => endAt(link.to, link.toAt);

function sortByMean(column: Slot[], near: ReadonlyMap<Slot, readonly Link[]>, forth: boolean): void {
  const mean = (slot: Slot) => {
    const links = near.get(slot)!;
    if (links.length === 0) return slot.at;
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

function swapNeighbours(column: Slot[], { before, after }: Beside, worth: Worth): void {
  for (let isBetter = true, round = 0; isBetter && round < column.length; round++) {
    isBetter = false;
    for (let i = 0; i + 1 < column.length; i++) {
      const [a, b] = [column[i]!, column[i + 1]!];
      if (isOrdered(a) && isOrdered(b)) continue;
      const left = inversions(before.get(a)!, before.get(b)!, fromOf, worth);
      const right = inversions(after.get(a)!, after.get(b)!, toOf, worth);
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
  upper: readonly Link[],
  lower: readonly Link[],
  endOf: (link: Link) => number,
  worth: Worth,
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
function crossings(links: Slots['links'], worth: Worth): number {
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
