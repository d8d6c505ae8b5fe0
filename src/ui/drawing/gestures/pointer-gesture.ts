import { apply, type Edit } from '@/core/circuit/edit';
import type { Box, Point } from '@/core/circuit/geometry';
import { type End, isPinEnd, type PinEnd, sheetOf } from '@/core/circuit/lesson';
import { type Guide, snap, spread } from '@/core/drawing/editing/arrange';
import { excerpt, paste } from '@/core/drawing/editing/clipboard';
import { connect, move } from '@/core/drawing/editing/gestures';
import { touching } from '@/core/drawing/editing/join-up';
import { extended, pinPairs } from '@/core/drawing/editing/multi-pin-drag';
import { gather, widthAt } from '@/core/drawing/editing/remedies';
import { courseOf, endPoint, inPart, pinOf } from '@/core/drawing/geometry/placement';
import { isFlat, reshapedCourse, segmentAt, setCourse } from '@/core/drawing/routing/wire-reshape';
import { isMomentary, kindOf } from '@/core/parts/catalogue';
import { letGo } from '@/session/changes/parts';
import { moveEnd, wirePairs } from '@/session/changes/wires';
import type { Session } from '@/session/session';
import { NOTHING } from '@/session/state';
import { told } from '@/session/transaction';
import { type Picked, pick, pickBox, wiresOfNet } from '../canvas/pick';
import { panned, toSheet, type View } from '../canvas/view';

/** What a hand on the sheet is doing: each state is one stretch of a gesture. */
type GestureState =
  | { readonly state: 'idle' }
  | { readonly state: 'panning'; readonly last: Point; readonly moved: boolean }
  | {
      readonly state: 'pressing';
      readonly part: string;
      readonly from: Point;
      readonly pixel: Point;
      readonly add: boolean;
    }
  | {
      readonly state: 'moving';
      readonly from: Point;
      readonly by: Point;
      readonly guides: readonly Guide[];
      readonly copy: boolean;
    }
  | { readonly state: 'boxing'; readonly from: Point; readonly to: Point }
  | { readonly state: 'leaving'; readonly picked: Exclude<Picked, { is: 'part' }>; readonly pixel: Point }
  | Wiring
  | {
      readonly state: 'pulling';
      readonly wire: string;
      readonly piece: number;
      readonly from: Point;
      readonly by: number;
    }
  | {
      readonly state: 'spreading';
      readonly from: Point;
      readonly axis: 'across' | 'down' | null;
      readonly by: number;
    };

interface Wiring {
  readonly state: 'wiring';
  /** Pins that were passed over on the way out, and on the way in. */
  readonly from: readonly End[];
  readonly onto: readonly End[];
  readonly start: Point;
  readonly to: Point;
  /** Whether it follows the pointer from click to click. */
  readonly clicking: boolean;
  /** The wire whose end is being put elsewhere. */
  readonly end: { readonly wire: string; readonly key: 'from' | 'to' } | null;
}

export interface Keys {
  readonly shift: boolean;
  readonly add: boolean;
  readonly alt?: boolean;
  readonly middle?: boolean;
  /** A finger is not as exact as a pointer. */
  readonly coarse?: boolean;
}

export interface GestureSurroundings {
  readonly session: Session;
  view(): View;
  setView(view: View): void;
  /** Something that is painted has changed. */
  repaint(): void;
  openSettings(part: string): void;
  /** Takes a number for an input of several bits. */
  openValue(part: string): void;
  /** A wire would join ends that are not equally wide: the remedies are shown. */
  unequal(from: End, to: PinEnd): void;
  /** A wire was let go over bare paper: what fits there may be chosen. */
  offer(from: readonly End[], at: Point): void;
}

/** A press that moves less than this many pixels is a click. */
const CLICK = 5;
/** How near in grid steps to the end of a selected wire a press takes hold of that end. */
const END_REACH = 1.2;

/**
 * The gestures of one pointer on the sheet. Dragging paper pans; dragging from a pin or a wire draws a wire;
 * dragging a part moves it; a click on a switch flips it; a button is held while it is pressed. A wire that is
 * selected can be pulled aside, or taken by an end.
 */
export class PointerGesture {
  private doing: GestureState = { state: 'idle' };
  private heldButton: string | null = null;
  private coarse = false;
  private edit: { readonly key: string; readonly of: object; readonly edit: Edit | null } | null = null;
  hover: Picked | null = null;

  constructor(private readonly around: GestureSurroundings) {}

