import type { Box } from '../../circuit/geometry';

/** Edge of a cell in grid steps: the visible part of a sheet at ordinary scale covers about a dozen cells. */
const TILE = 24;
const ROW = 1 << 16;
const MIDDLE = 1 << 15;

/** Objects by the square cells of the plane that they touch, so objects near a place are found at once. */
export class GridIndex<T> {
  private readonly tiles = new Map<number, Set<T>>();
  private readonly where = new Map<T, Set<number>>();

  /** Says that something touches a box; it may be said of several boxes. */
  add(thing: T, box: Box): void {
    let places = this.where.get(thing);
    if (!places) {
      places = new Set();
      this.where.set(thing, places);
    }
    for (const key of keys(box)) {
      if (places.has(key)) continue;
      places.add(key);
      const tile = this.tiles.get(key);
      if (tile) tile.add(thing);
      else this.tiles.set(key, new Set([thing]));
    }
  }

  /** Removes an object; does nothing if it is unknown. */
  remove(thing: T): void {
    for (const key of this.where.get(thing) ?? []) {
      const tile = this.tiles.get(key)!;
      tile.delete(thing);
      if (tile.size === 0) this.tiles.delete(key);
    }
    this.where.delete(thing);
  }

  /** The objects that share a cell with a box, each once. */
  near(box: Box): ReadonlySet<T> {
    const found = new Set<T>();
    for (const key of keys(box)) for (const thing of this.tiles.get(key) ?? []) found.add(thing);
    return found;
  }
}

/** How many tiles a box touches. */
export function cellCount(box: Box): number {
  const across = Math.floor(box.x1 / TILE) - Math.floor(box.x0 / TILE) + 1;
  return across * (Math.floor(box.y1 / TILE) - Math.floor(box.y0 / TILE) + 1);
}

function* keys(box: Box): Iterable<number> {
  for (let y = Math.floor(box.y0 / TILE); y <= Math.floor(box.y1 / TILE); y++)
    for (let x = Math.floor(box.x0 / TILE); x <= Math.floor(box.x1 / TILE); x++)
      yield (y + MIDDLE) * ROW + x + MIDDLE;
}
