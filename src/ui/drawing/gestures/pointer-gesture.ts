import type { EditorContext } from '@/commands/context';
import type { Edit } from '@/core/circuit/edit';
import type { Box, Point } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import { type End, isPinEnd, type Part } from '@/core/circuit/sheet';
import { type Guide, snap } from '@/core/drawing/editing/arrange';
import { touching } from '@/core/drawing/editing/join-up';
import { extended } from '@/core/drawing/editing/multi-pin-drag';
import { inPart } from '@/core/drawing/geometry/placement';
import { panned, toSheet } from '@/core/drawing/geometry/viewport';
import { isFlat, segmentAt } from '@/core/drawing/routing/wire-reshape';
import { isMomentary, kindOf, sheetIdInside } from '@/core/parts/catalogue';
import type { Role } from '@/core/parts/part-kind';
import { letGo } from '@/session/changes/parts';
import { moveEnd } from '@/session/changes/wires';
import type { Session } from '@/session/session';
import { NOTHING } from '@/session/state';
import { told } from '@/session/told';
import { type Picked, pick, pickBox, type Reach, wiresOfNet } from '../canvas/pick';
import { applied } from './applied';
import { courseOn, cursorOf, endNear } from './gesture-cursor';
import {
  type GestureState,
  IDLE,
  type Keys,
  type PickedEnd,
  pendingEdit,
  type Wiring,
} from './gesture-state';
import {
  joinEnds,
  joinPassedPins,
  sweptPins,
  wirePreview,
  wiringFrom,
  wiringOfEnd,
  wiringTarget,
} from './wiring';

/** A press that moves less than this many pixels is a click. */
const CLICK = 5;
const FINGER: Reach = { pins: 1.6, wires: 1.8 };
/** A wire on its way is meant for the pin that it comes near to. */
const WIRE_END: Reach = { pins: 1.5 };
/** Two presses at one place of a part within this many ms are a double press; who moves a lever to and fro takes longer. */
const DOUBLE = 250;

/**
 * The gestures of one pointer on the sheet. Dragging paper pans; dragging from a pin or a wire draws a wire;
 * dragging a part moves it; a click on a switch flips it; a button is held while it is pressed. A wire that is
 * selected can be pulled aside, or taken by an end.
 */
export class PointerGesture {
  private now: GestureState = IDLE;
  private heldButton: string | null = null;
  /** The last press that acted on the circuit. */
  private acted: { readonly part: string; readonly pixel: Point; readonly time: number } | null = null;
  private coarse = false;
  private edit: { readonly key: string; readonly of: object; readonly edit: Edit | null } | null = null;
  private readonly session: Session;
  hover: Picked | null = null;

  constructor(private readonly context: EditorContext) {
    this.session = context.session;
  }

  /** Courses of the wires that are being drawn. */
  get wirePreview(): readonly (readonly Point[])[] {
    return this.now.state === 'wiring' ? wirePreview(this.session.sheet, this.now, this.hover) : [];
  }

  get box(): Box | null {
    if (this.now.state !== 'boxing') return null;
    const { from, to } = this.now;
    return {
      x0: Math.min(from.x, to.x),
      y0: Math.min(from.y, to.y),
      x1: Math.max(from.x, to.x),
      y1: Math.max(from.y, to.y),
    };
  }

  /** Lines with which a part being moved is in line. */
  get guides(): readonly Guide[] {
    return this.now.state === 'moving' ? this.now.guides : [];
  }

  /** The line from which everything is being moved away. */
  get border(): { readonly axis: 'across' | 'down'; readonly at: number } | null {
    if (this.now.state !== 'spreading' || !this.now.axis) return null;
    const { axis, from } = this.now;
    return { axis, at: axis === 'across' ? from.x : from.y };
  }

  /** Where pins of the dragged parts touch what they would be joined to, and the pins that a sweep would join. */
  get touches(): readonly Point[] {
    if (this.now.state === 'wiring') return sweptPins(this.session.sheet, this.now);
    if (this.now.state !== 'moving' || this.now.copy) return [];
    const { lesson, sheetId, selection } = this.session.state;
    const edit = this.pending();
    const made = edit && applied(lesson, edit);
    if (!made?.ok) return [];
    return touching(sheetOf(made.value, sheetId)!, selection.parts).map((t) => t.at);
  }

