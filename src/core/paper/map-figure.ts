import {
  type Align,
  type Figure,
  fitted,
  lettersAt,
  type Mark,
  movedMark,
  type PathMark,
} from '../figure/figure';
import { boxData } from '../figure/outlines';
import { stepsOfPath } from '../figure/path-data';
import { loopPath } from '../logic/map/loop-path';
import { layoutOf, loopOf, rowAt, sizeOfAxis, valuesAt } from '../logic/map/map';
import type { Cube } from '../logic/minimise/cube';

const BLACK = '#000000';
const WHITE = '#ffffff';

/** Letters of a figure on paper, in black. */
export const paperText = (
  text: string,
  x: number,
  y: number,
  size: number,
  align: Align,
  weight = 400,
  face: 'text' | 'mono' = 'text',
): Mark => lettersAt({ x, y }, text, size, align, { colour: BLACK, weight, face });

/** A black line of a figure on paper. */
export const paperLine = (d: string, width: number, dash: readonly number[] = []): PathMark => ({
  is: 'path',
  steps: stepsOfPath(d),
  fill: null,
  stroke: { colour: BLACK, width, dash, cap: 'butt' },
  opacity: 1,
  clip: null,
});

const CELL = 44;
/** Room beside the cells for the values and names of an axis. */
const SIDE = 78;
const HEAD = 46;
const BETWEEN = 36;
/** Loops are told apart by their lines. */
const DASHES: readonly (readonly number[])[] = [[], [8, 4], [2, 3], [10, 3, 2, 3]];

/**
 * A Karnaugh map on paper.
 * @param letters of its rows; null for a map to be filled in.
 * @param loops around its groups.
 */
export function mapFigure(
  output: string,
  inputs: readonly string[],
  letters: string | null,
  loops: readonly Cube[],
): Figure {
  const layout = layoutOf(inputs.map((_, i) => i));
  const size = { down: sizeOfAxis(layout.down), across: sizeOfAxis(layout.across) };
  const marks: Mark[] = [];
  const names = (axis: readonly number[]) => axis.map((input) => inputs[input]!).join(' ');
  const layers = sizeOfAxis(layout.layers);
  const perRow = Math.min(2, layers);
  for (let layer = 0; layer < layers; layer++) {
    const x = (layer % perRow) * (SIDE + size.across * CELL + BETWEEN) + SIDE;
    const y = Math.floor(layer / perRow) * (HEAD + size.down * CELL + BETWEEN) + HEAD;
    const values = valuesAt(layout.layers, layer);
    const here = layout.layers.map((input, i) => `${inputs[input]} = ${values[i]}`).join(', ');
    marks.push(paperText(here || output, x - SIDE + 4, y - 30, 14, 'left', 700));
    marks.push(paperText(names(layout.across), x + (size.across * CELL) / 2, y - 28, 13, 'center', 600));
    marks.push(paperText(names(layout.down), x - 34, y + (size.down * CELL) / 2 + 5, 13, 'right', 600));
    for (let across = 0; across < size.across; across++) {
      const code = valuesAt(layout.across, across).join('');
      marks.push(paperText(code, x + (across + 0.5) * CELL, y - 8, 13, 'center', 400, 'mono'));
    }
    for (let down = 0; down < size.down; down++) {
      const code = valuesAt(layout.down, down).join('');
      marks.push(paperText(code, x - 8, y + (down + 0.5) * CELL + 5, 13, 'right', 400, 'mono'));
      for (let across = 0; across < size.across; across++) {
        const row = rowAt(layout, layer, down, across);
        const [left, top] = [x + across * CELL, y + down * CELL];
        marks.push(paperLine(boxData(left, top, CELL, CELL), 1));
        marks.push(paperText(String(row), left + CELL - 4, top + CELL - 4, 8, 'right'));
        if (letters)
          marks.push(
            paperText(letters[row]!, left + CELL / 2, top + CELL / 2 + 6, 17, 'center', 600, 'mono'),
          );
      }
    }
    for (const [i, cube] of loops.entries())
      for (const piece of loopOf(cube, layout)) {
        if (piece.layer !== layer) continue;
        const d = loopPath(piece, CELL, 4 + 3 * (i % 3), size);
        marks.push(movedMark(paperLine(d, 2, DASHES[i % DASHES.length]), x, y));
      }
  }
  return fitted(`Map of ${output}`, marks, WHITE, 2);
}
