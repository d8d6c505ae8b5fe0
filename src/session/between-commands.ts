import { sheetOf } from '@/core/circuit/lesson';
import { type Between, probeSpot } from '@/core/drawing/between';
import { newPart, remove } from '@/core/drawing/gestures';
import { probeEdit } from '@/core/drawing/join-up';
import { findKind } from '@/core/parts/catalogue';
import type { Session } from './session';

/** Makes what a part gives out a column of the table, by a probe that bears its name, or takes the column away. */
export function showBetween(session: Session, between: Between, shown: boolean): void {
  const { lesson, rootId, netlist } = session.state;
  const sheet = sheetOf(lesson, rootId)!;
  if (!shown) {
    if (between.probe) session.edit(remove(sheet, new Set([between.probe]), new Set()));
    return;
  }
  const fresh = newPart(sheet, findKind('probe')!, { x: 0, y: 0 }, {}, between.name);
  const spot = probeSpot(sheet, netlist, between, fresh);
  if (!spot) {
    session.say(`The wire of ${between.name} is too short for a probe: make it longer first.`, 'bad');
    return;
  }
  session.edit(probeEdit(sheet, fresh, spot.wire, spot.at, spot.flat, true, spot.away));
}
