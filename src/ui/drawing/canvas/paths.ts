/** What a figure is recorded with, in place of a canvas. */
interface Recorder {
  recordedPath(data?: string): Path2D;
}

const isRecorder = (g: object): g is Recorder => 'recordedPath' in g;

/** Whether paths that were made for the screen are of use here. */
export const isOnScreen = (g: CanvasRenderingContext2D): boolean => !isRecorder(g);

/** A path for a context, from path data or empty. */
export function newPath(g: CanvasRenderingContext2D, data?: string): Path2D {
  return isRecorder(g) ? g.recordedPath(data) : new Path2D(data);
}

const known = new Map<string, Path2D>();

/** The path of a symbol, made once for the screen. */
export function pathOf(g: CanvasRenderingContext2D, data: string): Path2D {
  if (isRecorder(g)) return g.recordedPath(data);
  let path = known.get(data);
  if (!path) {
    path = new Path2D(data);
    known.set(data, path);
  }
  return path;
}
