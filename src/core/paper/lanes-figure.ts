import { type Figure, fitted, type Mark } from '../figure/figure';
import { laneCourse } from '../figure/lane-course';
import { timeText } from '../values/time';
import { paperLine, paperText } from './map-figure';

export interface PaperLane {
  readonly name: string;
  /** A letter a cell: 0, 1, and anything else where nothing is drawn. */
  readonly levels: string;
}

/** Pixels of all cells together, and of the name before them. */
const WIDTH = 560;
const NAME = 84;
const LANE = 34;
const HIGH = 5;
const LOW = 27;
/** Cells up to this many have a time at each. */
const FEW = 8;

/**
 * Lanes of a timing diagram on a grid, to be drawn or drawn.
 * @param cell time of a cell in ps.
 */
export function lanesFigure(cell: number, cells: number, lanes: readonly PaperLane[]): Figure {
  const step = WIDTH / cells;
  const marks: Mark[] = [];
  const bottom = lanes.length * LANE;
  for (let i = 0; i <= cells; i++) marks.push(paperLine(`M${NAME + i * step} 0V${bottom}`, 0.5, [2, 2]));
  for (const [lane, { name, levels }] of lanes.entries()) {
    const top = lane * LANE;
    marks.push(paperText(name, NAME - 8, top + 21, 13, 'right', 600));
    marks.push(paperLine(`M${NAME} ${top + LOW}H${NAME + WIDTH}`, 0.4, [1, 3]));
    const place = { left: NAME, step, high: top + HIGH, low: top + LOW };
    const course = laneCourse(levels, place);
    if (course) marks.push(paperLine(course, 1.8));
    for (const [i, level] of [...levels].entries())
      if (level === 'x') marks.push(paperText('x', NAME + (i + 0.5) * step, top + 20, 12, 'center'));
  }
  const every = Math.max(1, Math.ceil(cells / FEW));
  for (let i = 0; i <= cells; i += every)
    marks.push(paperText(timeText(i * cell), NAME + i * step, bottom + 14, 10, 'center'));
  return fitted('Timing diagram', marks, '#ffffff', 2);
}
