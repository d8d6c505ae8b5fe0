import type { Box, Point } from '@/core/circuit/geometry';
import type { End } from '@/core/circuit/lesson';
import { connect } from '@/core/drawing/gestures';
import { inPart } from '@/core/drawing/placement';
import { kindOf } from '@/core/parts/catalogue';
import { moveParts, wire } from '@/session/commands';
import { NOTHING, type Session } from '@/session/session';
import { type Picked, pick, pickBox } from './pick';
import { panned, toSheet, type View } from './view';

/** What a hand on the sheet is doing: each state is one stretch of a gesture. */
type Doing =
  | { readonly state: 'idle' }
  | { readonly state: 'panning'; readonly last: Point; readonly moved: boolean }
  | {
      readonly state: 'pressing';
      readonly part: string;
      readonly from: Point;
      readonly pixel: Point;
      readonly add: boolean;
    }
  | { readonly state: 'moving'; readonly from: Point; readonly by: Point }
  | { readonly state: 'boxing'; readonly from: Point; readonly to: Point }
  | { readonly state: 'leaving'; readonly picked: Exclude<Picked, { is: 'part' }>; readonly pixel: Point }
  | {
      readonly state: 'wiring';
      readonly from: End;
      readonly start: Point;
      readonly to: Point;
      readonly clicking: boolean;
    };

export interface HandSurroundings {
  readonly session: Session;
  view(): View;
  setView(view: View): void;
  /** Something that is painted has changed. */
  repaint(): void;
  openSettings(part: string): void;
}

/** A press that moves less than this many pixels is a click. */
const CLICK = 5;

/**
 * The gestures of one pointer on the sheet. Dragging paper pans; dragging from a pin or a wire draws a wire;
 * dragging a part moves it; a click on a switch flips it; a button is held while it is pressed.
 */
export class Hand {
  private doing: Doing = { state: 'idle' };
  private heldButton: string | null = null;
  hover: Picked | null = null;

  constructor(private readonly around: HandSurroundings) {}

