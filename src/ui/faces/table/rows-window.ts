/** Browsers cannot scroll through elements that are much taller than this, in pixels. */
const TALLEST = 12_000_000;
const OVERSCAN = 6;

/** A place to which a table is scrolled, how much of it is seen, and how much of that its heading takes, in pixels. */
export interface Seen {
  readonly top: number;
  readonly height: number;
  readonly heading: number;
}

/** Rows of one height, of which there may be more than a browser can scroll. */
export interface RowsWindow {
  /** Height of the scrolled content, in pixels. */
  readonly height: number;
  /** The rows to render now, and the distance of each from the top. */
  readonly shown: readonly { readonly row: number; readonly top: number }[];
  /** The scroll position at which a row is fully visible; null if it is. */
  readonly scrolledTo: (row: number) => number | null;
}

/**
 * The rows in sight. Where all of them are taller than a browser can scroll, one pixel of scrolling is several of the
 * rows, but for the last stretch, in which a pixel is a pixel.
 * @param count of rows; @param rowHeight in pixels.
 */
export function windowOf(count: number, rowHeight: number, seen: Seen): RowsWindow {
  const whole = count * rowHeight;
  const height = Math.min(whole, TALLEST);
  const ratio = height > seen.height ? Math.max(1, (whole - seen.height) / (height - seen.height)) : 1;
  const farthest = Math.max(0, height - seen.height);
  const offset = Math.min(seen.top, farthest) * ratio + Math.max(0, seen.top - farthest);
  const first = Math.max(0, Math.floor(offset / rowHeight) - OVERSCAN);
  const last = Math.min(count - 1, Math.ceil((offset + seen.height) / rowHeight) + OVERSCAN);
  const shown = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => ({
    row: first + i,
    top: seen.top + (first + i) * rowHeight - offset,
  }));
  const most = Math.max(0, whole - seen.height);
  const scrolled = (to: number) => Math.min(to, most) / ratio + Math.max(0, to - most);
  const scrolledTo = (row: number) => {
    const room = seen.height - seen.heading;
    const top = row * rowHeight;
    if (top < offset) return scrolled(top);
    return top + rowHeight > offset + room ? scrolled(top + rowHeight - room) : null;
  };
  return { height, shown, scrolledTo };
}
