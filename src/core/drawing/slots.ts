import { isPinEnd, type Part, type Sheet } from '../circuit/lesson';
import { roleOf } from '../parts/catalogue';
import { footprintOf, pinOf } from './placement';

/** A place in a column: for a part, or for a signal that passes the column on its way. Lengths are in grid steps. */
export interface Slot {
  readonly part: Part | null;
  /** How far it reaches above and below its own height. */
  readonly above: number;
  readonly below: number;
  /** Its place in the column, from 0. */
  at: number;
  /** Its height on the sheet. */
  y: number;
}

/** A stretch of a signal from one column to the next; `fromAt` and `toAt` are heights of its ends within the slots. */
export interface Link {
  readonly from: Slot;
  readonly fromAt: number;
  readonly to: Slot;
  readonly toAt: number;
  /** How much it counts that it runs straight. */
  readonly weight: number;
}

/** Columns of slots, and what leads from each column to the next. */
export interface Slots {
  readonly isCoarse: boolean;
  /**
   * For each wire whose pins face each other over the columns between them the links from its left to its right end;
   * none where it is coarse.
   */
  readonly ways: ReadonlyMap<string, readonly Link[]>;
  readonly columns: Slot[][];
  readonly links: readonly (readonly Link[])[];
}

/** A signal that runs past many parts matters more than one between two neighbours. */
const PASSING = 4;
const BEGINNING = 2;
/** What leaves the sheet should do so straight from what gives it, and crossed by little: it counts as much. */
export const LEAVING = 3;

/**
 * Slots for parts that stand in columns, and for the signals between them: what passes a column has a slot there.
 * @param isCoarse whether signals have no slots of their own, and lead from part to part: enough for a large sheet.
 */
export function slotsOf(sheet: Sheet, parts: readonly (readonly Part[])[], isCoarse: boolean): Slots {
  const columns = parts.map((column) =>
    column.map((part, at): Slot => {
      const box = footprintOf({ ...part, at: { x: 0, y: 0 }, turn: 0 });
      return { part, above: Math.ceil(-box.y0), below: Math.ceil(box.y1), at, y: 0 };
    }),
  );
  const links: Link[][] = columns.map(() => []);
  const slotOf = new Map<string, { slot: Slot; column: number }>();
  for (const [column, slots] of columns.entries())
    for (const slot of slots) slotOf.set(slot.part!.id, { slot, column });
  const passes = new Map<string, { readonly slot: Slot; readonly link: Link }>();
  const ways = new Map<string, Link[]>();
  for (const wire of sheet.wires.values()) {
    if (!isPinEnd(wire.from) || !isPinEnd(wire.to)) continue;
    const ends = [wire.from, wire.to].map((end) => {
      const part = sheet.parts.get(end.part)!;
      const pin = pinOf(sheet, end.part, end.port);
      const { slot, column } = slotOf.get(end.part)!;
      const y = pin && pin.at.y - part.at.y;
      return pin && { key: `${end.part} ${end.port}`, slot, column, y: y!, facing: pin.out.x };
    });
    const [a, b] = ends;
    if (!a || !b || a.column === b.column) continue;
    const [from, to] = a.column < b.column ? [a, b] : [b, a];
    let [slot, y] = [from.slot, from.y];
    const way: Link[] = [];
    for (let column = isCoarse ? to.column : from.column + 1; column < to.column; column++) {
      const key = `${from.key} ${column}`;
      let pass = passes.get(key);
      if (!pass) {
        const next: Slot = { part: null, above: 0, below: 0, at: columns[column]!.length, y: 0 };
        const weight = slot.part ? BEGINNING : PASSING;
        pass = { slot: next, link: { from: slot, fromAt: y, to: next, toAt: 0, weight } };
        passes.set(key, pass);
        columns[column]!.push(next);
        links[column - 1]!.push(pass.link);
      }
      way.push(pass.link);
      [slot, y] = [pass.slot, 0];
    }
    const last: Link = {
      from: slot,
      fromAt: y,
      to: to.slot,
      toAt: to.y,
      weight: isOrdered(to.slot) ? LEAVING : slot.part ? 1 : BEGINNING,
    };
    links[to.column - 1]!.push(last);
    if (!isCoarse && from.facing === 1 && to.facing === -1) ways.set(wire.id, [...way, last]);
  }
  return { columns, links, ways, isCoarse };
}

/** The links that lead to each slot, and those that lead on from it. */
export interface Beside {
  readonly before: ReadonlyMap<Slot, readonly Link[]>;
  readonly after: ReadonlyMap<Slot, readonly Link[]>;
}

export function besideOf({ columns, links }: Slots): Beside {
  const before = new Map<Slot, Link[]>();
  const after = new Map<Slot, Link[]>();
  for (const slot of columns.flat()) {
    before.set(slot, []);
    after.set(slot, []);
  }
  for (const link of links.flat()) {
    before.get(link.to)!.push(link);
    after.get(link.from)!.push(link);
  }
  return { before, after };
}

/** Inputs and outputs keep their declared order. */
export const isOrdered = ({ part }: Slot): boolean => {
  const role = part && roleOf(part)?.role;
  return role === 'input' || role === 'output';
};
