import type { Expected } from '../../../circuit/exercise';
import { isPinEnd, type Part, type Sheet } from '../../../circuit/sheet';
import { compile } from '../../../netlist/compile';
import { wiringOf } from '../../../netlist/sheet-wiring';
import { findKind, kindOf, spokenName } from '../../../parts/catalogue';
import { type PartFault, type WireFault, withFault, withWireFault } from '../../../parts/fault';
import { done, type Result, refused } from '../../../values/result';
import { check, EVERY_KIND } from '../../check';

/** The faults of parts that can be asked for, as they are chosen. */
export const PART_FAULTS = ['stuck', 'inverted', 'open', 'exchanged', 'other'] as const;
/** And those of wires. */
export const WIRE_FAULTS = ['cut', 'tied'] as const;
export const FAULT_SORTS = [...PART_FAULTS, ...WIRE_FAULTS] as const;
export type FaultSort = (typeof FAULT_SORTS)[number];

/** A fault at its place. */
export type PutFault =
  | { readonly part: string; readonly fault: PartFault }
  | { readonly wire: string; readonly fault: WireFault };

/** A fault that can be seen from outside. */
export interface PlacedFault {
  readonly put: PutFault;
  /** Rows or readings in which the circuit does something else than is wanted. */
  readonly tells: readonly number[];
}

/** Kinds of gate that have the same pins, so that one can stand for another. */
const LIKE: readonly (readonly string[])[] = [
  ['and', 'or', 'nand', 'nor', 'xor', 'xnor'],
  ['not', 'buffer'],
];

/** Every fault that a part can have; none for one that takes no fault. */
export function faultsOf(part: Part): PartFault[] {
  const kind = kindOf(part);
  const takesFaults = 'delayRise' in part.params || kind.isGate === true || kind.stores !== undefined;
  if (!takesFaults || kind.role?.(part.params) || kind.insideSheet) return [];
  const ports = kind.ports(part.params);
  const inputs = ports.filter(({ direction }) => direction === 'in');
  const faults: PartFault[] = [];
  if (kind.isGate) for (const at of [0, 1] as const) faults.push({ is: 'stuck', at });
  for (const { name } of inputs) faults.push({ is: 'inverted', port: name }, { is: 'open', port: name });
  for (const [i, a] of inputs.entries())
    for (const b of inputs.slice(i + 1))
      if (a.width === b.width) faults.push({ is: 'exchanged', ports: [a.name, b.name] });
  for (const other of LIKE.find((kinds) => kinds.includes(part.kind)) ?? [])
    if (other !== part.kind && findKind(other)) faults.push({ is: 'other', kind: other });
  return faults;
}

/** Pairs of wires that may touch, at most: of large sheets some by chance. */
const MOST_PAIRS = 300;

/** Wires of one bit, one for each net. */
function wiresByNet(sheet: Sheet): string[] {
  const wiring = wiringOf(sheet);
  const oneOf = new Map<number, string>();
  for (const wire of sheet.wires.keys()) {
    const [net, width] = wiring.groupOfWire(wire)!;
    if (width === 1 && !oneOf.has(net)) oneOf.set(net, wire);
  }
  return [...oneOf.values()];
}

/** Pairs of wires on different nets; of very many some by chance. @param wire one that is in each of them. */
function pairsOfWires(sheet: Sheet, roll: () => number, wire: string | null): [string, string][] {
  const wiring = wiringOf(sheet);
  const netOf = (id: string) => wiring.groupOfWire(id)![0];
  const nets = wiresByNet(sheet);
  if (wire !== null)
    return nets.flatMap((other): [string, string][] => (netOf(other) === netOf(wire) ? [] : [[wire, other]]));
  if (nets.length ** 2 <= 2 * MOST_PAIRS)
    return nets.flatMap((a, i) => nets.slice(i + 1).map((b): [string, string] => [a, b]));
  const any = () => nets[Math.floor(roll() * nets.length)]!;
  return Array.from({ length: MOST_PAIRS }, (): [string, string] => [any(), any()]).filter(
    ([a, b]) => a !== b,
  );
}

/** The sheet with one part or one wire at fault. */
export function injected(sheet: Sheet, put: PutFault): Sheet {
  if ('part' in put) {
    const parts = new Map(sheet.parts);
    parts.set(put.part, withFault(sheet.parts.get(put.part)!, put.fault));
    return { ...sheet, parts };
  }
  const wires = new Map(sheet.wires);
  wires.set(put.wire, withWireFault(sheet.wires.get(put.wire)!, put.fault));
  return { ...sheet, wires };
}

/** The rows or readings in which a sheet does something else than is wanted. */
export function rowsThatTell(sheet: Sheet, sheets: readonly Sheet[], wanted: Expected): number[] {
  const all = sheets.map((other) => (other.id === sheet.id ? sheet : other));
  const { rowIsRight } = check(sheet, wanted, EVERY_KIND, all);
  return rowIsRight.flatMap((right, row) => (right ? [] : [row]));
}

