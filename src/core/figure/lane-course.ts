/** Where a lane stands: its left edge, the width of a cell, and the heights of 1 and 0, in pixels. */
export interface LanePlace {
  readonly left: number;
  readonly step: number;
  readonly high: number;
  readonly low: number;
}

/**
 * The line of a lane as path data: level stretches joined by edges; nothing where nothing is drawn.
 * @param levels a letter a cell: 0, 1, and anything else where nothing is drawn.
 */
export function laneCourse(levels: string, { left, step, high, low }: LanePlace): string {
  let path = '';
  let last = '';
  for (const [i, level] of [...levels].entries()) {
    const y = level === '1' ? high : level === '0' ? low : null;
    if (y === null) {
      last = '';
      continue;
    }
    path += last === '' ? `M${left + i * step} ${y}` : `V${y}`;
    path += `H${left + (i + 1) * step}`;
    last = level;
  }
  return path;
}
