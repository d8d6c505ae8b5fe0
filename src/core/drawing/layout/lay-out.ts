import { boundingBox, type Point, simplified } from '../../circuit/geometry';
import { isPinEnd, type PinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { courseOf, footprintOf, pinOf } from '../geometry/placement';
import { type WireNets, wireNets } from '../geometry/wire-nets';
import { isFree, Obstacles, type RouteEnd, route } from '../routing/route';
import { channelOf } from './channels';
import { assignCoordinates } from './coordinate-assignment';
import { alongRows, minimiseCrossings } from './crossing-minimisation';
import { isLaidOutPlainly, layOutLarge } from './large-sheet';
import { flowOf, layersOf } from './layers';
import { type LayeredGraph, type Link, layeredGraphOf } from './layout-nodes';
import { railsFor } from './rails';
import { isAtOnce, rowsOf } from './rows';

/** Free grid steps on both sides of the tracks between two columns, and where there are few, between those. */
const MARGIN = 2;
const FEW_TRACKS = 4;
/**
 * Wires that do not run from left to right are laid one by one, as long as there are no more of them than this, and of the sheet
 * no more grid points for all of them together.
 */
const MOST_SEARCHED = 60;
const MOST_POINTS = 1_500_000;

/**
 * Gives the parts of a sheet places and its wires courses, from left to right: inputs, then each part behind
 * those that it reads, outputs last (Sugiyama, Tagawa and Toda, 1981, "Methods for visual understanding of
 * hierarchical system structures"): columns, the order within each, heights, tracks for the wires between the
 * columns. Wires that run back, or along a column, are routed last, around everything else.
 */
export function layOut(sheet: Sheet): Sheet {
  if (sheet.parts.size === 0) return sheet;
  if (isLaidOutPlainly(sheet)) return layOutLarge(sheet);
  const rows = rowsOf(sheet, flowOf(sheet, isAtOnce));
  const graph = layeredGraphOf(sheet, layersOf(sheet, rows), rows);
  minimiseCrossings(graph);
  alongRows(graph);
  // Where a wire finds no way, or only a poor one, all is laid out once more with more room.
  const tried: Laid[] = [];
  for (let wider = 0; wider <= MOST_WIDER; wider += 1) {
    const placed = placedSheet(sheet, graph, wider);
    if (isTooMuch(placed)) return withRails(sheet, graph);
    const isMany = placed.open.length > FEW_OPEN;
    const laid = withCourses(placed.sheet, placed.open, isMany ? FEW_TRIES : MOST_TRIES);
    if (laid.stuck.size === 0 && laid.roundabout === 0) return laid.sheet;
    tried.push(laid);
    if (!isMany) continue;
    // Where many are in each other's way, rails have room for all of them.
    const railed = placedSheet(sheet, graph, wider, true);
    const over = withCourses(railed.sheet, railed.open);
    if (over.stuck.size === 0) return over.sheet;
    tried.push(over);
  }
  const best = tried.reduce((a, b) => (isBetter(b, a) ? b : a));
  if (best.stuck.size === 0) return best.sheet;
  // As a last resort, laid wires make way for stuck ones, on the widest sheet first.
  let least = best;
  for (const laid of tried.reverse()) {
    const made = withWayMade(laid);
    if (made.stuck.size < least.stuck.size) least = made;
    if (made.stuck.size === 0) break;
  }
  return least.sheet;
}

/** Whether a search for the ways of all open wires would take too long. */
function isTooMuch({ sheet, open }: Placed): boolean {
  if (open.length > MOST_SEARCHED) return true;
  const { x0, y0, x1, y1 } = boundingBox([...sheet.parts.values()].map(footprintOf))!;
  return open.length * (x1 - x0) * (y1 - y0) > MOST_POINTS;
}

/** Lays wires that lead back over rails, and gives plain corners to those that cannot take one. */
function withRails(sheet: Sheet, graph: LayeredGraph): Sheet {
  const { sheet: placed, open } = placedSheet(sheet, graph, 0, true);
  if (isTooMuch({ sheet: placed, open })) return withCorners(placed, open);
  const laid = withCourses(placed, open, 1);
  return withCorners(laid.sheet, laid.stuck);
}

function isBetter(a: Laid, b: Laid): boolean {
  return a.stuck.size < b.stuck.size || (a.stuck.size === b.stuck.size && a.roundabout < b.roundabout);
}

/** So few wires may well find a way once there is more room. */
const FEW_OPEN = 10;

/** How often all is laid out again with more room. */
const MOST_WIDER = 3;

interface Placed {
  readonly sheet: Sheet;
  /** Wires that have no course yet. */
  readonly open: readonly string[];
}

/**
 * The sheet with its parts in their places and the wires that run from left to right laid.
 * @param wider how many times more room there is between parts than usual, less one.
 * @param hasRails whether wires that do not run so go over rails.
 */
function placedSheet(sheet: Sheet, graph: LayeredGraph, wider: number, hasRails = false): Placed {
  assignCoordinates(graph, 2 * wider);
  const { columns, links, ways } = graph;
  const laid = new Set([...ways.values()].flat());
  const tops = columns.map((column) => Math.min(...column.map((node) => node.y - node.above)));
  const top = Math.min(...tops);
  const parts = new Map(sheet.parts);
  /** Where a link turns to its other height. */
  const turns = new Map<Link, number>();
  const channels = links.map((own) => channelOf(own.filter((link) => laid.has(link))));
  const refused = new Set(channels.flatMap((channel) => [...channel.refused]));
  const isLaid = ({ id }: Wire) => ways.get(id)?.some((link) => refused.has(link)) === false;
  const columnOf = new Map(
    columns.flatMap((column, i) => column.flatMap(({ part }) => (part ? [[part.id, i] as const] : []))),
  );
  const rails = railsFor(
    sheet,
    hasRails ? [...sheet.wires.values()].filter((wire) => !isLaid(wire)) : [],
    columnOf,
  );
  const [rises, drops]: [number[], number[]] = [[], [-MARGIN - rails.dropsBefore(0)]];
  let x = 0;
  for (const [i, column] of columns.entries()) {
    const own = column.flatMap((node) => (node.part ? [{ node, part: node.part }] : []));
    const boxes = own.map(({ part }) => footprintOf({ ...part, at: { x: 0, y: 0 }, turn: 0 }));
    const left = Math.ceil(Math.max(...boxes.map((b) => -b.x0)));
    const right = Math.ceil(Math.max(...boxes.map((b) => b.x1)));
    for (const { node, part } of own)
      parts.set(part.id, { ...part, at: { x: x + left, y: node.y - top }, turn: 0 });
    const channel = channels[i]!;
    const apart = channel.count <= FEW_TRACKS ? 2 : 1;
    const end = x + left + right + MARGIN + 2 * wider;
    rises.push(end);
    const begin = end + rails.risesBeside(i);
    for (const [link, track] of channel.tracks) turns.set(link, begin + track * apart);
    const behind = begin + Math.max(0, (channel.count - 1) * apart);
    drops.push(behind + 1);
    x = behind + rails.dropsBefore(i + 1) + MARGIN + 2 * wider;
  }
  const bare: Sheet = { ...sheet, parts, wires: new Map() };
  const where = { riseAt: (c: number) => rises[c]!, dropAt: (c: number) => drops[c]!, top: 0 };
  const open: string[] = [];
  const wires = new Map<string, Wire>();
  for (const wire of sheet.wires.values()) {
    const course = isLaid(wire)
      ? courseBy(bare, wire, ways.get(wire.id)!, turns, top)
      : rails.courseOf(wire, bare, where);
    if (!course) open.push(wire.id);
    wires.set(wire.id, { ...wire, course: course ?? [] });
  }
  return { sheet: { ...bare, wires }, open };
}

/** The corners of a wire that goes from link to link. */
function courseBy(
  sheet: Sheet,
  wire: Wire,
  way: readonly Link[],
  turns: ReadonlyMap<Link, number>,
  top: number,
): Point[] {
  const ends = [wire.from, wire.to].map((e) => pinOf(sheet, (e as PinEnd).part, (e as PinEnd).port)!.at);
  const isTurned = ends[0]!.x > ends[1]!.x;
  const corners = way.flatMap((link): Point[] => {
    const x = turns.get(link);
    if (x === undefined) return [];
    const [y, next] = [link.from.y + link.fromAt - top, link.to.y + link.toAt - top];
    return [
      { x, y },
      { x, y: next },
    ];
  });
  return simplified([ends[0]!, ...(isTurned ? corners.reverse() : corners), ends[1]!]).slice(1, -1);
}

/** A corner half way between the ends, at a height that the wires of a column do not share. */
function withCorners(sheet: Sheet, open: Iterable<string>): Sheet {
  const wires = new Map(sheet.wires);
  let turn = 0;
  for (const id of open) {
    const wire = sheet.wires.get(id)!;
    const [from, to] = [wire.from, wire.to].map((e) =>
      isPinEnd(e) ? pinOf(sheet, e.part, e.port)?.at : e.at,
    );
    const x = from && to ? Math.min(from.x + 1 + (turn++ % (2 * MARGIN)), Math.max(from.x, to.x)) : 0;
    wires.set(
      id,
      from && to
        ? {
            ...wire,
            course: [
              { x, y: from.y },
              { x, y: to.y },
            ],
          }
        : wire,
    );
  }
  return { ...sheet, wires };
}

/** How often wires are routed again, beginning with those that found no course, or a poor one. */
const MOST_TRIES = 4;
const FEW_TRIES = 2;

interface Laid {
  readonly sheet: Sheet;
  /** Ids of the wires that found no way. */
  readonly stuck: ReadonlySet<string>;
  /** Wires that lead back behind their driver, although their reader stands before it. */
  readonly roundabout: number;
}

/** How far behind its driver a course may swing, in grid steps, before it is one that leads round. */
const BEHIND = 2;

function leadsRound(course: readonly Point[], from: Point, to: Point): boolean {
  const left = Math.min(from.x, to.x) - BEHIND;
  return course.some((p) => p.x < left);
}

/** The ends of a wire for a course to be found between them; null where one of them is on nothing. */
function endsOf(sheet: Sheet, wire: Wire): readonly [RouteEnd, RouteEnd] | null {
  const [from, to] = [wire.from, wire.to].map((e) => (isPinEnd(e) ? pinOf(sheet, e.part, e.port) : null));
  return from && to ? [from, to] : null;
}

/** Routes wires one after the other; the first have the most room. */
function routed(sheet: Sheet, nets: WireNets, order: readonly Wire[]) {
  const obstacles = new Obstacles(sheet, nets, new Set(order.map((w) => w.id)));
  const wires = new Map(sheet.wires);
  const stuck = new Set<string>();
  const round = new Set<string>();
  for (const wire of order) {
    const ends = endsOf(sheet, wire);
    if (!ends) continue;
    const net = nets.ofWire(wire.id) ?? -1;
    const course = route(obstacles, ...ends, net);
    if (!course) {
      stuck.add(wire.id);
      wires.set(wire.id, { ...wire, course: [] });
      continue;
    }
    if (leadsRound(course, ends[0].at, ends[1].at)) round.add(wire.id);
    const laid: Wire = { ...wire, course };
    wires.set(wire.id, laid);
    obstacles.lay(courseOf({ ...sheet, wires }, laid), net);
  }
  return { sheet: { ...sheet, wires }, stuck, round };
}

/** @param mostTries most rounds of routing; each begins with the wires that found no way in the one before. */
function withCourses(sheet: Sheet, open: readonly string[], mostTries = MOST_TRIES): Laid {
  const nets = wireNets(sheet);
  const length = (w: Wire) => {
    const ends = endsOf(sheet, w);
    return ends ? Math.abs(ends[0].at.x - ends[1].at.x) + Math.abs(ends[0].at.y - ends[1].at.y) : 0;
  };
  let order = open.map((id) => sheet.wires.get(id)!).sort((a, b) => length(a) - length(b));
  for (let tries = 1; ; tries++) {
    const { sheet: laid, stuck, round } = routed(sheet, nets, order);
    const first = [...stuck, ...round];
    if (first.length === 0 || tries === mostTries) return { sheet: laid, stuck, roundabout: round.size };
    order = [
      ...first.map((id) => sheet.wires.get(id)!),
      ...order.filter((w) => !stuck.has(w.id) && !round.has(w.id)),
    ];
  }
}

/** How often wires are taken up to make way for one that is stuck. */
const MOST_TAKEN_UP = 40;

/**
 * Makes way for wires that are stuck: each is laid as if there were no other wire, and those of other nets that
 * are then in its way are taken up and laid again after it (rip-up and reroute; Dees and Karger, 1982,
 * "Automated rip-up and reroute techniques"). Wires that have been stuck themselves are left in place where there
 * is a way beside them, so that two do not take each other up for ever.
 */
function withWayMade({ sheet: given, stuck }: Laid): Laid {
  let sheet = given;
  const nets = wireNets(sheet);
  const all = [...sheet.wires.keys()];
  const waiting = [...stuck];
  const contested = new Set<string>();
  const lost = new Set<string>();
  for (let taken = 0; taken < MOST_TAKEN_UP; taken++) {
    const id = waiting.shift();
    if (id === undefined) break;
    const wire = sheet.wires.get(id)!;
    const ends = endsOf(sheet, wire)!;
    const net = nets.ofWire(id) ?? -1;
    const loose = all.filter((other) => !contested.has(other) || waiting.includes(other));
    const course =
      route(new Obstacles(sheet, nets, new Set(loose)), ...ends, net) ??
      route(new Obstacles(sheet, nets, new Set(all)), ...ends, net);
    if (!course) {
      lost.add(id);
      continue;
    }
    contested.add(id);
    sheet = { ...sheet, wires: new Map(sheet.wires).set(id, { ...wire, course }) };
    const alone = new Obstacles(sheet, nets, new Set(all));
    alone.lay(courseOf(sheet, sheet.wires.get(id)!), net);
    const inTheWay = [...sheet.wires.values()].filter((other) => {
      const otherEnds = endsOf(sheet, other);
      if (other.id === id || waiting.includes(other.id) || !otherEnds) return false;
      return !isFree(alone, courseOf(sheet, other), ...otherEnds, nets.ofWire(other.id) ?? -1);
    });
    const again = routed(sheet, nets, inTheWay);
    sheet = again.sheet;
    waiting.push(...again.stuck);
  }
  return { sheet, stuck: new Set([...lost, ...waiting]), roundabout: 0 };
}