/** What a faulty sheet does not give away by itself: no loop, and no problem that the sound one has not. */
const isSilent = (faulty: Sheet, sound: Sheet, sheets: readonly Sheet[]): boolean => {
  const [is, was] = [compile(faulty, sheets), compile(sound, sheets)];
  return is.looped.length === was.looped.length && is.diagnostics.length <= was.diagnostics.length;
};

/**
 * One of some faults that can be seen from outside: in one row at least the circuit then does something else than is wanted.
 * @param roll numbers from 0 to 1, by which one of them is taken.
 */
export function seenFault(
  sheet: Sheet,
  sheets: readonly Sheet[],
  wanted: Expected,
  faults: readonly PutFault[],
  roll: () => number,
): Result<PlacedFault> {
  const all = [...faults];
  if (all.length === 0) return refused('no-fault', 'there is nothing here that can have such a fault');
  while (all.length > 0) {
    const [put] = all.splice(Math.floor(roll() * all.length), 1) as [PutFault];
    const faulty = injected(sheet, put);
    const tells = rowsThatTell(faulty, sheets, wanted);
    if (tells.length > 0 && isSilent(faulty, sheet, sheets)) return done({ put, tells });
  }
  return refused('unseen', 'no such fault could be seen from outside');
}

/** A part or a wire of a sheet. */
export interface Place {
  readonly part: string | null;
  readonly wire: string | null;
}

/** The faults of given sorts that parts and wires of a sheet can have. @param at restricts them to one place. */
export function faultsOn(
  sheet: Sheet,
  sorts: ReadonlySet<FaultSort>,
  roll: () => number,
  at: Place = { part: null, wire: null },
): PutFault[] {
  const { parts, wires } = sheet;
  const isAnywhere = at.part === null && at.wire === null;
  const faulty = isAnywhere ? [...parts.values()] : at.part === null ? [] : [parts.get(at.part)!];
  const cut = isAnywhere ? [...wires.keys()] : at.wire === null ? [] : [at.wire];
  const mayTouch = sorts.has('tied') && (isAnywhere || at.wire !== null);
  return [
    ...faulty.flatMap((part) =>
      faultsOf(part).flatMap((fault): PutFault[] => (sorts.has(fault.is) ? [{ part: part.id, fault }] : [])),
    ),
    ...(sorts.has('cut') ? cut.map((wire): PutFault => ({ wire, fault: { is: 'cut' } })) : []),
    ...(mayTouch
      ? pairsOfWires(sheet, roll, at.wire).map(
          ([wire, to]): PutFault => ({ wire, fault: { is: 'tied', to } }),
        )
      : []),
  ];
}

/** A fault in words: `its output is stuck at 0`. @param sheet where a wire that is touched has its name from. */
export function faultWords(fault: PartFault | WireFault, sheet: Sheet): string {
  switch (fault.is) {
    case 'cut':
      return 'it is cut';
    case 'tied':
      return `it touches ${nameOfWire(sheet, fault.to)}`;
    case 'stuck':
      return `its output is stuck at ${fault.at}`;
    case 'inverted':
      return `its input ${fault.port} is inverted`;
    case 'open':
      return `its input ${fault.port} is open inside`;
    case 'exchanged':
      return `its inputs ${fault.ports[0]} and ${fault.ports[1]} are exchanged`;
    case 'other':
      return `it works as ${findKind(fault.kind)?.name ?? fault.kind}`;
  }
}

/** The name of a part of a sheet, as it is spoken. */
export const nameOfPart = (sheet: Sheet, id: string): string => {
  const part = sheet.parts.get(id);
  return part ? spokenName(part) : 'a part that is not there';
};

/** The name of a wire: `the wire from Key to AND 1`; of a branch, the end at which it hangs on a wire is left out. */
export function nameOfWire(sheet: Sheet, id: string): string {
  const wire = sheet.wires.get(id);
  if (!wire) return 'a wire that is not there';
  const ends = [wire.from, wire.to].flatMap((end) => {
    const part = isPinEnd(end) ? sheet.parts.get(end.part) : undefined;
    if (!part || !isPinEnd(end)) return [];
    const port = kindOf(part)
      .ports(part.params)
      .find(({ name }) => name === end.port);
    return [{ name: spokenName(part), isOut: port?.direction === 'out' }];
  });
  const from = ends.find(({ isOut }) => isOut);
  const to = ends.find((end) => end !== from);
  return ['the wire', from && `from ${from.name}`, to && `to ${to.name}`].filter(Boolean).join(' ');
}

/** The name of the place of a fault, as it is spoken. */
export const nameOfPlace = (sheet: Sheet, at: Place): string =>
  at.wire === null ? nameOfPart(sheet, at.part ?? '') : nameOfWire(sheet, at.wire);
