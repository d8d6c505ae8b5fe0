import {
  type Box,
  boundingBox,
  boxOfPiece,
  contains,
  eachSegment,
  grown,
  overlap,
  type Point,
  samePoint,
} from '../../circuit/geometry';
import type { Part, Sheet } from '../../circuit/sheet';
import {
  bodyOf,
  captionsOf,
  courseOf,
  extentOf,
  footprintOf,
  lettersOf,
  type Pin,
  pinsOf,
} from './placement';
import { spatialIndexOf } from './spatial-index';
import { type WireNets, wireNets } from './wire-nets';

/*
 * Room on a sheet: parts, with their labels and captions, stand on nothing else.
 */

/** Parts may come as near to each other as this many grid steps into the air around what is painted. */
const AIR = 0.4;

/** Half the distance in grid steps that bodies keep from each other. */
const APART = 0.3;

/** Grid steps between the labels and captions of two parts. */
const BETWEEN_LINES = 0.3;

/** How far in grid steps a free place is looked for, and how much dearer a step aside is than one down. */
const FARTHEST = 48;
const ASIDE = 1.4;

/** Ways from the preferred place, the nearest first; down before up, and to the right before to the left. */
let ways: readonly Point[] | null = null;

function nearestFirst(): readonly Point[] {
  if (ways) return ways;
  const found: { readonly p: Point; readonly far: number }[] = [];
  for (let y = -FARTHEST; y <= FARTHEST; y++)
    for (let x = -FARTHEST; x <= FARTHEST; x++) {
      const far = Math.abs(y) + Math.abs(x) * ASIDE + (y < 0 ? 0.5 : 0) + (x < 0 ? 0.6 : 0);
      found.push({ p: { x, y }, far });
    }
  ways = found.sort((a, b) => a.far - b.far).map(({ p }) => p);
  return ways;
}

/** The box of a part that belongs to it alone. */
export const roomOf = (part: Part): Box => grown(footprintOf(part), -AIR);

/** The letters of a part's label and of its captions. */
function writtenOf(part: Part): Box[] {
  const letters = lettersOf(part);
  const captions = captionsOf(part);
  return letters ? [...captions, letters] : captions;
}

/** Whether the label or a caption of one part would overlap those of the other, or its body. */
function isWrittenOver(a: Part, b: Part): boolean {
  const [atA, atB] = [writtenOf(a), writtenOf(b)];
  const covers = (written: readonly Box[], box: Box) => written.some((one) => overlap(one, box));
  return (
    covers(atA, bodyOf(b)) ||
    covers(atB, bodyOf(a)) ||
    atB.some((box) => covers(atA, grown(box, BETWEEN_LINES)))
  );
}

/** The points one step out of the pins of a part, which its wires go through. */
const exitsOf = (part: Part): Point[] =>
  pinsOf(part).map(({ at, out }) => ({ x: at.x + out.x, y: at.y + out.y }));

/**
 * Whether two parts stand clear of each other: neither on the other, nor before its pins, unless pins that are joined
 * touch each other.
 */
function areClear(a: Part, b: Part, nets: WireNets): boolean {
  if (overlap(roomOf(a), roomOf(b)) || overlap(grown(bodyOf(a), APART), grown(bodyOf(b), APART)))
    return false;
  if (isWrittenOver(a, b)) return false;
  const [pinsOfA, pinsOfB] = [pinsOf(a), pinsOf(b)];
  const touching = pinsOfA.flatMap((p) => pinsOfB.filter((q) => samePoint(p.at, q.at)).map((q) => [p, q]));
  const netOf = ({ part, port }: Pin) => nets.ofEnd({ part, port: port.name });
  if (touching.length > 0)
    return touching.every(([p, q]) => netOf(p!) !== undefined && netOf(p!) === netOf(q!));
  const [exitsOfA, exitsOfB] = [exitsOf(a), exitsOf(b)];
  const shuts = (part: Part, exits: readonly Point[]) => {
    const extent = grown(extentOf(part), 0.1);
    return exits.some((p) => contains(extent, p));
  };
  if (shuts(a, exitsOfB) || shuts(b, exitsOfA)) return false;
  return !exitsOfA.some((p) => exitsOfB.some((q) => samePoint(p, q)));
}

/** Whether a part stands clear of all others on a sheet. @param besides parts that do not count. */
export function standsClear(sheet: Sheet, part: Part, besides?: ReadonlySet<string>): boolean {
  const nets = wireNets(sheet);
  return spatialIndexOf(sheet)
    .partsIn(grown(footprintOf(part), 2))
    .every((other) => other.id === part.id || besides?.has(other.id) || areClear(part, other, nets));
}

function hasAir(sheet: Sheet, part: Part, air: number): boolean {
  const around = grown(footprintOf(part), air);
  return spatialIndexOf(sheet)
    .partsIn(around)
    .every((other) => other.id === part.id || !overlap(footprintOf(other), around));
}

/** Whether a wire runs where the body of a part would stand. */
function coversWire(sheet: Sheet, part: Part): boolean {
  const body = grown(bodyOf(part), 0.3);
  return spatialIndexOf(sheet)
    .wiresIn(body)
    .some(({ wire }) => {
      let covers = false;
      if (wire)
        eachSegment(courseOf(sheet, sheet.wires.get(wire)!), (a, b) => {
          covers ||= overlap(boxOfPiece(a, b), body);
        });
      return covers;
    });
}

interface Wish {
  /** Whether it may stand over wires: they are led around it, or into it. */
  readonly overWires?: boolean;
  /** A box that it rather stays within, such as what can be seen. */
  readonly within?: Box | undefined;
  /** Grid steps that are left around it. */
  readonly air?: number;
  /** Parts that do not count. */
  readonly besides?: ReadonlySet<string>;
}

/** The free place nearest to a part, or its own place if there is none nearby. */
export function freePlace(sheet: Sheet, part: Part, { overWires, within, besides, air }: Wish = {}): Point {
  const isFree = (at: Point, box: Box | undefined) => {
    const there = { ...part, at };
    if (box && !inside(box, footprintOf(there))) return false;
    if (air && !hasAir(sheet, there, air)) return false;
    return standsClear(sheet, there, besides) && (overWires || !coversWire(sheet, there));
  };
  for (const box of within ? [within, undefined] : [undefined])
    for (const { x, y } of nearestFirst()) {
      const at = { x: part.at.x + x, y: part.at.y + y };
      if (isFree(at, box)) return at;
    }
  return part.at;
}

/**
 * How far a group of parts is shifted so that the box around it stands on no part and no wire: as little as can be, or
 * else below all that is there.
 */
export function freeShift(sheet: Sheet, group: Box): Point {
  const index = spatialIndexOf(sheet);
  for (const { x, y } of nearestFirst()) {
    const box = grown({ x0: group.x0 + x, y0: group.y0 + y, x1: group.x1 + x, y1: group.y1 + y }, 1);
    if (index.partsIn(box).length === 0 && index.wiresIn(box).length === 0) return { x, y };
  }
  const all = boundingBox([...sheet.parts.values()].map(footprintOf));
  return { x: 0, y: all ? Math.ceil(all.y1 - group.y0) + 3 : 0 };
}

const inside = (box: Box, b: Box) =>
  contains(box, { x: b.x0, y: b.y0 }) && contains(box, { x: b.x1, y: b.y1 });