  /** Wires that are being drawn. */
  get rubber(): readonly (readonly Point[])[] {
    if (this.doing.state !== 'wiring') return [];
    const { sheet } = this.around.session;
    const { start, to, from } = this.doing;
    if (from.length > 1)
      return this.pairs().map(([a, b]) => [a, b].map((e) => endPoint(sheet, e)).filter((p) => p !== null));
    const over = this.target();
    if (over) {
      const edit = connect(sheet, from[0]!, over.end);
      if (edit?.type === 'addWire') return [[start, ...edit.wire.course, over.at]];
    }
    return [[start, { x: to.x, y: start.y }, to]];
  }

  get box(): Box | null {
    if (this.doing.state !== 'boxing') return null;
    const { from, to } = this.doing;
    return {
      x0: Math.min(from.x, to.x),
      y0: Math.min(from.y, to.y),
      x1: Math.max(from.x, to.x),
      y1: Math.max(from.y, to.y),
    };
  }

  /** Lines with which a part being moved is in line. */
  get guides(): readonly Guide[] {
    return this.doing.state === 'moving' ? this.doing.guides : [];
  }

  /** The line from which everything is being moved away. */
  get border(): { readonly axis: 'across' | 'down'; readonly at: number } | null {
    if (this.doing.state !== 'spreading' || !this.doing.axis) return null;
    const { axis, from } = this.doing;
    return { axis, at: axis === 'across' ? from.x : from.y };
  }

  /** Where pins of the parts being moved touch what they would be joined to. */
  get touches(): readonly Point[] {
    if (this.doing.state !== 'moving' || this.doing.copy) return [];
    const { session } = this.around;
    const made = this.pending();
    const applied = made && apply(session.state.lesson, made);
    if (!applied?.ok) return [];
    return touching(sheetOf(applied.value, session.state.sheetId)!, session.state.selection.parts).map(
      (t) => t.at,
    );
  }

  get wiring(): boolean {
    return this.doing.state === 'wiring';
  }

  get idle(): boolean {
    return this.doing.state === 'idle';
  }

  /** Whether a button is being held down. */
  get holding(): boolean {
    return this.heldButton !== null;
  }

  get cursor(): string {
    const { doing } = this;
    switch (doing.state) {
      case 'panning':
        return 'grabbing';
      case 'moving':
        return doing.copy ? 'copy' : 'grabbing';
      case 'wiring':
      case 'leaving':
        return 'crosshair';
      case 'pulling':
        return this.acrossPiece(doing.wire, doing.piece);
      case 'spreading':
        return doing.axis === 'down' ? 'row-resize' : 'col-resize';
      default:
        return this.hoverCursor();
    }
  }

  private hoverCursor(): string {
    const { hover } = this;
    if (hover?.is === 'wire' && this.around.session.state.selection.wires.has(hover.wire)) {
      if (this.endNear(hover.wire, hover.at)) return 'grab';
      const piece = segmentAt(this.courseOf(hover.wire), hover.at);
      return piece === null ? 'crosshair' : this.acrossPiece(hover.wire, piece);
    }
    if (hover?.is === 'pin' || hover?.is === 'wire') return 'crosshair';
    return hover ? 'pointer' : 'default';
  }

  private acrossPiece(wire: string, piece: number): string {
    const course = this.courseOf(wire);
    return course.length > piece + 1 && isFlat(course, piece) ? 'ns-resize' : 'ew-resize';
  }

  private courseOf(wire: string): readonly Point[] {
    const { sheet } = this.around.session;
    const there = sheet.wires.get(wire);
    return there ? courseOf(sheet, there) : [];
  }

  private at(pixel: Point): Point {
    return toSheet(this.around.view(), pixel.x, pixel.y);
  }

  private picked(pixel: Point): Picked | null {
    return pick(this.around.session.sheet, this.at(pixel), this.around.view().scale, this.coarse ? 1.8 : 1);
  }

  /** The edit that the gesture would make if it ended here; found once for each place. */
  pending(): Edit | null {
    const { doing: gestureState } = this;
    const { state } = this.around.session;
    const key =
      gestureState.state === 'moving'
        ? `${gestureState.by.x},${gestureState.by.y},${gestureState.copy}`
        : JSON.stringify(gestureState);
    if (this.edit?.key !== key || this.edit.of !== state.lesson)
      this.edit = { key, of: state.lesson, edit: this.makes() };
    return this.edit.edit;
  }

