import { MOST_CORNERS, MOST_PARTS, MOST_WIRES } from '../circuit/limits';
import { type End, isPinEnd, type Params, type Part, type Wire } from '../circuit/sheet';
import { done, type Result, refused } from '../values/result';
import { MOST_UNPACKED, sizeText } from './size-limit';

/*
 * The parts and wires of a large sheet as a few lists, a quarter of their size as objects; docs/formats.md describes each list.
 */

/** A sheet with more parts and wires than this is written as lists. */
const MANY = 10_000;

/** Parts and wires one after the other, of a file or of a lesson. */
interface Contents {
  readonly parts: readonly Part[];
  readonly wires: readonly Wire[];
}

export const isLargeSheet = ({ parts, wires }: Contents): boolean => parts.length + wires.length > MANY;

/** Whether sheets together are too many parts and wires for a file that names each of them, however small each sheet is. */
export const areLargeTogether = (sheets: readonly Contents[]): boolean =>
  sheets.reduce((sum, { parts, wires }) => sum + parts.length + wires.length, 0) > MANY;

/** What many parts have in common, without defaults. */
type Variant = Pick<Part, 'kind' | 'params'> & Partial<Pick<Part, 'turn' | 'mirrored' | 'symbols'>>;
type Mark = Pick<Wire, 'drawn' | 'colour' | 'fault'>;

export interface SheetTables {
  readonly parts: {
    /** With a blank between two. */
    readonly ids: string;
    readonly variants: readonly Variant[];
    /** Of each part the number of its variant. */
    readonly variant: readonly number[];
    /** Of each part x and y. */
    readonly at: readonly number[];
    /** Of the parts that have one: the number of the part, and its label. */
    readonly labels: readonly (readonly [part: number, label: string])[];
    readonly ranks: readonly (readonly [part: number, rank: number])[];
  };
  readonly wires: {
    readonly ids: string;
    readonly ports: readonly string[];
    /** Of each wire the numbers of a part and of a port, for both ends; an end on a wire is that wire's number, taken from -1, and a place. */
    readonly ends: readonly number[];
    /** Of each end on a wire x and y. */
    readonly places: readonly number[];
    /** Of each wire how many corners it has. */
    readonly corners: readonly number[];
    /** Of all corners x and y. */
    readonly course: readonly number[];
    readonly marks: readonly (readonly [wire: number, mark: Mark])[];
  };
}

/** Assigns numbers to distinct values, in the order in which they first occur. */
class Numbers<T> {
  private readonly known = new Map<string, number>();
  readonly list: T[] = [];

  of(key: string, make: () => T): number {
    let number = this.known.get(key);
    if (number === undefined) {
      number = this.list.push(make()) - 1;
      this.known.set(key, number);
    }
    return number;
  }
}

/**
 * Writes parts and wires as lists. Every part and wire that a wire ends on must be among them.
 * @param written gives the parameters of a part as they are written.
 */
export function toTables(
  { parts, wires }: Contents,
  written: (part: Part) => Params = ({ params }) => params,
): SheetTables {
  const variants = new Numbers<Variant>();
  const variant: number[] = [];
  const at: number[] = [];
  /** Parameters are shared by thousands of parts. */
  const paramsOf = new Map<Params, { readonly own: Params; readonly text: string }>();
  for (const part of parts) {
    const { kind, turn, mirrored, symbols, params, at: place } = part;
    let known = paramsOf.get(params);
    if (!known) {
      const own = written(part);
      known = { own, text: JSON.stringify(own) };
      paramsOf.set(params, known);
    }
    const { own, text } = known;
    variant.push(
      variants.of(`${kind} ${turn} ${mirrored} ${symbols} ${text}`, () => ({
        kind,
        ...(turn && { turn }),
        ...(mirrored && { mirrored }),
        ...(symbols && { symbols }),
        params: own,
      })),
    );
    at.push(place.x, place.y);
  }
  const partNumbers = new Map(parts.map(({ id }, i) => [id, i]));
  const wireNumbers = new Map(wires.map(({ id }, i) => [id, i]));
  const ports = new Numbers<string>();
  const ends: number[] = [];
  const places: number[] = [];
  const corners: number[] = [];
  const course: number[] = [];
  const end = (of: End) => {
    if (isPinEnd(of)) {
      const { port } = of;
      ends.push(
        partNumbers.get(of.part)!,
        ports.of(port, () => port),
      );
    } else {
      ends.push(-1 - wireNumbers.get(of.wire)!, places.length / 2);
      places.push(of.at.x, of.at.y);
    }
  };
  for (const wire of wires) {
    end(wire.from);
    end(wire.to);
    corners.push(wire.course.length);
    for (const { x, y } of wire.course) course.push(x, y);
  }
  return {
    parts: {
      ids: parts.map(({ id }) => id).join(' '),
      variants: variants.list,
      variant,
      at,
      labels: parts.flatMap(({ label }, i) => (label ? [[i, label] as const] : [])),
      ranks: parts.flatMap(({ rank }, i) => (rank ? [[i, rank] as const] : [])),
    },
    wires: {
      ids: wires.map(({ id }) => id).join(' '),
      ports: ports.list,
      ends,
      places,
      corners,
      course,
      marks: wires.flatMap(({ drawn, colour, fault }, i) => {
        const mark = { ...(drawn && { drawn }), ...(colour && { colour }), ...(fault && { fault }) };
        return Object.keys(mark).length > 0 ? [[i, mark] as const] : [];
      }),
    },
  };
}

