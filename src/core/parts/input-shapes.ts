import { roundedBox, type Shape } from './shape';

/** A caption over a body whose top edge is at that height. */
export function captionShapes({ caption }: { readonly caption: string }, top: number): Shape[] {
  return caption
    ? [{ shape: 'text', x: 0, y: top - 0.75, text: caption, size: 0.85, align: 'center', paint: 'quiet' }]
    : [];
}

/** The bound key as a small key cap under a part, right of its value. */
export function keyShapes({ key }: { readonly key: string }, bottom: number): Shape[] {
  if (!key) return [];
  return [
    {
      shape: 'path',
      d: roundedBox(0.75, bottom + 0.25, 2.05, bottom + 1.55, 0.3),
      fill: 'paper',
      stroke: 'quiet',
      weight: 0.08,
    },
    {
      shape: 'text',
      x: 1.4,
      y: bottom + 0.9,
      text: key.toUpperCase(),
      size: 0.8,
      align: 'center',
      face: 'mono',
      paint: 'quiet',
    },
  ];
}
