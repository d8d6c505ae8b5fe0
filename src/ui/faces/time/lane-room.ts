import { type RefObject, useCallback, useEffect, useLayoutEffect, useState } from 'react';
import { type LaneShape, laneTops, RULER } from './diagram';

/** What is seen of the lanes. */
export interface LaneRoom {
  /** Where each lane begins in pixels from the top of the diagram, and where the last one ends. */
  readonly tops: readonly number[];
  /** How many lanes are not seen. */
  readonly unseen: number;
}

/**
 * How many of the lanes are seen, and where they stand. Where the room changes, or other lanes are chosen, what was chosen is
 * brought into sight.
 * @param chosen the numbers of the chosen lanes.
 */
export function useLaneRoom(
  canvas: RefObject<HTMLElement | null>,
  shapes: readonly LaneShape[],
  chosen: readonly number[],
): LaneRoom {
  const [seen, setSeen] = useState({ height: 0, from: 0, to: 0 });
  const look = useCallback(() => {
    const around = canvas.current!.parentElement!;
    const { scrollTop: from, clientHeight } = around;
    const is = { height: canvas.current!.clientHeight, from, to: from + clientHeight };
    setSeen((was) => (was.height === is.height && was.from === is.from && was.to === is.to ? was : is));
  }, [canvas]);
  useEffect(() => {
    const around = canvas.current!.parentElement!;
    const sizes = new ResizeObserver(look);
    for (const one of [around, canvas.current!]) sizes.observe(one);
    around.addEventListener('scroll', look);
    return () => {
      sizes.disconnect();
      around.removeEventListener('scroll', look);
    };
  }, [canvas, look]);
  const tops = laneTops(shapes, seen.height);
  const isSeen = (lane: number) => tops[lane]! >= seen.from && tops[lane + 1]! <= seen.to;
  const first = chosen.find((lane) => !isSeen(lane));
  const room = seen.to - seen.from;
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is brought back when it goes out of sight by itself, not by scrolling
  useLayoutEffect(() => {
    if (first === undefined || room === 0) return;
    const around = canvas.current!.parentElement!;
    const [top, bottom] = [tops[first]!, tops[first + 1]!];
    around.scrollTop = top < seen.from ? Math.max(0, top - RULER) : bottom - room;
  }, [room, chosen.join(), shapes]);
  return { tops, unseen: seen.height === 0 ? 0 : shapes.filter((_, lane) => !isSeen(lane)).length };
}