  get isWiring(): boolean {
    return this.now.state === 'wiring';
  }

  get isIdle(): boolean {
    return this.now.state === 'idle';
  }

  /** Whether a button is being held down. */
  get isHolding(): boolean {
    return this.heldButton !== null;
  }

  get cursor(): string {
    const { sheet, state } = this.session;
    return cursorOf(this.now, this.hover, sheet, state.selection.wires);
  }

  private at(pixel: Point): Point {
    return toSheet(this.context.drawing.view(), pixel.x, pixel.y);
  }

  /** The object under a pixel. @param reach for a press that may miss by a little. */
  under(pixel: Point, reach: Reach = {}): Picked | null {
    const { scale } = this.context.drawing.view();
    return pick(this.session.sheet, this.at(pixel), scale, this.coarse ? FINGER : reach);
  }

  /** The edit that the gesture would make if it ended here; found once for each place. */
  pending(): Edit | null {
    const { now, session } = this;
    const { lesson } = session.state;
    const key = now.state === 'moving' ? `${now.by.x},${now.by.y},${now.copy}` : JSON.stringify(now);
    if (this.edit?.key !== key || this.edit.of !== lesson)
      this.edit = { key, of: lesson, edit: pendingEdit(now, session) };
    return this.edit.edit;
  }

  down(pixel: Point, keys: Keys): void {
    const { session } = this;
    this.coarse = keys.coarse ?? false;
    if (this.now.state === 'wiring') return;
    const picked = keys.middle ? null : this.under(pixel);
    if (keys.selecting && picked?.is !== 'part') {
      const from = this.at(pixel);
      this.now = { state: 'boxing', from, to: from };
    } else if (!picked) {
      const from = this.at(pixel);
      if (keys.alt && !keys.middle) this.now = { state: 'spreading', from, axis: null, by: 0 };
      else if (keys.shift && !keys.middle) this.now = { state: 'boxing', from, to: from };
      else this.now = { state: 'panning', last: pixel, moved: false };
    } else if (picked.is === 'part') {
      const { acted } = this;
      const { time = Number.POSITIVE_INFINITY } = keys;
      const isSecond =
        !keys.shift &&
        acted?.part === picked.part &&
        time - acted.time < DOUBLE &&
        Math.hypot(pixel.x - acted.pixel.x, pixel.y - acted.pixel.y) < CLICK;
      const onLabel = picked.onLabel ?? false;
      const from = this.at(pixel);
      const selects = keys.selecting ?? false;
      this.now = {
        state: 'pressing',
        part: picked.part,
        from,
        pixel,
        add: keys.add,
        selects,
        onLabel,
        isSecond,
      };
      this.acted = selects || onLabel || isSecond ? null : { part: picked.part, pixel, time };
      const part = session.sheet.parts.get(picked.part);
      const isPressed =
        part && !selects && !onLabel && !isSecond && isMomentary(part) && this.bitAt(part, from) !== null;
      if (isPressed && !keys.add && !keys.shift && !session.state.on.has(part.id)) {
        this.heldButton = session.keyOf(part.id);
        session.put([[this.heldButton, 1]]);
      }
    } else this.now = { state: 'leaving', picked, pixel };
    this.context.drawing.repaint();
  }