  private makes(): Edit | null {
    const { doing: gestureState } = this;
    const { session } = this.around;
    const { lesson, sheetId, selection } = session.state;
    switch (gestureState.state) {
      case 'moving': {
        if (gestureState.by.x === 0 && gestureState.by.y === 0) return null;
        if (gestureState.copy)
          return paste(session.sheet, excerpt(session.sheet, selection.parts), gestureState.by).edit;
        return move(lesson, sheetId, selection.parts, gestureState.by);
      }
      case 'pulling': {
        const course = reshapedCourse(session.sheet, gestureState.wire, gestureState.piece, gestureState.by);
        return course && setCourse(lesson, sheetId, gestureState.wire, course);
      }
      case 'spreading':
        if (!gestureState.axis || gestureState.by === 0) return null;
        return spread(
          lesson,
          sheetId,
          gestureState.axis,
          gestureState.axis === 'across' ? gestureState.from.x : gestureState.from.y,
          gestureState.by,
        );
      default:
        return null;
    }
  }

  down(pixel: Point, keys: Keys): void {
    const { session } = this.around;
    this.coarse = keys.coarse ?? false;
    if (this.doing.state === 'wiring') return;
    const picked = keys.middle ? null : this.picked(pixel);
    if (!picked) {
      const from = this.at(pixel);
      this.doing = keys.middle
        ? { state: 'panning', last: pixel, moved: false }
        : keys.alt
          ? { state: 'spreading', from, axis: null, by: 0 }
          : keys.shift
            ? { state: 'boxing', from, to: from }
            : { state: 'panning', last: pixel, moved: false };
    } else if (picked.is === 'part') {
      this.doing = { state: 'pressing', part: picked.part, from: this.at(pixel), pixel, add: keys.add };
      const part = session.sheet.parts.get(picked.part);
      if (part && isMomentary(part) && !keys.add && !keys.shift && !session.state.on.has(part.id)) {
        this.heldButton = session.keyOf(part.id);
        session.put([[this.heldButton, 1]]);
      }
    } else this.doing = { state: 'leaving', picked, pixel };
    this.around.repaint();
  }

  move(pixel: Point): void {
    const { session, view, setView, repaint } = this.around;
    const { doing: gestureState } = this;
    const far = (from: Point) => Math.hypot(pixel.x - from.x, pixel.y - from.y) >= CLICK;
    switch (gestureState.state) {
      case 'idle':
        this.hover = this.picked(pixel);
        break;
      case 'panning':
        if (!gestureState.moved && !far(gestureState.last)) return;
        setView(panned(view(), pixel.x - gestureState.last.x, pixel.y - gestureState.last.y));
        this.doing = { state: 'panning', last: pixel, moved: true };
        break;
      case 'boxing':
        this.doing = { ...gestureState, to: this.at(pixel) };
        break;
      case 'pressing':
        if (!far(gestureState.pixel)) return;
        this.releaseButton();
        if (!session.state.selection.parts.has(gestureState.part))
          session.select({ parts: new Set([gestureState.part]), wires: new Set() });
        this.doing = {
          state: 'moving',
          from: gestureState.from,
          by: { x: 0, y: 0 },
          guides: [],
          copy: gestureState.add,
        };
        this.move(pixel);
        return;
      case 'moving': {
        const p = this.at(pixel);
        const by = { x: p.x - gestureState.from.x, y: p.y - gestureState.from.y };
        this.doing = { ...gestureState, ...snap(session.sheet, session.state.selection.parts, by) };
        break;
      }
      case 'leaving':
        if (!far(gestureState.pixel)) return;
        this.leave(gestureState.picked);
        this.move(pixel);
        return;
      case 'pulling': {
        const p = this.at(pixel);
        const flat = isFlat(this.courseOf(gestureState.wire), gestureState.piece);
        this.doing = {
          ...gestureState,
          by: Math.round(flat ? p.y - gestureState.from.y : p.x - gestureState.from.x),
        };
        break;
      }
      case 'spreading': {
        const p = this.at(pixel);
        const [dx, dy] = [p.x - gestureState.from.x, p.y - gestureState.from.y];
        const axis =
          gestureState.axis ??
          (Math.max(Math.abs(dx), Math.abs(dy)) < 1 ? null : Math.abs(dx) > Math.abs(dy) ? 'across' : 'down');
        this.doing = { ...gestureState, axis, by: Math.round(axis === 'down' ? dy : dx) };
        break;
      }
      case 'wiring': {
        const p = this.at(pixel);
        this.hover = this.picked(pixel);
        const pin = this.hover?.is === 'pin' ? this.hover.end : null;
        const to = { x: Math.round(p.x), y: Math.round(p.y) };
        this.doing = {
          ...gestureState,
          ...(gestureState.clicking || gestureState.end ? {} : extended(session.sheet, gestureState, pin)),
          to,
        };
        break;
      }
    }
    repaint();
  }