/** The lists contradict each other. */
class Damage extends Error {}

type Unknown = Readonly<Record<string, unknown>>;

/**
 * Reads lists back into parts and wires as a file without lists has them. Checks only that the lists fit each other; values are left
 * to the lesson schema. Refused with the name of the list that does not fit.
 */
export function fromTables(tables: unknown): Result<{ parts: unknown[]; wires: unknown[] }> {
  try {
    const { parts, wires } = objectIn({ tables }, 'tables');
    return done(read(objectIn({ parts }, 'parts'), objectIn({ wires }, 'wires')));
  } catch (error) {
    if (error instanceof Damage) return refused('damaged-tables', error.message);
    throw error;
  }
}

function read(parts: Unknown, wires: Unknown): { parts: unknown[]; wires: unknown[] } {
  const partIds = idsIn(parts, MOST_PARTS);
  const variants = listIn(parts, 'variants') as Unknown[];
  const variant = numbersIn(parts, 'variant', partIds.length);
  const at = numbersIn(parts, 'at', 2 * partIds.length);
  const sizes = variants.map((one) => JSON.stringify(one).length);
  if (variant.reduce((sum, one) => sum + (sizes[one] ?? 0), 0) > MOST_UNPACKED)
    throw new Damage(`its parts unpack to more than ${sizeText(MOST_UNPACKED)}`);
  const made: Record<string, unknown>[] = partIds.map((id, i) => {
    const { kind, turn = 0, params, ...others } = variants[variant[i]!] ?? fail('variant');
    return { id, kind, at: { x: at[2 * i], y: at[2 * i + 1] }, turn, label: '', rank: 0, params, ...others };
  });
  for (const [name, list] of [
    ['label', 'labels'],
    ['rank', 'ranks'],
  ] as const)
    for (const [i, value] of pairsIn(parts, list)) (made[i] ?? fail(list))[name] = value;

  const wireIds = idsIn(wires, MOST_WIRES);
  const ports = listIn(wires, 'ports');
  const ends = numbersIn(wires, 'ends', 4 * wireIds.length);
  const places = numbersIn(wires, 'places');
  const corners = numbersIn(wires, 'corners', wireIds.length);
  const course = numbersIn(wires, 'course');
  const point = (list: readonly number[], i: number) => ({ x: list[2 * i], y: list[2 * i + 1] });
  const end = (i: number) => {
    const [one, other] = [ends[i]!, ends[i + 1]!];
    if (one >= 0) return { part: partIds[one] ?? fail('ends'), port: ports[other] ?? fail('ends') };
    if (2 * other + 1 >= places.length || other < 0) fail('places');
    return { wire: wireIds[-1 - one] ?? fail('ends'), at: point(places, other) };
  };
  let corner = 0;
  const joined: Record<string, unknown>[] = wireIds.map((id, i) => {
    const count = corners[i]!;
    if (count < 0 || count > MOST_CORNERS || 2 * (corner + count) > course.length) fail('corners');
    const own: unknown[] = [];
    for (const last = corner + count; corner < last; corner++) own.push(point(course, corner));
    return { id, from: end(4 * i), to: end(4 * i + 2), course: own };
  });
  if (2 * corner !== course.length) fail('course');
  for (const [i, mark] of pairsIn(wires, 'marks'))
    joined[i] = { ...(joined[i] ?? fail('marks')), ...objectIn({ marks: mark }, 'marks') };
  return { parts: made, wires: joined };
}

const fail = (list: string): never => {
  throw new Damage(`its list “${list}” does not fit the others, or is cut short`);
};

function objectIn(holder: Unknown, name: string): Unknown {
  const value = holder[name];
  return typeof value === 'object' && value !== null && !Array.isArray(value)
    ? (value as Unknown)
    : fail(name);
}

function listIn(holder: Unknown, name: string): unknown[] {
  const value = holder[name];
  return Array.isArray(value) ? value : fail(name);
}

/** @param length of the list, if that is known. */
function numbersIn(holder: Unknown, name: string, length?: number): number[] {
  const list = listIn(holder, name);
  if ((length !== undefined && list.length !== length) || !list.every(Number.isSafeInteger)) fail(name);
  return list as number[];
}

function pairsIn(holder: Unknown, name: string): [number, unknown][] {
  const list = listIn(holder, name);
  return list.every((pair) => Array.isArray(pair) && pair.length === 2 && Number.isSafeInteger(pair[0]))
    ? (list as [number, unknown][])
    : fail(name);
}

function idsIn(holder: Unknown, most: number): string[] {
  const { ids } = holder;
  if (typeof ids !== 'string') return fail('ids');
  const list = ids === '' ? [] : ids.split(' ', most + 1);
  return list;
}
