import type { Point } from '@/core/circuit/geometry';
import type { Palette } from '@/ui/controls/palette';

/** A path that remembers its straight pieces. */
export class RecordedPath {
  readonly pieces: (readonly [Point, Point])[] = [];
  private at: Point = { x: 0, y: 0 };

  moveTo(x: number, y: number): void {
    this.at = { x, y };
  }

  lineTo(x: number, y: number): void {
    const to = { x, y };
    this.pieces.push([this.at, to]);
    this.at = to;
  }

  arc(): void {}
  rect(): void {}
  closePath(): void {}
}

/** A palette in which each colour is its own name. */
export const NAMED = new Proxy({} as Palette, {
  get: (_, name) => (name === 'lines' || name === 'letters' ? 1 : name),
});

/** A canvas that remembers in which colour each straight piece was stroked as part of a path. */
export class RecordingCanvas {
  /** Colours by piece: `x y x y`, either way round. */
  readonly strokes = new Map<string, string[]>();
  strokeStyle = '';

  static key = (a: Point, b: Point) => [`${a.x} ${a.y}`, `${b.x} ${b.y}`].sort().join(' ');

  stroke(path?: RecordedPath): void {
    for (const [a, b] of path?.pieces ?? []) {
      const key = RecordingCanvas.key(a, b);
      this.strokes.set(key, [...(this.strokes.get(key) ?? []), this.strokeStyle]);
    }
  }

  /** The context, with all that it does not remember left out. */
  get context(): CanvasRenderingContext2D {
    return new Proxy(this, {
      get: (canvas, name) => {
        if (name === 'stroke') return (path?: RecordedPath) => canvas.stroke(path);
        if (name === 'measureText') return () => ({ width: 1 });
        return name in canvas ? canvas[name as 'strokeStyle'] : () => {};
      },
    }) as unknown as CanvasRenderingContext2D;
  }
}