  /** A drag away from a pin or a wire: a wire that is selected is taken hold of, any other place starts a new one. */
  private leave(picked: Exclude<Picked, { is: 'part' }>): void {
    const { session } = this.around;
    const { selection } = session.state;
    if (picked.is === 'pin') {
      const key = (end: End) =>
        isPinEnd(end) && isPinEnd(picked.end) && end.part === picked.end.part && end.port === picked.end.port;
      for (const id of selection.wires) {
        const wire = session.sheet.wires.get(id);
        const end = wire && (key(wire.from) ? 'from' : key(wire.to) ? 'to' : null);
        if (end) {
          this.takeEnd(id, end);
          return;
        }
      }
    } else if (selection.wires.has(picked.wire)) {
      const end = this.endNear(picked.wire, picked.at);
      const piece = segmentAt(this.courseOf(picked.wire), picked.at);
      if (end) this.takeEnd(picked.wire, end);
      else if (piece !== null)
        this.doing = { state: 'pulling', wire: picked.wire, piece, from: picked.at, by: 0 };
      if (end || piece !== null) return;
    }
    this.startWiring(picked, false);
  }

  private endNear(wire: string, at: Point): 'from' | 'to' | null {
    const course = this.courseOf(wire);
    const near = (p: Point | undefined) => !!p && Math.hypot(p.x - at.x, p.y - at.y) <= END_REACH;
    return near(course[0]) ? 'from' : near(course.at(-1)) ? 'to' : null;
  }

  private takeEnd(wire: string, key: 'from' | 'to'): void {
    const there = this.around.session.sheet.wires.get(wire)!;
    const other = key === 'from' ? there.to : there.from;
    const start = endPoint(this.around.session.sheet, other)!;
    this.doing = {
      state: 'wiring',
      from: [other],
      onto: [],
      start,
      to: start,
      clicking: false,
      end: { wire, key },
    };
  }

  private startWiring(picked: Exclude<Picked, { is: 'part' }>, clicking: boolean): void {
    const from: End = picked.is === 'pin' ? picked.end : { wire: picked.wire, at: picked.at };
    this.doing = {
      state: 'wiring',
      from: [from],
      onto: [],
      start: picked.at,
      to: picked.at,
      clicking,
      end: null,
    };
  }

  /** The pin or wire under the pointer at which a wire could end. */
  private target(): { end: End; at: Point } | null {
    if (this.doing.state !== 'wiring' || !this.hover || this.hover.is === 'part') return null;
    const [from] = this.doing.from;
    if (this.hover.is === 'wire') {
      if (!isPinEnd(from!) && from!.wire === this.hover.wire) return null;
      if (this.doing.end?.wire === this.hover.wire) return null;
      return { end: { wire: this.hover.wire, at: this.hover.at }, at: this.hover.at };
    }
    const { end } = this.hover;
    if (isPinEnd(from!) && isPinEnd(end) && from!.part === end.part && from!.port === end.port) return null;
    return { end, at: this.hover.at };
  }

  /** What a drag over several pins joins. */
  private pairs(): (readonly [End, End])[] {
    return this.doing.state === 'wiring' ? pinPairs(this.around.session.sheet, this.doing) : [];
  }

  up(pixel: Point, keys: Keys): void {
    const { session, repaint } = this.around;
    const { doing: gestureState } = this;
    this.releaseButton();
    switch (gestureState.state) {
      case 'panning':
        if (!gestureState.moved && !keys.shift) session.select(NOTHING);
        this.doing = { state: 'idle' };
        break;
      case 'boxing': {
        const box = this.box!;
        const found = pickBox(session.sheet, box);
        const { parts, wires } = keys.add ? session.state.selection : NOTHING;
        session.select({
          parts: new Set([...parts, ...found.parts]),
          wires: new Set([...wires, ...found.wires]),
        });
        this.doing = { state: 'idle' };
        break;
      }
      case 'pressing':
        this.doing = { state: 'idle' };
        this.click(gestureState.part, keys, this.at(pixel));
        break;
      case 'moving': {
        const edit = this.pending();
        this.doing = { state: 'idle' };
        letGo(session, edit, gestureState.copy);
        break;
      }
      case 'pulling':
      case 'spreading': {
        const edit = this.pending();
        this.doing = { state: 'idle' };
        if (edit) told(session.edit(gestureState.state === 'pulling' ? 'move a wire' : 'make room', edit));
        break;
      }
      case 'leaving':
        if (gestureState.picked.is === 'wire') {
          const wires = keys.add ? new Set(session.state.selection.wires) : new Set<string>();
          if (!wires.delete(gestureState.picked.wire)) wires.add(gestureState.picked.wire);
          session.select({ parts: keys.add ? session.state.selection.parts : new Set(), wires });
          this.doing = { state: 'idle' };
        } else this.startWiring(gestureState.picked, true);
        break;
      case 'wiring':
        this.endWiring(gestureState, pixel);
        break;
      default:
        break;
    }
    repaint();
  }

