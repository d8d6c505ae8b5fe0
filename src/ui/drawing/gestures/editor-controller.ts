import type { KeyPress } from '@/commands/chord';
import type { EditorContext } from '@/commands/context';
import { pressKey, releaseKey } from '@/commands/keys';
import { activatePart } from '@/commands/parts';
import { Flick } from '@/commands/popup';
import type { Point } from '@/core/circuit/geometry';
import { isPinEnd } from '@/core/circuit/sheet';
import { settle } from '@/core/drawing/editing/settle';
import { updateDerived } from '@/core/synthesis/update-derived';
import type { Result } from '@/core/values/result';
import { copied, pasteText } from '@/session/changes/clipboard';
import { removeSelected } from '@/session/changes/parts';
import { probeText } from '../canvas/probe-text';
import { PointerGesture } from './pointer-gesture';
import { Pointers } from './pointers';

/** Everything that pointers and keys do on the sheet; fetched when they first come to it. */
export class EditorController {
  readonly gesture: PointerGesture;
  readonly pointers: Pointers;

  constructor(private readonly context: EditorContext) {
    context.session.setUpdateDerived(updateDerived);
    context.session.setSettled(settle);
    this.gesture = new PointerGesture(context);
    this.pointers = new Pointers(this.gesture, context, (pixel) => this.openAt(pixel));
  }

  /**
   * Opens the menu of a press with the right button, or of a finger that rests: actions for a part or wire, or the ring on bare
   * paper, which the pointer goes on into.
   */
  openAt(pixel: Point): void {
    if (!this.chooseUnder(pixel))
      this.context.drawing.open({ is: 'ring', at: pixel, flick: new Flick(), pointed: true });
  }

  /** Selects the object under a pixel and opens its actions. @returns whether there is one. */
  chooseUnder(pixel: Point): boolean {
    const { session, drawing } = this.context;
    // A little beside a wire still means the wire.
    const picked = this.gesture.under(pixel, { wires: 1.8 });
    const { selection } = session.state;
    if (!picked) return false;
    if (picked.is === 'wire' ? !selection.wires.has(picked.wire) : !selection.parts.has(picked.part))
      session.select(
        picked.is === 'wire'
          ? { parts: new Set(), wires: new Set([picked.wire]) }
          : { parts: new Set([picked.part]), wires: new Set() },
      );
    const pin = picked.is === 'pin' && isPinEnd(picked.end) ? picked.end : undefined;
    drawing.open({ is: 'actions', at: pixel, ...(pin && { pin }) });
    return true;
  }

  /** @returns whether the key did anything. */
  press(press: KeyPress): boolean {
    return pressKey(press, this.context);
  }

  release(key: string): void {
    releaseKey(key, this.context);
  }

  /** Runs the command of Enter for a part. */
  activate(part: string): void {
    activatePart(this.context, part);
  }

  /** The selection as text for the clipboard, removed if it is cut; null if nothing is selected. */
  copy(cut: boolean): string | null {
    const { session } = this.context;
    const text = copied(session);
    if (!text || !cut) return text;
    return removeSelected(session).ok ? text : null;
  }

  paste(text: string): Result<undefined> {
    const { session } = this.context;
    return pasteText(session, text);
  }

  /** The value of the wire or pin under the pointer, in words. */
  probe(): string | null {
    const { hover, isIdle } = this.gesture;
    return hover && isIdle && hover.is !== 'part' ? probeText(this.context.session, hover) : null;
  }
}
