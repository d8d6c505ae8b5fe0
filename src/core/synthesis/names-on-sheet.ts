import type { End, Part, PinEnd, Sheet } from '../circuit/sheet';
import { portsFor } from '../drawing/editing/ports';
import { pinsOf } from '../drawing/geometry/placement';
/*
 * What the names of a statement mean on a sheet: the ends that drive and the pins that are driven.
 */

/** The end from which a name is read; undefined where nothing is called so yet. */
export function sourceNamed(sheet: Sheet, name: string): End | undefined {
  const pinned = pinOfName(sheet, name);
  if (pinned) return pinned;
  const part = labelled(sheet, name);
  if (!part) return undefined;
  const pins = pinsOf(part);
  const pin = pins.find((p) => p.port.direction === 'out') ?? pins[0];
  return pin && { part: part.id, port: pin.port.name };
}

/** A sheet with ports in place of its switches and lamps. */
export function withPorts(sheet: Sheet): Sheet {
  const parts = new Map(sheet.parts);
  for (const edit of portsFor(sheet))
    if (edit.type === 'changePart') parts.set(edit.id, { ...parts.get(edit.id)!, ...edit.change });
  return { ...sheet, parts };
}

/** The pin that `H1.Sum` names. */
export function pinOfName(sheet: Sheet, name: string): PinEnd | null {
  const dot = name.lastIndexOf('.');
  const part = dot > 0 ? labelled(sheet, name.slice(0, dot)) : undefined;
  const wanted = name.slice(dot + 1).toLowerCase();
  const pin = part && pinsOf(part).find((p) => p.port.name.toLowerCase() === wanted);
  return part && pin ? { part: part.id, port: pin.port.name } : null;
}

/** The part and its input that `Q1.T` names; neither where no part is called so. */
export function pinNamed(sheet: Sheet, target: string): [Part | undefined, string | undefined] {
  const dot = target.lastIndexOf('.');
  if (dot <= 0) return [undefined, undefined];
  const part = labelled(sheet, target.slice(0, dot));
  const wanted = target.slice(dot + 1).toLowerCase();
  const pin =
    part && pinsOf(part).find((p) => p.port.direction === 'in' && p.port.name.toLowerCase() === wanted);
  return [part, pin?.port.name];
}

export function labelled(sheet: Sheet, name: string): Part | undefined {
  const parts = [...sheet.parts.values()];
  const same = (p: Part) => p.label.toLowerCase() === name.toLowerCase();
  return (
    parts.find((p) => p.label === name && drives(p)) ??
    parts.find((p) => p.label === name) ??
    parts.find((p) => same(p) && drives(p)) ??
    parts.find(same)
  );
}

export const drives = (part: Part) => pinsOf(part).some((p) => p.port.direction === 'out');
