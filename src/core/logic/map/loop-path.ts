import type { LoopPiece } from './map';

const ROUND = 11;
/** How far in pixels a loop extends beyond the edge of the map where it continues at the other side. */
export const OVER = 7;

/**
 * The outline of a piece of a loop as SVG path data, in pixels from the upper left corner of its layer.
 * @param cell edge of a cell.
 * @param inset distance from the edges of the cells, which keeps neighbouring loops apart.
 * @param size of the layer in cells.
 */
export function loopPath(
  { down, across, open }: LoopPiece,
  cell: number,
  inset: number,
  size: { readonly down: number; readonly across: number },
): string {
  const x0 = open.left ? -OVER : across[0] * cell + inset;
  const x1 = open.right ? size.across * cell + OVER : (across[1] + 1) * cell - inset;
  const y0 = open.top ? -OVER : down[0] * cell + inset;
  const y1 = open.bottom ? size.down * cell + OVER : (down[1] + 1) * cell - inset;
  // Corners clockwise, each with the side that leads on from it.
  const corners = [
    { x: x0, y: y0, side: !open.top, dx: 1, dy: 0 },
    { x: x1, y: y0, side: !open.right, dx: 0, dy: 1 },
    { x: x1, y: y1, side: !open.bottom, dx: -1, dy: 0 },
    { x: x0, y: y1, side: !open.left, dx: 0, dy: -1 },
  ];
  let path = '';
  for (const [i, from] of corners.entries()) {
    if (!from.side) continue;
    const [before, to] = [corners[(i + 3) % 4]!, corners[(i + 1) % 4]!];
    const start = before.side ? ROUND : 0;
    const end = to.side ? ROUND : 0;
    if (!before.side || i === 0) path += `M${from.x + from.dx * start} ${from.y + from.dy * start}`;
    path += `L${to.x - from.dx * end} ${to.y - from.dy * end}`;
    if (to.side) path += `Q${to.x} ${to.y} ${to.x + to.dx * ROUND} ${to.y + to.dy * ROUND}`;
  }
  return path;
}
