import { move } from '@/core/drawing/editing/gestures';
import { courseOf, pinsOf } from '@/core/drawing/geometry/placement';
import { PLACEABLE } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import {
  alignSelected,
  distributeSelected,
  mirrorSelected,
  numberSelected,
  spreadFromSelected,
  tidySheet,
} from '../changes/arrange';
import { duplicateSelected, repeatSelected } from '../changes/clipboard';
import { letGo, moveParts, relabel, removeSelected, setParam, turnSelected } from '../changes/parts';
import { place, placeFrom } from '../changes/place';
import { colourWires, pinProbe, rerouteSelected, straightenSelected, wire } from '../changes/wires';
import { selectNet } from '../select';
import type { Session } from '../session';

/**
 * Makes one random gesture.
 * @param roll gives numbers in [0, 1).
 * @param most parts from which on no more are placed.
 * @returns the answer to it: a `Result` where it changes the document.
 */
export function randomGesture(session: Session, roll: () => number, most = 30): unknown {
  const parts = [...session.sheet.parts.values()];
  const wires = [...session.sheet.wires.keys()];
  const any = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!;
  const whole = (least: number, most: number) => least + Math.floor(roll() * (most - least + 1));
  const some = new Set(parts.filter(() => roll() < 0.3).map((p) => p.id));
  session.select({ parts: some, wires: new Set(wires.filter(() => roll() < 0.2)) });
  const point = () => ({ x: whole(-20, 50), y: whole(-20, 50) });
  const pin = () => {
    const part = any(parts);
    const port = any(pinsOf(part))?.port.name;
    return port ? { part: part.id, port } : null;
  };
  const gestures: (() => unknown)[] = [
    () => parts.length < most && place(session, any(PLACEABLE), {}, [''], point()),
    () => parts.length < most && place(session, any(PLACEABLE), {}, ['', 'Bars'], point()),
    () => {
      const [a, b] = [pin(), pin()];
      return a && b && wire(session, a, b);
    },
    () => {
      const a = pin();
      const kind = any(PLACEABLE);
      return a && parts.length < most && placeFrom(session, [a], kind, defaultParams(kind), '', point());
    },
    () => moveParts(session, some, { x: whole(-4, 4), y: whole(-4, 4) }),
    () => {
      const id = any(parts).id;
      session.select({ parts: new Set([id]), wires: new Set() });
      const by = { x: whole(-9, 9), y: whole(-9, 9) };
      return letGo(session, move(session.state.lesson, session.state.sheetId, new Set([id]), by), false);
    },
    () => turnSelected(session, whole(-1, 2)),
    () => mirrorSelected(session, any(['across', 'down'])),
    () => parts.length < (most * 2) / 3 && duplicateSelected(session),
    () => parts.length < most * 0.4 && repeatSelected(session, 2, { x: 0, y: 9 }),
    () => removeSelected(session, roll() < 0.5),
    () => alignSelected(session, any(['left', 'centre', 'right', 'top', 'middle', 'bottom'])),
    () => distributeSelected(session, any(['across', 'down'])),
    () => straightenSelected(session),
    () => spreadFromSelected(session, any(['across', 'down']), whole(-4, 6)),
    () => rerouteSelected(session),
    () => colourWires(session, any(['rose', 'teal', undefined])),
    () => selectNet(session),
    () => numberSelected(session, 'A0'),
    () => relabel(session, any(parts).id, any(['Key', 'Q_0', ''])),
    () => setParam(session, [any(parts).id], any(['inputs', 'width', 'caption']), whole(1, 5)),
    () => {
      const id = any(wires);
      const at = id && courseOf(session.sheet, session.sheet.wires.get(id)!)[0];
      return at && pinProbe(session, id, at);
    },
    () => roll() < 0.2 && tidySheet(session),
    () => session.undo(),
    () => session.redo(),
  ];
  if (parts.length === 0) return place(session, PLACEABLE[0]!, {}, [''], point());
  return any(gestures)();
}
