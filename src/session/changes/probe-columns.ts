import { sheetOf } from '@/core/circuit/lesson';
import { newPart, remove } from '@/core/drawing/editing/gestures';
import { probeEdit } from '@/core/drawing/editing/join-up';
import { type ProbeCandidate, probeSpot } from '@/core/drawing/editing/probe-columns';
import { findKind } from '@/core/parts/catalogue';
import { DONE, type Result, refused } from '@/core/values/result';
import type { Session } from '../session';

/**
 * Adds an output inside the circuit as a column of the table, by a probe with its name, or removes the
 * column.
 */
export function showProbeColumn(
  session: Session,
  between: ProbeCandidate,
  shown: boolean,
): Result<undefined> {
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
