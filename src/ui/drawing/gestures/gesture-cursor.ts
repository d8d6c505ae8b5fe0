import type { Point } from '@/core/circuit/geometry';
import type { Sheet } from '@/core/circuit/sheet';
import { courseOf } from '@/core/drawing/geometry/placement';
import { isFlat, segmentAt } from '@/core/drawing/routing/wire-reshape';
import type { Picked } from '../canvas/pick';
import type { GestureState } from './gesture-state';

/** How near in grid steps to the end of a selected wire a press takes hold of that end. */
const END_REACH = 1.2;

/** The course of a wire of a sheet; empty if the wire does not exist. */
export function courseOn(sheet: Sheet, wire: string): readonly Point[] {
  const there = sheet.wires.get(wire);
  return there ? courseOf(sheet, there) : [];
}

/** The end of a wire that is near a point; null where neither is. */
export function endNear(sheet: Sheet, wire: string, at: Point): 'from' | 'to' | null {
  const course = courseOn(sheet, wire);
  const isNear = (p: Point | undefined) => !!p && Math.hypot(p.x - at.x, p.y - at.y) <= END_REACH;
  return isNear(course[0]) ? 'from' : isNear(course.at(-1)) ? 'to' : null;
}

/** The CSS cursor for the gesture, or for the gesture that would begin here. */
export function cursorOf(
  gesture: GestureState,
  hover: Picked | null,
  sheet: Sheet,
  selected: ReadonlySet<string>,
): string {
  switch (gesture.state) {
    case 'panning':
      return 'grabbing';
    case 'moving':
      return gesture.copy ? 'copy' : 'grabbing';
    case 'wiring':
    case 'leaving':
      return 'crosshair';
    case 'pulling':
      return acrossSegment(sheet, gesture.wire, gesture.segment);
    case 'spreading':
      return gesture.axis === 'down' ? 'row-resize' : 'col-resize';
    default:
      return hoverCursor(hover, sheet, selected);
  }
}

function hoverCursor(hover: Picked | null, sheet: Sheet, selected: ReadonlySet<string>): string {
  if (hover?.is === 'wire' && selected.has(hover.wire)) {
    if (endNear(sheet, hover.wire, hover.at)) return 'grab';
    const segment = segmentAt(courseOn(sheet, hover.wire), hover.at);
    return segment === null ? 'crosshair' : acrossSegment(sheet, hover.wire, segment);
  }
  if (hover?.is === 'pin' || hover?.is === 'wire') return 'crosshair';
  return hover ? 'pointer' : 'default';
}

function acrossSegment(sheet: Sheet, wire: string, segment: number): string {
  const course = courseOn(sheet, wire);
  return course.length > segment + 1 && isFlat(course, segment) ? 'ns-resize' : 'ew-resize';
}
