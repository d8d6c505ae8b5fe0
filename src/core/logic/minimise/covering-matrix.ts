/*
 * Covering problems as flat lists, and how they are made smaller without losing a cheapest cover.
 */

/** `rows[r]` are the columns that cover row r; `cost[c]` is a whole number of at least 1. */
export interface Covering {
  readonly rows: readonly (readonly number[])[];
  readonly cost: readonly number[];
}

/**
 * A part of the problem as flat lists: the rows of each column, and the columns of each row, both in order.
 */
export interface Matrix {
  readonly rows: number;
  readonly columns: number;
  /** The number of a row in the whole problem. */
  readonly ids: Int32Array;
  /** The number of a column in the whole problem, and its cost. */
  readonly names: Int32Array;
  readonly cost: Float64Array;
  /** The columns of row r stand in `by` from `rowStart[r]` to `rowStart[r + 1]`. */
  readonly rowStart: Int32Array;
  readonly by: Int32Array;
  /** The rows of column i stand in `covered` from `start[i]` to `start[i + 1]`. */
  readonly start: Int32Array;
  readonly covered: Int32Array;
}

/** The whole of a problem. */
export function matrixOf({ rows, cost }: Covering): Matrix {
  const sorted = rows.map((row) => [...row].sort((a, b) => a - b));
  const rowStart = new Int32Array(rows.length + 1);
  for (const [r, row] of sorted.entries()) rowStart[r + 1] = rowStart[r]! + row.length;
  const by = Int32Array.from(sorted.flat());
  return {
    rows: rows.length,
    columns: cost.length,
    ids: Int32Array.from(rows.keys()),
    names: Int32Array.from(cost.keys()),
    cost: Float64Array.from(cost),
    rowStart,
    by,
    ...turned(rowStart, by, cost.length),
  };
}

/** The rows of each column, from the columns of each row. */
function turned(rowStart: Int32Array, by: Int32Array, columns: number): Pick<Matrix, 'start' | 'covered'> {
  const start = new Int32Array(columns + 1);
  for (let k = 0; k < by.length; k++) start[by[k]! + 1]!++;
  for (let c = 0; c < columns; c++) start[c + 1]! += start[c]!;
  const free = start.slice();
  const covered = new Int32Array(by.length);
  for (let r = 0; r + 1 < rowStart.length; r++)
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++) covered[free[by[k]!]!++] = r;
  return { start, covered };
}

/** 1 for each row that none of some columns covers. */
export function uncovered({ rows, start, covered }: Matrix, columns: readonly number[]): Uint8Array {
  const open = new Uint8Array(rows).fill(1);
  for (const c of columns) for (let k = start[c]!; k < start[c + 1]!; k++) open[covered[k]!] = 0;
  return open;
}

/**
 * The problem with some of its rows and without some of its columns; null where a row is left without any.
 * @param keep 1 for each row that stays; @param out 1 for each column that goes. Columns without rows go as well.
 */
export function submatrix(matrix: Matrix, keep: Uint8Array, out: Uint8Array): Matrix | null {
  const { rows, columns, rowStart, by } = matrix;
  const places = new Int32Array(columns);
  let [rowsLeft, entries] = [0, 0];
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    rowsLeft++;
    const before = entries;
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++) {
      if (out[by[k]!]) continue;
      entries++;
      places[by[k]!] = 1;
    }
    if (entries === before) return null;
  }
  let columnsLeft = 0;
  for (let c = 0; c < columns; c++) if (places[c]) places[c] = ++columnsLeft;
  const names = new Int32Array(columnsLeft);
  const cost = new Float64Array(columnsLeft);
  for (let c = 0; c < columns; c++)
    if (places[c]) {
      names[places[c]! - 1] = matrix.names[c]!;
      cost[places[c]! - 1] = matrix.cost[c]!;
    }
  const ids = new Int32Array(rowsLeft);
  const nextStart = new Int32Array(rowsLeft + 1);
  const nextBy = new Int32Array(entries);
  let [row, at] = [0, 0];
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    ids[row++] = matrix.ids[r]!;
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++)
      if (!out[by[k]!]) nextBy[at++] = places[by[k]!]! - 1;
    nextStart[row] = at;
  }
  return {
    rows: rowsLeft,
    columns: columnsLeft,
    ids,
    names,
    cost,
    rowStart: nextStart,
    by: nextBy,
    ...turned(nextStart, nextBy, columnsLeft),
  };
}