  get rubber(): Point[] | null {
    if (this.doing.state !== 'wiring') return null;
    const { start, to, from } = this.doing;
    const over = this.target();
    if (over) {
      const edit = connect(this.around.session.sheet, from, over.end);
      if (edit?.type === 'addWire') return [start, ...edit.wire.course, over.at];
    }
    return [start, { x: to.x, y: start.y }, to];
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

  /** Where the selected parts are being taken, in grid steps from where they were. */
  get dragged(): Point | null {
    return this.doing.state === 'moving' ? this.doing.by : null;
  }

  get wiring(): boolean {
    return this.doing.state === 'wiring';
  }

  get cursor(): string {
    switch (this.doing.state) {
      case 'panning':
      case 'moving':
        return 'grabbing';
      case 'wiring':
      case 'leaving':
        return 'crosshair';
      default:
        if (this.hover?.is === 'pin' || this.hover?.is === 'wire') return 'crosshair';
        return this.hover ? 'pointer' : 'default';
    }
  }

  private at(pixel: Point): Point {
    return toSheet(this.around.view(), pixel.x, pixel.y);
  }

  private picked(pixel: Point): Picked | null {
    return pick(this.around.session.sheet, this.at(pixel), this.around.view().scale);
  }

  down(pixel: Point, keys: { shift: boolean; add: boolean; middle: boolean }): void {
    const { session } = this.around;
    if (this.doing.state === 'wiring') return;
    const picked = keys.middle ? null : this.picked(pixel);
    if (!picked) {
      this.doing =
        keys.shift && !keys.middle
          ? { state: 'boxing', from: this.at(pixel), to: this.at(pixel) }
          : { state: 'panning', last: pixel, moved: false };
    } else if (picked.is === 'part') {
      this.doing = { state: 'pressing', part: picked.part, from: this.at(pixel), pixel, add: keys.add };
      const part = session.sheet.parts.get(picked.part);
      if (part?.kind === 'button' && !keys.add && !keys.shift && !session.state.on.has(part.id)) {
        this.heldButton = session.keyOf(part.id);
        session.put([[this.heldButton, 1]]);
      }
    } else this.doing = { state: 'leaving', picked, pixel };
    this.around.repaint();
  }

  move(pixel: Point): void {
    const { session, view, setView, repaint } = this.around;
    const { doing } = this;
    const far = (from: Point) => Math.hypot(pixel.x - from.x, pixel.y - from.y) >= CLICK;
    switch (doing.state) {
      case 'idle':
        this.hover = this.picked(pixel);
        break;
      case 'panning':
        if (!doing.moved && !far(doing.last)) return;
        setView(panned(view(), pixel.x - doing.last.x, pixel.y - doing.last.y));
        this.doing = { state: 'panning', last: pixel, moved: true };
        break;
      case 'boxing':
        this.doing = { ...doing, to: this.at(pixel) };
        break;
      case 'pressing':
        if (!far(doing.pixel)) return;
        this.releaseButton();
        if (!session.state.selection.parts.has(doing.part))
          session.select({ parts: new Set([doing.part]), wires: new Set() });
        this.doing = { state: 'moving', from: doing.from, by: { x: 0, y: 0 } };
        this.move(pixel);
        return;
      case 'moving': {
        const p = this.at(pixel);
        this.doing = {
          ...doing,
          by: { x: Math.round(p.x - doing.from.x), y: Math.round(p.y - doing.from.y) },
        };
        break;
      }
      case 'leaving':
        if (!far(doing.pixel)) return;
        this.startWiring(doing.picked, false);
        this.move(pixel);
        return;
      case 'wiring': {
        const p = this.at(pixel);
        this.doing = { ...doing, to: { x: Math.round(p.x), y: Math.round(p.y) } };
        this.hover = this.picked(pixel);
        break;
      }
    }
    repaint();
  }

  private startWiring(picked: Exclude<Picked, { is: 'part' }>, clicking: boolean): void {
    const from: End = picked.is === 'pin' ? picked.end : { wire: picked.wire, at: picked.at };
    this.doing = { state: 'wiring', from, start: picked.at, to: picked.at, clicking };
  }

  /** The pin or wire under the pointer at which a wire could end. */
  private target(): { end: End; at: Point } | null {
    if (this.doing.state !== 'wiring' || !this.hover || this.hover.is === 'part') return null;
    const { from } = this.doing;
    if (this.hover.is === 'wire') {
      if ('wire' in from && from.wire === this.hover.wire) return null;
      return { end: { wire: this.hover.wire, at: this.hover.at }, at: this.hover.at };
    }
    if (
      'part' in from &&
      'part' in this.hover.end &&
      from.part === this.hover.end.part &&
      from.port === this.hover.end.port
    )
      return null;
    return { end: this.hover.end, at: this.hover.at };
  }

  up(pixel: Point, keys: { shift: boolean; add: boolean }): void {
    const { session, repaint } = this.around;
    const { doing } = this;
    this.releaseButton();
    switch (doing.state) {
      case 'panning':
        if (!doing.moved && !keys.shift) session.select(NOTHING);
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
        this.click(doing.part, keys, toSheet(this.around.view(), pixel.x, pixel.y));
        break;
      case 'moving':
        this.doing = { state: 'idle' };
        moveParts(session, session.state.selection.parts, doing.by);
        break;
      case 'leaving':
        if (doing.picked.is === 'wire') {
          session.select({ parts: new Set(), wires: new Set([doing.picked.wire]) });
          this.doing = { state: 'idle' };
        } else this.startWiring(doing.picked, true);
        break;
      case 'wiring': {
        this.hover = this.picked(pixel);
        const over = this.target();
        // A first click on a pin starts a wire that follows the pointer until the second click.
        if (!over && doing.clicking && this.hover?.is === 'pin') break;
        this.doing = { state: 'idle' };
        if (over) wire(session, doing.from, over.end);
        else if (this.hover?.is === 'part')
          session.say('A wire ends at a pin or on another wire: aim at the end of a short line.');
        break;
      }
      default:
        break;
    }
    repaint();
  }

  private click(partId: string, keys: { shift: boolean; add: boolean }, at: Point): void {
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
    const latched = role.by === 'button' && (keys.shift || session.state.on.has(session.keyOf(partId)));
    const bit = kindOf(part).bitAt?.(part.params, inPart(at, part).y) ?? 0;
    if (role.by === 'switch' || role.by === 'port' || latched) session.flip(partId, bit);
  }

  private releaseButton(): void {
    if (this.heldButton) this.around.session.put([[this.heldButton, 0]]);
    this.heldButton = null;
  }

  /** Two clicks on a part open what can be set about it. */
  double(pixel: Point): void {
    const picked = this.picked(pixel);
    if (picked?.is === 'part') this.around.openSettings(picked.part);
  }

  leave(): void {
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
