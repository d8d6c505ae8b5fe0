import {
  type Box,
  boundingBoxOfPoints,
  eachSegment,
  grown,
  overlap,
  type Point,
} from '../../circuit/geometry';
import type { Part, Sheet } from '../../circuit/sheet';
import { terminalName } from '../../netlist/declared';
import type { SheetNets } from '../../netlist/netlist';
import { kindOf, roleOf } from '../../parts/catalogue';
import { naturalOrder } from '../../values/natural-order';
import { bodyOf, courseOf, footprintOf, pinsOf } from '../geometry/placement';
import { probeFor, probeOn } from './join-up';

/** An output inside the circuit that no lamp shows yet: a probe can make it a column of the table. */
export interface ProbeCandidate {
  readonly part: string;
  readonly port: string;
  /** The part's name, with the port's if it has several. */
  readonly name: string;
  /** The probe on its net, or null. */
  readonly probe: string | null;
}

/** All candidates for a column in between, by name: wired outputs of parts whose nets are not columns yet. */
export function probeCandidates(sheet: Sheet, nets: SheetNets): ProbeCandidate[] {
  const columns = new Set<number>();
  const probes = new Map<number, string>();
  for (const part of sheet.parts.values()) {
    const role = roleOf(part);
    if (!role) continue;
    for (const { port } of pinsOf(part)) {
      const net = nets.netsOfPin(part.id, port.name)?.[0];
      if (net === undefined) continue;
      if (kindOf(part).isProbe) probes.set(net, part.id);
      else columns.add(net);
    }
  }
  const wired = new Set([...sheet.wires.keys()].map((wire) => nets.netsOfWire(wire)?.[0]));
  const found: ProbeCandidate[] = [];
  for (const part of sheet.parts.values()) {
    if (roleOf(part)) continue;
    const outs = pinsOf(part).filter(({ port }) => port.direction === 'out');
    for (const { port } of outs) {
      const net = nets.netsOfPin(part.id, port.name)?.[0];
      if (net === undefined || columns.has(net) || !wired.has(net)) continue;
      const name = outs.length === 1 ? terminalName(part) : `${terminalName(part)} ${port.name}`;
      found.push({ part: part.id, port: port.name, name, probe: probes.get(net) ?? null });
    }
  }
  return found.sort((a, b) => naturalOrder(a.name, b.name));
}

function wiresOn(sheet: Sheet, nets: SheetNets, net: number): string[] {
  return [...sheet.wires.keys()].filter((wire) => nets.netsOfWire(wire)?.[0] === net);
}

/** A place on a wire for a probe. */
export interface ProbeSpot {
  readonly wire: string;
  readonly at: Point;
  /** Whether the wire runs from left to right there. */
  readonly flat: boolean;
  /** Steps of the grid from the wire to its foot. */
  readonly away: number;
}

/**
 * Where a probe for a part's output stands best: as near to it as nothing is in the way.
 * @param probe the probe, wherever it is now.
 * @returns null where no wire of the output is long enough.
 */
export function probeSpot(
  sheet: Sheet,
  nets: SheetNets,
  { part, port }: Pick<ProbeCandidate, 'part' | 'port'>,
  probe: Part,
): ProbeSpot | null {
  const net = nets.netsOfPin(part, port)?.[0];
  const from = pinsOf(sheet.parts.get(part)!).find((p) => p.port.name === port)?.at;
  if (net === undefined || !from) return null;
  const taken = [...sheet.parts.values()].map((p) => footprintOf(p));
  const pieces: Box[] = [];
  for (const wire of sheet.wires.values())
    eachSegment(courseOf(sheet, wire), (a, b) => pieces.push(boundingBoxOfPoints([a, b])!));
  let best: ProbeSpot | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const wire of wiresOn(sheet, nets, net)) {
    const fitting = probeFor(sheet, probe, wire);
    eachSegment(courseOf(sheet, sheet.wires.get(wire)!), (a, b) => {
      const flat = a.y === b.y;
      for (const at of between(a, b)) {
        for (const away of AWAY) {
          const way = Math.abs(away) * FARTHER + Math.hypot(at.x - from.x, at.y - from.y);
          if (way >= least) continue;
          const standing = probeOn(fitting, at, flat, away);
          const { y0, y1 } = grown(bodyOf(standing), TIP);
          // Its body with its label beside it, and the line that connects it to the wire.
          const box = { ...footprintOf(standing), y0, y1 };
          const lead = boundingBoxOfPoints([at, standing.at])!;
          const parts = taken.filter((t) => overlap(t, box) || overlap(t, grown(lead, -0.1))).length;
          const inner = grown(box, -0.3);
          const crossings = pieces.filter((p) => overlap(p, inner)).length;
          const cost = parts * IN_THE_WAY + crossings * CROSSED + way;
          if (cost >= least) continue;
          least = cost;
          best = { wire, at, flat, away };
        }
      }
    });
  }
  return best;
}

/** The cost of a part under the probe, and of a wire through it, in grid steps of distance. */
const IN_THE_WAY = 1000;
const CROSSED = 40;
/** The distances from the wire at which a probe may stand, to either side, and the cost of each. */
const AWAY = [0, 2, 4, 6, 8, -4, -6, -8, -10];
const FARTHER = 3;
/** Steps from its body to the end of its tip. */
const TIP = 0.6;

/** The points of the grid within a piece of a wire. */
function between(a: Point, b: Point): Point[] {
  const length = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
  const step = { x: Math.sign(b.x - a.x), y: Math.sign(b.y - a.y) };
  return Array.from({ length: Math.max(0, length - 1) }, (_, k) => ({
    x: a.x + step.x * (k + 1),
    y: a.y + step.y * (k + 1),
  }));
}