  private endWiring(doing: Wiring, pixel: Point): void {
    const { session, offer } = this.around;
    this.hover = this.picked(pixel);
    const over = this.target();
    // A first click on a pin starts a wire that follows the pointer until the second click.
    if (!over && doing.clicking && this.hover?.is === 'pin') return;
    const pairs = doing.from.length > 1 ? this.pairs() : [];
    this.doing = { state: 'idle' };
    if (pairs.length > 0) this.joinSwept(doing, pairs);
    else if (doing.end) {
      if (over) moveEnd(session, doing.end.wire, doing.end.key, over.end);
    } else if (over) this.join(doing.from[0]!, over.end);
    else if (this.hover?.is === 'part')
      session.say('A wire ends at a pin or on another wire: aim at the end of a short line.');
    else if (!this.hover) offer(doing.from, this.at(pixel));
  }

  /** Joins two ends, or asks how where they are not equally wide. */
  private join(from: End, to: End): void {
    const { session, unequal } = this.around;
    const { sheet } = session;
    if (widthAt(sheet, from) === widthAt(sheet, to)) {
      wirePairs(session, [[from, to]]);
      return;
    }
    const reads = (end: End) =>
      isPinEnd(end) && pinOf(sheet, end.part, end.port)?.port.direction === 'in' ? end : null;
    const [onto, into] = [reads(to), reads(from)];
    if (onto) unequal(from, onto);
    else if (into) unequal(to, into);
    else wirePairs(session, [[from, to]]);
  }

  /** Pins that were passed over, one by one; or all of them together where the one that they came to is a bus. */
  private joinSwept(sweep: Wiring, pairs: readonly (readonly [End, End])[]): void {
    const { session } = this.around;
    const { sheet } = session;
    const [to] = sweep.onto;
    const bits = sweep.from.reduce((sum, end) => sum + widthAt(sheet, end), 0);
    if (to && isPinEnd(to) && sweep.onto.length === 1 && widthAt(sheet, to) === bits) {
      const edit = gather(sheet, sweep.from, to);
      if (edit) told(session.edit('gather wires into a bus', edit));
    } else wirePairs(session, pairs);
  }

  private click(partId: string, keys: Keys, at: Point): void {
    const { session } = this.around;
    const part = session.sheet.parts.get(partId);
    if (!part) return;
    if (keys.add) {
      const parts = new Set(session.state.selection.parts);
      if (!parts.delete(partId)) parts.add(partId);
      session.select({ ...session.state.selection, parts });
      return;
    }
    session.select({ parts: new Set([partId]), wires: new Set() });
    const role = kindOf(part).role?.(part.params);
    if (role?.role !== 'input') return;
    if (role.by === 'port' && kindOf(part).ports(part.params)[0]!.width > 1) {
      this.around.openValue(partId);
      return;
    }
    const latched = role.by === 'button' && (keys.shift || session.state.on.has(session.keyOf(partId)));
    const bit = kindOf(part).bitAt?.(part.params, inPart(at, part)) ?? 0;
    if (role.by === 'switch' || role.by === 'port' || latched) session.flip(partId, bit);
  }

  private releaseButton(): void {
    if (this.heldButton) this.around.session.put([[this.heldButton, 0]]);
    this.heldButton = null;
  }

  /** Two clicks on a part open what can be set about it; on a wire they select its whole net. */
  double(pixel: Point): void {
    const { session } = this.around;
    const picked = this.picked(pixel);
    if (picked?.is === 'part') this.around.openSettings(picked.part);
    if (picked?.is === 'wire')
      session.select({ parts: new Set(), wires: wiresOfNet(session.sheet, picked.wire) });
  }

  /** What lies under a pixel. */
  under(pixel: Point): Picked | null {
    return this.picked(pixel);
  }

  gone(): void {
    this.hover = null;
    this.around.repaint();
  }

  /** Gives up what was begun. @returns whether anything was. */
  cancel(): boolean {
    const begun = this.doing.state !== 'idle';
    this.releaseButton();
    this.doing = { state: 'idle' };
    this.around.repaint();
    return begun;
  }
}