  move(pixel: Point): void {
    const { session, now } = this;
    const { drawing } = this.context;
    const isFar = (from: Point) => Math.hypot(pixel.x - from.x, pixel.y - from.y) >= CLICK;
    const p = this.at(pixel);
    switch (now.state) {
      case 'idle':
        this.hover = this.under(pixel);
        break;
      case 'panning':
        if (!now.moved && !isFar(now.last)) return;
        drawing.setView(panned(drawing.view(), pixel.x - now.last.x, pixel.y - now.last.y));
        this.now = { state: 'panning', last: pixel, moved: true };
        break;
      case 'boxing':
        this.now = { ...now, to: p };
        break;
      case 'pressing':
        if (!isFar(now.pixel)) return;
        this.releaseButton();
        if (!session.state.selection.parts.has(now.part))
          session.select({ parts: new Set([now.part]), wires: new Set() });
        this.now = { state: 'moving', from: now.from, by: { x: 0, y: 0 }, guides: [], copy: now.add };
        this.move(pixel);
        return;
      case 'moving': {
        const by = { x: p.x - now.from.x, y: p.y - now.from.y };
        this.now = { ...now, ...snap(session.sheet, session.state.selection.parts, by) };
        break;
      }
      case 'leaving':
        if (!isFar(now.pixel)) return;
        this.now = this.left(now.picked);
        this.move(pixel);
        return;
      case 'pulling': {
        const flat = isFlat(courseOn(session.sheet, now.wire), now.segment);
        this.now = { ...now, by: Math.round(flat ? p.y - now.from.y : p.x - now.from.x) };
        break;
      }
      case 'spreading': {
        const [dx, dy] = [p.x - now.from.x, p.y - now.from.y];
        const axis =
          now.axis ??
          (Math.max(Math.abs(dx), Math.abs(dy)) < 1 ? null : Math.abs(dx) > Math.abs(dy) ? 'across' : 'down');
        this.now = { ...now, axis, by: Math.round(axis === 'down' ? dy : dx) };
        break;
      }
      case 'wiring': {
        this.hover = this.under(pixel, WIRE_END);
        const pin = this.hover?.is === 'pin' ? this.hover.end : null;
        this.now = {
          ...now,
          ...(now.clicking || now.end ? {} : extended(session.sheet, now, pin)),
          to: { x: Math.round(p.x), y: Math.round(p.y) },
        };
        break;
      }
    }
    drawing.repaint();
  }

  /** A drag away from a pin or a wire: a wire that is selected is taken hold of, any other place starts a new one. */
  private left(picked: PickedEnd): GestureState {
    const { sheet, state } = this.session;
    const { wires } = state.selection;
    if (picked.is === 'pin') {
      const isIt = (end: End) =>
        isPinEnd(end) && isPinEnd(picked.end) && end.part === picked.end.part && end.port === picked.end.port;
      for (const id of wires) {
        const wire = sheet.wires.get(id);
        const end = wire && (isIt(wire.from) ? 'from' : isIt(wire.to) ? 'to' : null);
        if (end) return wiringOfEnd(sheet, id, end);
      }
    } else if (wires.has(picked.wire)) {
      const end = endNear(sheet, picked.wire, picked.at);
      if (end) return wiringOfEnd(sheet, picked.wire, end);
      const segment = segmentAt(courseOn(sheet, picked.wire), picked.at);
      if (segment !== null) return { state: 'pulling', wire: picked.wire, segment, from: picked.at, by: 0 };
    }
    return wiringFrom(picked, false);
  }

  up(pixel: Point, keys: Keys): void {
    const { session, now } = this;
    const { selection } = session.state;
    this.releaseButton();
    switch (now.state) {
      case 'panning':
        if (!now.moved && !keys.shift) session.select(NOTHING);
        this.now = IDLE;
        break;
      case 'boxing': {
        const found = pickBox(session.sheet, this.box!);
        const { parts, wires } = keys.add ? selection : NOTHING;
        session.select({
          parts: new Set([...parts, ...found.parts]),
          wires: new Set([...wires, ...found.wires]),
        });
        this.now = IDLE;
        if (this.context.drawing.popup()?.is === 'selecting') this.context.drawing.open(null);
        break;
      }
      case 'pressing':
        this.now = IDLE;
        this.click(
          now.part,
          { ...keys, add: keys.add || now.selects },
          this.at(pixel),
          now.onLabel || now.isSecond,
        );
        break;
      case 'moving': {
        const edit = this.pending();
        this.now = IDLE;
        told(letGo(session, edit, now.copy));
        break;
      }
      case 'pulling':
      case 'spreading': {
        const edit = this.pending();
        this.now = IDLE;
        if (edit) told(session.edit(now.state === 'pulling' ? 'move a wire' : 'make room', edit));
        break;
      }
      case 'leaving':
        if (now.picked.is === 'wire') {
          const wires = new Set(keys.add ? selection.wires : []);
          if (!wires.delete(now.picked.wire)) wires.add(now.picked.wire);
          session.select({ parts: keys.add ? selection.parts : new Set(), wires });
          this.now = IDLE;
        } else this.now = wiringFrom(now.picked, true);
        break;
      case 'wiring':
        this.endWiring(now, pixel);
        break;
      default:
        break;
    }
    this.context.drawing.repaint();
  }

