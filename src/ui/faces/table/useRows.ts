import { type RefObject, useEffect, useRef, useState } from 'react';
import { type RowsWindow, windowOf } from './rows-window';

export interface Rows extends Pick<RowsWindow, 'height' | 'shown'> {
  /** Scrolls until a row is fully visible. */
  readonly reveal: (row: number) => void;
}

/** Rows of one height of which only the visible ones are rendered. */
export function useRows(scroller: RefObject<HTMLElement | null>, count: number, rowHeight: number): Rows {
  const [seen, setSeen] = useState({ top: 0, height: 800, heading: rowHeight, isMeasured: false });
  /** The row to show as soon as the size of the pane is known. */
  const asked = useRef<number | null>(null);
  useEffect(() => {
    const element = scroller.current!;
    const look = () =>
      setSeen({
        top: element.scrollTop,
        height: element.clientHeight,
        heading: element.querySelector<HTMLElement>('[role="row"]')?.offsetHeight ?? 0,
        isMeasured: true,
      });
    const observer = new ResizeObserver(look);
    observer.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [scroller]);
  const { height, shown, scrolledTo } = windowOf(count, rowHeight, seen);
  const reveal = (row: number) => {
    if (!seen.isMeasured) asked.current = row;
    if (!scroller.current || !seen.isMeasured) return;
    // As it was last seen: asking the element would lay the page out in the middle of a change.
    const to = scrolledTo(row);
    if (to !== null) scroller.current.scrollTop = to;
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
