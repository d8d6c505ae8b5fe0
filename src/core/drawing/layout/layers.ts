import { isPinEnd, type Part, type Sheet } from '../../circuit/sheet';
import { localPinOf } from '../geometry/placement';
import { type Adjacency, adjacency, assignColumns } from './columns';
import { type Flow, flowAlong, type PartRow } from './rows';

/** @param without pins that do not count. */
export function flowOf(sheet: Sheet, without?: (part: Part, port: string) => boolean): Flow {
  const before = new Map<string, string[]>();
  const after = new Map<string, string[]>();
  const add = (map: Map<string, string[]>, key: string, value: string) => {
    const list = map.get(key);
    if (list) list.push(value);
    else map.set(key, [value]);
  };
  for (const { from, to } of sheet.wires.values()) {
    if (!isPinEnd(from) || !isPinEnd(to)) continue;
    const driver = sheet.parts.get(from.part);
    const out = driver && localPinOf(driver, from.port)?.port.direction === 'out';
    const [a, b] = out ? [from.part, to.part] : [to.part, from.part];
    const reader = out ? to : from;
    if (without?.(sheet.parts.get(reader.part)!, reader.port)) continue;
    add(after, a, b);
    add(before, b, a);
  }
  return { before, after };
}

/**
 * The parts of a sheet column by column, from left to right; see `assignColumns`.
 * @param rows parts that follow one another in one row, each in a column of its own.
 */
export function layersOf(sheet: Sheet, rows: readonly PartRow[] = []): Part[][] {
  const parts = [...sheet.parts.values()];
  const numbers = new Map(parts.map(({ id }, i) => [id, i]));
  const near = flowAlong(sheet, flowOf(sheet), rows);
  const lists = (map: Flow['after']): Adjacency => {
    const pairs = [...map].flatMap(([id, others]) =>
      others.map((other) => [numbers.get(id)!, numbers.get(other)!]),
    );
    return adjacency(
      parts.length,
      Int32Array.from(pairs, (pair) => pair[0]!),
      Int32Array.from(pairs, (pair) => pair[1]!),
    );
  };
  const columnOf = assignColumns(parts, { before: lists(near.before), after: lists(near.after) });
  const columns: Part[][] = [];
  for (const [i, part] of parts.entries()) {
    columns[columnOf[i]!] ??= [];
    columns[columnOf[i]!]!.push(part);
  }
  return columns.filter((column) => column !== undefined);
}
