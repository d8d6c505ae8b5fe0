import { sheetOf } from '@/core/circuit/lesson';
import { type Between, probeSpot } from '@/core/drawing/between';
import { newPart, remove } from '@/core/drawing/gestures';
import { probeEdit } from '@/core/drawing/join-up';
import { findKind } from '@/core/parts/catalogue';
import { DONE, type Result, refused } from '@/core/values/result';
import type { Session } from '../session';

/** Makes what a part gives out a column of the table, by a probe that bears its name, or takes the column away. */
export function showBetween(session: Session, between: Between, shown: boolean): Result<undefined> {
  const { lesson, rootId, netlist } = session.state;
  const sheet = sheetOf(lesson, rootId)!;
  if (!shown) {
    if (!between.probe) return DONE;
    return session.edit(
      `remove the column ${between.name}`,
      remove(sheet, new Set([between.probe]), new Set()),
    );
  }
  const fresh = newPart(sheet, findKind('probe')!, { x: 0, y: 0 }, {}, between.name);
  const spot = probeSpot(sheet, netlist, between, fresh);
  if (!spot) {
    session.say(`The wire of ${between.name} is too short for a probe: make it longer first.`, 'bad');
    return refused('no-room', `the wire of ${between.name} is too short for a probe`);
  }
  return session.edit(
    `add the column ${between.name}`,
    probeEdit(sheet, fresh, spot.wire, spot.at, spot.flat, true, spot.away),
  );
}
