import { type Point, simplified } from '../../circuit/geometry';
import type { PinEnd, Sheet, Wire } from '../../circuit/sheet';
import { pinOf } from '../geometry/placement';

/*
 * Wires that cannot run from column to column, because they lead back or are refused there, over rails above the drawing: each
 * signal goes up beside its driver, along a rail of its own, and down beside the columns of its readers. Nothing is searched, so
 * that thousands are laid at once.
 */

/** A wire over a rail, with the columns of its ends. */
interface Railed {
  readonly wire: Wire;
  readonly driver: PinEnd;
  readonly reader: PinEnd;
  readonly signal: string;
  readonly rises: number;
  readonly drops: number;
}

/** Rails for some wires of a sheet. */
export interface Rails {
  /** Lines that go up beside each column, on its right, and lines that come down before it, on its left. */
  readonly risesBeside: (column: number) => number;
  readonly dropsBefore: (column: number) => number;
  /**
   * The course of a wire; null for one that is on no rail.
   * @param riseAt the x of the first line beside a column.
   * @param dropAt the x of the first line before a column.
   * @param top the y above which nothing stands.
   */
  courseOf(
    wire: Wire,
    placed: Sheet,
    where: {
      readonly riseAt: (column: number) => number;
      readonly dropAt: (column: number) => number;
      readonly top: number;
    },
  ): Point[] | null;
}

/** Grid steps between the drawing and the lowest rail, and from rail to rail. */
const ABOVE = 3;
const APART = 2;

/** The driver and the reader of a wire whose driver looks to the right and its reader to the left; else null. */
function facing(sheet: Sheet, { from, to }: Wire): readonly [PinEnd, PinEnd] | null {
  if (!('part' in from) || !('part' in to)) return null;
  const outs = [from, to].map((end) => pinOf(sheet, end.part, end.port)?.out);
  if (outs[0]?.x === 1 && outs[1]?.x === -1) return [from, to];
  return outs[0]?.x === -1 && outs[1]?.x === 1 ? [to, from] : null;
}

/** Rails for wires. @param columnOf the column of each part. */
export function railsFor(sheet: Sheet, wires: readonly Wire[], columnOf: ReadonlyMap<string, number>): Rails {
  const railed = new Map<string, Railed>();
  for (const wire of wires) {
    const ends = facing(sheet, wire);
    if (!ends) continue;
    const [driver, reader] = ends;
    railed.set(wire.id, {
      wire,
      driver,
      reader,
      signal: `${driver.part} ${driver.port}`,
      rises: columnOf.get(driver.part)!,
      drops: columnOf.get(reader.part)!,
    });
  }
  const rails = new Map<string, number>();
  const lines = {
    rises: new Map<number, Map<string, number>>(),
    drops: new Map<number, Map<string, number>>(),
  };
  const lineOf = (of: 'rises' | 'drops', one: Railed) => {
    const own = lines[of].get(one[of]) ?? new Map<string, number>();
    lines[of].set(one[of], own);
    if (!own.has(one.signal)) own.set(one.signal, own.size);
    return own.get(one.signal)!;
  };
  for (const one of railed.values()) {
    if (!rails.has(one.signal)) rails.set(one.signal, rails.size);
    lineOf('rises', one);
    lineOf('drops', one);
  }
  return {
    risesBeside: (column) => lines.rises.get(column)?.size ?? 0,
    dropsBefore: (column) => lines.drops.get(column)?.size ?? 0,
    courseOf(wire, placed, { riseAt, dropAt, top }) {
      const one = railed.get(wire.id);
      if (!one) return null;
      const [from, to] = [one.driver, one.reader].map((end) => pinOf(placed, end.part, end.port)!.at);
      const up = riseAt(one.rises) + lineOf('rises', one);
      const down = dropAt(one.drops) + lineOf('drops', one);
      const rail = top - ABOVE - APART * rails.get(one.signal)!;
      const points = simplified([
        from!,
        { x: up, y: from!.y },
        { x: up, y: rail },
        { x: down, y: rail },
        { x: down, y: to!.y },
        to!,
      ]);
      if (one.driver !== wire.from) points.reverse();
      return points.slice(1, -1);
    },
  };
}
