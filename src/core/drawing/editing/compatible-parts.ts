import { type End, isPinEnd, type Params, type Sheet } from '../../circuit/sheet';
import { defaultParams, readParams } from '../../parts/params';
import type { PartKind, Port } from '../../parts/part-kind';
import { pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';

/** The requirement of a wire's end at its other end: a reading or a driving pin, of so many bits. */
export interface PinRequirement {
  readonly direction: 'in' | 'out';
  readonly width: number;
}

/** A kind that can take up a wire, with the parameters that make it wide enough, and the port for it. */
export interface CompatiblePart {
  readonly kind: PartKind;
  readonly params: Params;
  readonly port: string;
}

/** The requirement at an end of a wire: a reader if the net has a driver already, else a driver. */
export function requirementAt(sheet: Sheet, end: End): PinRequirement {
  const nets = wireNets(sheet);
  const net = isPinEnd(end) ? nets.ofEnd(end) : nets.ofWire(end.wire);
  const pins = [...sheet.parts.values()].flatMap((part) =>
    pinsOf(part).filter(({ port }) => {
      if (isPinEnd(end) && end.part === part.id && end.port === port.name) return true;
      return net !== undefined && nets.ofEnd({ part: part.id, port: port.name }) === net;
    }),
  );
  return {
    direction: pins.some((p) => p.port.direction === 'out') ? 'in' : 'out',
    width: pins[0]?.port.width ?? 1,
  };
}

/** The first port of a kind that is as wanted. */
export function matchingPort(kind: PartKind, params: Params, wanted: PinRequirement): Port | undefined {
  return kind
    .ports(params)
    .find((p) => (p.direction === wanted.direction || p.direction === 'both') && p.width === wanted.width);
}

/** Parameters under which a kind has a port as wanted: as they are, or as wide as the wire. Null where none do. */
export function fittingParams(kind: PartKind, params: Params, wanted: PinRequirement): Params | null {
  if (matchingPort(kind, params, wanted)) return params;
  const wider = readParams(kind, { ...params, width: wanted.width });
  return wider.ok && matchingPort(kind, wider.value, wanted) ? wider.value : null;
}

/** The kind that a wire is mostly led to, or comes from, before all others. */
const FIRST = { in: 'lamp', out: 'switch' } as const;

/** Families in the order in which they are mostly wanted. */
const READERS = ['Gates', 'Outputs', 'Storage', 'Registers', 'Functions', 'Wiring', 'Blocks'];
const DRIVERS = ['Inputs', 'Gates', 'Time', 'Storage', 'Registers', 'Functions', 'Wiring', 'Blocks'];

/** The kinds that can take up a wire, best first. */
export function compatibleParts(kinds: readonly PartKind[], wanted: PinRequirement): CompatiblePart[] {
  const order = wanted.direction === 'in' ? READERS : DRIVERS;
  const rank = (kind: PartKind) => (kind.kind === FIRST[wanted.direction] ? -1 : place(order, kind));
  return kinds
    .flatMap((kind) => {
      const params = fittingParams(kind, defaultParams(kind), wanted);
      return params ? [{ kind, params, port: matchingPort(kind, params, wanted)!.name }] : [];
    })
    .sort((a, b) => rank(a.kind) - rank(b.kind));
}

function place(order: readonly string[], kind: PartKind): number {
  const at = order.indexOf(kind.family);
  return at === -1 ? order.length : at;
}
