import { type RefObject, useEffect, useRef, useState } from 'react';

/** Browsers cannot scroll through elements that are much taller than this, in pixels. */
const TALLEST = 12_000_000;
const OVERSCAN = 6;

export interface Rows {
  /** Height of what is scrolled, in pixels. */
  readonly height: number;
  /** The rows that are to be there now, and how far from the top each stands. */
  readonly shown: readonly { readonly row: number; readonly top: number }[];
  /** Scrolls so that a row is wholly seen; nothing where it is. */
  readonly reveal: (row: number) => void;
}

/**
 * Rows of one height of which only those in sight are there. Where all of them are taller than a browser can
 * scroll, one pixel of scrolling is several of the rows.
 */
export function useRows(scroller: RefObject<HTMLElement | null>, count: number, rowHeight: number): Rows {
  const [seen, setSeen] = useState({ top: 0, height: 800, isMeasured: false });
  /** The row that is to be seen as soon as it is known how much room there is. */
  const asked = useRef<number | null>(null);
  useEffect(() => {
    const element = scroller.current!;
    const look = () => setSeen({ top: element.scrollTop, height: element.clientHeight, isMeasured: true });
    const observer = new ResizeObserver(look);
    observer.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [scroller]);

  const whole = count * rowHeight;
  const height = Math.min(whole, TALLEST);
  const ratio = height > seen.height ? Math.max(1, (whole - seen.height) / (height - seen.height)) : 1;
  const offset = Math.min(seen.top, Math.max(0, height - seen.height)) * ratio;
  const first = Math.max(0, Math.floor(offset / rowHeight) - OVERSCAN);
  const last = Math.min(count - 1, Math.ceil((offset + seen.height) / rowHeight) + OVERSCAN);
  const shown = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => ({
    row: first + i,
    top: seen.top + (first + i) * rowHeight - offset,
  }));
  const reveal = (row: number) => {
    const element = scroller.current;
    if (!seen.isMeasured) asked.current = row;
    if (!element || !seen.isMeasured) return;
    // As it was last seen: asking the element would lay the page out in the middle of a change.
    const room = seen.height - rowHeight;
    const now = offset;
    const top = row * rowHeight;
    const most = Math.max(0, whole - seen.height);
    // Beyond the last stretch that stands for several rows a pixel is a pixel.
    const scrolled = (to: number) => Math.min(to, most) / ratio + Math.max(0, to - most);
    if (top < now) element.scrollTop = scrolled(top);
    else if (top + rowHeight > now + room) element.scrollTop = scrolled(top + rowHeight - room);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when the room is known
  useEffect(() => {
    if (asked.current !== null) reveal(asked.current);
    asked.current = null;
  }, [seen.isMeasured]);
  return { height, shown, reveal };
}

/** How a row of a table looks: that of the moment, one that is pointed at, and else in bands of four. */
export function rowLook(row: number, isLive: boolean, isPointed = false): string {
  if (isLive) return 'bg-one-soft shadow-[inset_0_2px_0_var(--one),inset_0_-2px_0_var(--one)]';
  if (isPointed) return 'bg-accent-soft';
  return row % 8 > 3 ? 'bg-paper' : '';
}
