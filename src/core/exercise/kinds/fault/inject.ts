import type { Expected } from '../../../circuit/exercise';
import type { Part, Sheet } from '../../../circuit/sheet';
import { findKind, kindOf, PLACEABLE, spokenName } from '../../../parts/catalogue';
import { type PartFault, withFault } from '../../../parts/fault';
import { done, type Result, refused } from '../../../values/result';
import { check } from '../../check';

/** The faults that can be asked for, as they are chosen. */
export const FAULT_SORTS = ['stuck', 'inverted', 'open', 'exchanged', 'other'] as const;
export type FaultSort = (typeof FAULT_SORTS)[number];

/** A fault at its place, which can be seen from outside. */
export interface PlacedFault {
  readonly part: string;
  readonly fault: PartFault;
  /** Rows or readings in which the circuit does something else than is wanted. */
  readonly tells: readonly number[];
}

const EVERY_KIND: ReadonlySet<string> = new Set(PLACEABLE.map(({ kind }) => kind));

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

/** The sheet with one part at fault. */
export function injected(sheet: Sheet, part: string, fault: PartFault | null): Sheet {
  const parts = new Map(sheet.parts);
  parts.set(part, withFault(sheet.parts.get(part)!, fault));
  return { ...sheet, parts };
}

/** The rows or readings in which a sheet does something else than is wanted. */
export function rowsThatTell(sheet: Sheet, sheets: readonly Sheet[], wanted: Expected): number[] {
  const all = sheets.map((other) => (other.id === sheet.id ? sheet : other));
  const { rowIsRight } = check(sheet, wanted, EVERY_KIND, all);
  return rowIsRight.flatMap((right, row) => (right ? [] : [row]));
}

/**
 * A fault of some sort that can be seen from outside: in one row at least the circuit then does something else than is wanted.
 * @param roll numbers from 0 to 1, by which one of them is taken.
 */
export function someFault(
  sheet: Sheet,
  sheets: readonly Sheet[],
  wanted: Expected,
  sorts: ReadonlySet<FaultSort>,
  roll: () => number,
): Result<PlacedFault> {
  const all = [...sheet.parts.values()].flatMap((part) =>
    faultsOf(part).flatMap((fault) => (sorts.has(fault.is) ? [{ part: part.id, fault }] : [])),
  );
  if (all.length === 0) return refused('no-fault', 'there is no part here that can have such a fault');
  while (all.length > 0) {
    const [{ part, fault }] = all.splice(Math.floor(roll() * all.length), 1) as [(typeof all)[number]];
    const tells = rowsThatTell(injected(sheet, part, fault), sheets, wanted);
    if (tells.length > 0) return done({ part, fault, tells });
  }
  return refused('unseen', 'no such fault could be seen from outside');
}

/** A fault in words: `the output is stuck at 0`. */
export function faultWords(fault: PartFault): string {
  switch (fault.is) {
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