/** Takes essential columns and drops dominated rows and columns, until nothing changes. */
export function reduced(given: Matrix): { chosen: number[]; matrix: Matrix } {
  const chosen: number[] = [];
  let matrix = given;
  for (let size = -1; size !== matrix.by.length && matrix.rows > 0; ) {
    size = matrix.by.length;
    const essential = essentials(matrix);
    if (essential.length > 0) {
      for (const c of essential) chosen.push(matrix.names[c]!);
      matrix = submatrix(matrix, uncovered(matrix, essential), new Uint8Array(matrix.columns))!;
    }
    // Both at once: fewer columns or rows keep one list within another.
    const [keep, out] = [harder(matrix), dominated(matrix)];
    if (keep.includes(0) || out.includes(1)) matrix = submatrix(matrix, keep, out)!;
  }
  return { chosen, matrix };
}

/** The columns that alone cover some row. */
function essentials({ rows, columns, rowStart, by }: Matrix): number[] {
  const isOnly = new Uint8Array(columns);
  const found: number[] = [];
  for (let r = 0; r < rows; r++) {
    const c = by[rowStart[r]!]!;
    if (rowStart[r + 1]! - rowStart[r]! !== 1 || isOnly[c]) continue;
    isOnly[c] = 1;
    found.push(c);
  }
  return found;
}

/** Of some entries of a list, from one place to another, the one whose own stretch is shortest. */
function rarestOf(list: Int32Array, from: number, to: number, starts: Int32Array): number {
  let rarest = list[from]!;
  for (let k = from + 1; k < to; k++)
    if (starts[list[k]! + 1]! - starts[list[k]!]! < starts[rarest + 1]! - starts[rarest]!) rarest = list[k]!;
  return rarest;
}

/** Whether all of one stretch of a list is in another one, both in order. */
function isWithin(list: Int32Array, some: number, someEnd: number, all: number, allEnd: number): boolean {
  for (let k = some, at = all; k < someEnd; k++, at++) {
    while (at < allEnd && list[at]! < list[k]!) at++;
    if (at === allEnd || list[at] !== list[k]) return false;
  }
  return true;
}

/** 0 for each row that is covered whenever a certain other one is. */
function harder({ rows, rowStart, by, start, covered }: Matrix): Uint8Array {
  const keep = new Uint8Array(rows).fill(1);
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    const [from, to] = [rowStart[r]!, rowStart[r + 1]!];
    const rarest = rarestOf(by, from, to, start);
    for (let k = start[rarest]!; k < start[rarest + 1]!; k++) {
      const s = covered[k]!;
      const [begin, end] = [rowStart[s]!, rowStart[s + 1]!];
      if (s === r || !keep[s] || end - begin < to - from || (end - begin === to - from && s < r)) continue;
      if (isWithin(by, from, to, begin, end)) keep[s] = 0;
    }
  }
  return keep;
}

/** 1 for each column whose rows another one covers as well, at no more cost. */
function dominated({ columns, rowStart, by, start, covered, cost }: Matrix): Uint8Array {
  const out = new Uint8Array(columns);
  for (let c = 0; c < columns; c++) {
    const [from, to] = [start[c]!, start[c + 1]!];
    // Only columns of its rarest row can cover all of its rows.
    const rarest = rarestOf(covered, from, to, rowStart);
    for (let k = rowStart[rarest]!; k < rowStart[rarest + 1]!; k++) {
      const d = by[k]!;
      const [begin, end] = [start[d]!, start[d + 1]!];
      if (d === c || out[d] || cost[d]! > cost[c]! || end - begin < to - from) continue;
      if (end - begin === to - from && cost[d] === cost[c] && d > c) continue;
      if (!isWithin(covered, from, to, begin, end)) continue;
      out[c] = 1;
      break;
    }
  }
  return out;
}

/** The parts whose rows are connected by columns. */
export function components(matrix: Matrix): Matrix[] {
  const { rows, rowStart, by, start, covered } = matrix;
  const partOf = new Int32Array(rows).fill(-1);
  const todo = new Int32Array(rows);
  let parts = 0;
  for (let first = 0; first < rows; first++) {
    if (partOf[first] !== -1) continue;
    let [at, end] = [0, 1];
    todo[0] = first;
    partOf[first] = parts;
    for (; at < end; at++)
      for (let k = rowStart[todo[at]!]!; k < rowStart[todo[at]! + 1]!; k++)
        for (let j = start[by[k]!]!; j < start[by[k]! + 1]!; j++) {
          const s = covered[j]!;
          if (partOf[s] !== -1) continue;
          partOf[s] = parts;
          todo[end++] = s;
        }
    parts++;
  }
  if (parts === 1) return [matrix];
  const none = new Uint8Array(matrix.columns);
  return Array.from({ length: parts }, (_, part) => {
    const mine = Uint8Array.from(partOf, (p) => (p === part ? 1 : 0));
    return submatrix(matrix, mine, none)!;
  });
}