  private endWiring(wiring: Wiring, pixel: Point): void {
    const { session, context } = this;
    this.hover = this.under(pixel, WIRE_END);
    const target = wiringTarget(wiring, this.hover);
    // A first click on a pin starts a wire that follows the pointer until the second click.
    if (!target && wiring.clicking && this.hover?.is === 'pin') return;
    this.now = IDLE;
    if (joinPassedPins(session, wiring)) return;
    if (wiring.end) {
      if (target) told(moveEnd(session, wiring.end.wire, wiring.end.key, target.end));
    } else if (target) joinEnds(context, wiring.from[0]!, target.end);
    else if (this.hover?.is === 'part')
      session.say('A wire ends at a pin or on another wire: aim at the end of a short line.');
    else if (!this.hover && !session.state.readOnly) this.offerParts(wiring.from);
  }

  /** Offers the parts that fit where a wire was dropped on bare paper. */
  private offerParts(pull: readonly End[]): void {
    const { drawing } = this.context;
    const at = drawing.spot();
    drawing.open({ is: 'typing', at, first: '', pull, pointed: true });
  }

  /** The bit of an input whose lever stands at a point of the sheet; null beside it. */
  private bitAt(part: Part, at: Point): number | null {
    const kind = kindOf(part);
    return kind.bitAt ? kind.bitAt(part.params, inPart(at, part)) : 0;
  }

  private click(partId: string, keys: Keys, at: Point, onlySelects: boolean): void {
    const { session } = this;
    const { selection, on } = session.state;
    const part = session.sheet.parts.get(partId);
    if (!part) return;
    if (keys.add) {
      const parts = new Set(selection.parts);
      if (!parts.delete(partId)) parts.add(partId);
      session.select({ ...selection, parts });
      return;
    }
    session.select({ parts: new Set([partId]), wires: new Set() });
    const role = kindOf(part).role?.(part.params);
    const bit = this.bitAt(part, at);
    if (role?.role !== 'input' || onlySelects || bit === null) return;
    if (role.by === 'port' && kindOf(part).ports(part.params)[0]!.width > 1) {
      this.context.drawing.open({ is: 'value', part: partId });
      return;
    }
    const latched = role.by === 'button' && (keys.shift || on.has(session.keyOf(partId)));
    if (role.by === 'switch' || role.by === 'port' || latched) session.flip(partId, bit);
  }

  private releaseButton(): void {
    if (this.heldButton) this.session.put([[this.heldButton, 0]]);
    this.heldButton = null;
  }

  /**
   * Two clicks lead into a block, open the settings of any other part, and select the whole net of a wire. On a lever they
   * have moved it, and open nothing.
   */
  double(pixel: Point): void {
    const { session } = this;
    const picked = this.under(pixel);
    if (picked?.is === 'part') {
      const part = session.sheet.parts.get(picked.part);
      const role = part && !picked.onLabel ? kindOf(part).role?.(part.params) : undefined;
      if (part && sheetIdInside(part) !== undefined) session.enter(picked.part);
      else if (isByHand(role) && this.bitAt(part!, this.at(pixel)) !== null)
        session.say('Label and settings: press twice on the label, or F2.');
      else this.context.drawing.open({ is: 'settings', parts: [picked.part], at: 'label' });
    }
    if (picked?.is === 'wire')
      session.select({ parts: new Set(), wires: wiresOfNet(session.sheet, picked.wire) });
  }

  /** The pointer has left the sheet. */
  gone(): void {
    this.hover = null;
    this.context.drawing.repaint();
  }

  /** Cancels the gesture. @returns whether there was one. */
  cancel(): boolean {
    const wasBegun = this.now.state !== 'idle';
    this.releaseButton();
    this.now = IDLE;
    this.context.drawing.repaint();
    return wasBegun;
  }
}

/** Whether it is an input that a press moves. */
const isByHand = (role: Role | undefined): boolean =>
  role?.role === 'input' && (role.by === 'switch' || role.by === 'button' || role.by === 'port');
