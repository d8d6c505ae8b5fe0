import type { Edit } from '@/core/circuit/edit';
import type { Point } from '@/core/circuit/geometry';
import type { End, PinEnd } from '@/core/circuit/sheet';
import { type Guide, spread } from '@/core/drawing/editing/arrange';
import { excerpt, paste } from '@/core/drawing/editing/clipboard';
import { move } from '@/core/drawing/editing/gestures';
import { reshapedCourse, setCourse } from '@/core/drawing/routing/wire-reshape';
import type { Session } from '@/session/session';
import type { Picked } from '../canvas/pick';

/** A pin or wire under the pointer: a place where a wire can begin. */
export type PickedEnd = Exclude<Picked, { is: 'part' }>;

/** The state of a gesture: each is one stretch of it. Points are in grid steps. */
export type GestureState =
  | { readonly state: 'idle' }
  | { readonly state: 'panning'; readonly last: Point; readonly moved: boolean }
  | {
      readonly state: 'pressing';
      readonly part: string;
      readonly from: Point;
      readonly pixel: Point;
      readonly add: boolean;
      /** Whether it only selects. */
      readonly selects: boolean;
      /** Whether its label was pressed. */
      readonly onLabel: boolean;
      /** Whether it is the second press of a double press, which does not act on the circuit again. */
      readonly isSecond: boolean;
    }
  | {
      readonly state: 'moving';
      readonly from: Point;
      readonly by: Point;
      readonly guides: readonly Guide[];
      readonly copy: boolean;
    }
  | { readonly state: 'boxing'; readonly from: Point; readonly to: Point }
  | { readonly state: 'leaving'; readonly picked: PickedEnd; readonly pixel: Point }
  | Wiring
  | {
      readonly state: 'pulling';
      readonly wire: string;
      /** The segment of the wire that is pulled, counted from its start. */
      readonly segment: number;
      readonly from: Point;
      readonly by: number;
    }
  | {
      readonly state: 'spreading';
      readonly from: Point;
      readonly axis: 'across' | 'down' | null;
      readonly by: number;
    };

export interface Wiring {
  readonly state: 'wiring';
  /** Pins that were passed over on the way out, and on the way in. */
  readonly from: readonly End[];
  readonly onto: readonly End[];
  /** All inputs that were passed over. */
  readonly passed?: readonly PinEnd[];
  readonly start: Point;
  readonly to: Point;
  /** Whether it follows the pointer from click to click. */
  readonly clicking: boolean;
  /** The wire whose end is being put elsewhere. */
  readonly end: { readonly wire: string; readonly key: 'from' | 'to' } | null;
}

export const IDLE: GestureState = { state: 'idle' };

/** Modifier keys and buttons of a pointer event. */
export interface Keys {
  readonly shift: boolean;
  readonly add: boolean;
  readonly alt?: boolean;
  readonly middle?: boolean;
  /** A finger is not as exact as a pointer. */
  readonly coarse?: boolean;
  /** Whether presses select, and nothing else. */
  readonly selecting?: boolean;
  /** When it happened, in ms. */
  readonly time?: number;
}

/** The edit that a gesture would make if it ended now; null if it would make none. */
export function pendingEdit(gesture: GestureState, session: Session): Edit | null {
  const { lesson, sheetId, selection } = session.state;
  switch (gesture.state) {
    case 'moving':
      if (gesture.by.x === 0 && gesture.by.y === 0) return null;
      return gesture.copy
        ? paste(session.sheet, excerpt(session.sheet, selection.parts), gesture.by).edit
        : move(lesson, sheetId, selection.parts, gesture.by);
    case 'pulling': {
      const course = reshapedCourse(session.sheet, gesture.wire, gesture.segment, gesture.by);
      return course && setCourse(lesson, sheetId, gesture.wire, course);
    }
    case 'spreading': {
      const { axis, from, by } = gesture;
      if (!axis || by === 0) return null;
      return spread(lesson, sheetId, axis, axis === 'across' ? from.x : from.y, by);
    }
    default:
      return null;
  }
}
