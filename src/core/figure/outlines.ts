/*
 * Path data of simple outlines.
 */

export const boxData = (x: number, y: number, width: number, height: number): string =>
  `M${x} ${y}H${x + width}V${y + height}H${x}Z`;

export function roundBoxData(x: number, y: number, width: number, height: number, radius: number): string {
  const r = Math.min(radius, width / 2, height / 2);
  if (r <= 0) return boxData(x, y, width, height);
  const corner = (dx: number, dy: number) => `a${r} ${r} 0 0 1 ${dx} ${dy}`;
  return `M${x + r} ${y}H${x + width - r}${corner(r, r)}V${y + height - r}${corner(-r, r)}H${x + r}${corner(-r, -r)}V${y + r}${corner(r, -r)}Z`;
}

/** An arc of a circle, clockwise unless it goes back; a whole turn and more is a circle. */
export function arcData(
  x: number,
  y: number,
  r: number,
  from: number,
  to: number,
  isBack: boolean,
  isJoined: boolean,
): string {
  const sweep = isBack ? from - to : to - from;
  if (sweep >= 2 * Math.PI - 1e-9) return circleData(x, y, r);
  const turn = ((sweep % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
  const on = (angle: number) => `${x + r * Math.cos(angle)} ${y + r * Math.sin(angle)}`;
  const flags = `${turn > Math.PI ? 1 : 0} ${isBack ? 0 : 1}`;
  return `${isJoined ? 'L' : 'M'}${on(from)}A${r} ${r} 0 ${flags} ${on(to)}`;
}

export const circleData = (x: number, y: number, r: number): string =>
  `M${x - r} ${y}a${r} ${r} 0 1 1 ${2 * r} 0a${r} ${r} 0 1 1 ${-2 * r} 0Z`;
