import type { RefObject } from 'react';
import type { Point } from '@/core/circuit/geometry';
import { sheetIdInside } from '@/core/parts/catalogue';
import { updateDerived } from '@/core/synthesis/update-derived';
import type { Result } from '@/core/values/result';
import { copied, pasteText } from '@/session/changes/clipboard';
import { removeSelected } from '@/session/changes/parts';
import type { Session } from '@/session/session';
import { allowedIn } from '../../../session/placeable';
import { probeText } from '../canvas/probe-text';
import { type View, zoomed } from '../canvas/view';
import type { Popup } from '../popups/popup';
import { drawingKey, type KeyPress, type KeySurroundings } from './keys';
import { type GestureSurroundings, PointerGesture } from './pointer-gesture';
import { Pointers } from './pointers';

export interface EditorSurroundings
  extends Omit<GestureSurroundings, 'openSettings' | 'openValue' | 'unequal' | 'offer' | 'view' | 'setView'> {
  readonly view: RefObject<View>;
  opened(): Popup | null;
  open(next: Popup | null): void;
  openTyping(first: string): void;
  act(part: string): void;
  showAll(): void;
  nextProblem(): void;
  /** Whether the pointer is over the sheet. */
  pointed(): boolean;
  /** Where keys put things, in pixels: at the pointer, or in the middle. */
  spot(): Point;
}

/** Everything that hands and keys do on the sheet; fetched when they first come to it. */
export class EditorController {
  readonly hand: PointerGesture;
  readonly pointers: Pointers;
  private readonly session: Session;

  constructor(private readonly around: EditorSurroundings) {
    const { session, view, repaint, open } = around;
    this.session = session;
    session.setUpdateDerived(updateDerived);
    const show = (next: View) => {
      view.current = next;
    };
    const seen = { view: () => view.current, setView: show, repaint };
    this.hand = new PointerGesture({
      ...seen,
      session,
      openSettings: (id) => {
        // Two clicks on a block lead into it; F2 sets what can be set about it.
        const part = session.sheet.parts.get(id);
        if (part && sheetIdInside(part) !== undefined) session.enter(id);
        else open({ is: 'settings', parts: [id], at: 'label' });
      },
      unequal: (from, to) => open({ is: 'widths', at: around.spot(), from, to }),
      openValue: (part) => open({ is: 'value', part }),
      offer: (pull) => {
        if (!session.state.readOnly)
          open({ is: 'typing', at: around.spot(), first: '', entered: false, next: '', pull, pointed: true });
      },
    });
    this.pointers = new Pointers(this.hand, { ...seen, held: (pixel) => this.openAt(pixel) });
  }

  /** What a press with the right button opens: what can be done with a part or wire, or the ring on bare paper. */
  openAt(pixel: Point): void {
    if (!this.chooseUnder(pixel)) this.around.open({ is: 'ring', at: pixel, flick: null, pointed: true });
  }

  /** Selects what lies under a pixel and opens what can be done with it. @returns whether anything lies there. */
  chooseUnder(pixel: Point): boolean {
    const { session } = this;
    const picked = this.hand.under(pixel);
    const { selection } = session.state;
    if (!picked) return false;
    if (picked.is === 'wire' ? !selection.wires.has(picked.wire) : !selection.parts.has(picked.part))
      session.select(
        picked.is === 'wire'
          ? { parts: new Set(), wires: new Set([picked.wire]) }
          : { parts: new Set([picked.part]), wires: new Set() },
      );
    this.around.open({ is: 'actions', at: pixel });
    return true;
  }

  key(press: KeyPress): boolean {
    const { around } = this;
    const surroundings: KeySurroundings = {
      session: this.session,
      opened: around.opened(),
      open: around.open,
      openRing: () => around.open({ is: 'ring', at: around.spot(), flick: null, pointed: around.pointed() }),
      openTyping: around.openTyping,
      openActions: () => around.open({ is: 'actions', at: around.spot() }),
      act: around.act,
      showAll: around.showAll,
      nextProblem: around.nextProblem,
      zoom: (factor) => {
        const at = around.spot();
        around.view.current = zoomed(around.view.current, factor, at.x, at.y);
        around.repaint();
      },
      cancel: () => this.hand.cancel(),
    };
    return drawingKey(press, surroundings);
  }

  /** Text of what is selected for the clipboard, taken away where it is cut; null where nothing is. */
  copy(cut: boolean): string | null {
    const text = copied(this.session);
    if (!text || !cut) return text;
    return removeSelected(this.session).ok ? text : null;
  }

  paste(text: string): Result<undefined> {
    return pasteText(this.session, text, allowedIn(this.session));
  }

  /** What the wire or pin under the pointer carries, in words. */
  probe(): string | null {
    const { hover, idle } = this.hand;
    return hover && idle && hover.is !== 'part' ? probeText(this.session, hover) : null;
  }
}
