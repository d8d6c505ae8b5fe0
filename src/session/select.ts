import { isPinEnd } from '@/core/circuit/sheet';
import { wireNets } from '@/core/drawing/geometry/wire-nets';
import { wiresOnParts } from '@/core/drawing/routing/reroute';
import type { Session } from './session';

/*
 * Selections that follow from the present one.
 */

export function selectAll(session: Session): void {
  const { parts, wires } = session.sheet;
  session.select({ parts: new Set(parts.keys()), wires: new Set(wires.keys()) });
}

/** The nets of the selected wires, and all nets of the sheet. */
function chosenNets(session: Session) {
  const nets = wireNets(session.sheet);
  return { nets, chosen: new Set([...session.state.selection.wires].map((id) => nets.ofWire(id))) };
}

/** Selects all wires connected to the selected ones. */
export function selectNet(session: Session): void {
  const { nets, chosen } = chosenNets(session);
  const wires = [...session.sheet.wires.keys()].filter((id) => chosen.has(nets.ofWire(id)));
  session.select({ ...session.state.selection, wires: new Set(wires) });
}

/** Selects the wires of the selected parts instead of the parts. */
export function selectWires(session: Session): void {
  const wires = new Set(wiresOnParts(session.sheet, session.state.selection.parts));
  if (wires.size > 0) session.select({ parts: new Set(), wires });
  else session.say('Nothing is wired to this part yet.');
}

/** Selects the parts at either end of the selected wires' nets. */
export function selectPartsOnNet(session: Session): void {
  const { nets, chosen } = chosenNets(session);
  const parts = new Set<string>();
  for (const wire of session.sheet.wires.values())
    if (chosen.has(nets.ofWire(wire.id)))
      for (const end of [wire.from, wire.to]) if (isPinEnd(end)) parts.add(end.part);
  session.select({ parts, wires: new Set() });
}
