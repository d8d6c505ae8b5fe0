import type { Part, Sheet } from '../circuit/sheet';
import { spokenText } from '../values/markup';
import { arithmetic } from './arithmetic';
import { blockKind } from './block';
import { byParams } from './by-params';
import { gates } from './gates';
import { inputs } from './inputs';
import { notes } from './notes';
import { outputs } from './outputs';
import { packageKind } from './package-part';
import type { Boundary, Family, PartKind, Role } from './part-kind';
import { registers } from './registers';
import { storage } from './storage';
import { timed } from './timed';
import { wiring } from './wiring';

/** Every kind of part, in the order in which the ring and lists show them. */
export const CATALOGUE: readonly PartKind[] = [
  ...gates,
  ...inputs,
  ...outputs,
  ...storage,
  ...registers,
  ...arithmetic,
  packageKind,
  ...wiring,
  ...timed,
  ...notes,
  blockKind,
];

const byKind = new Map(CATALOGUE.map((k) => [k.kind, k]));

/** The catalogue's entry, or undefined if there is none of that name. */
export function findKind(kind: string): PartKind | undefined {
  return byKind.get(kind);
}

/**
 * The catalogue's entry of a part that stands on a sheet.
 * @throws Error for a kind that the readers would have refused.
 */
export function kindOf(part: { readonly kind: string }): PartKind {
  const found = byKind.get(part.kind);
  if (!found) throw new Error(`no kind of part is called ${part.kind}`);
  return found;
}

/** What a part does for the circuit as a whole: an input, an output, a constant; undefined for all others. */
export const roleOf: (part: Part) => Role | undefined = byParams((part) => kindOf(part).role?.(part.params));

/** The id of the sheet that a part stands for; undefined for a part that is no block. */
export function sheetIdInside(part: Part): string | undefined {
  return kindOf(part).insideSheet?.(part.params);
}

/** The sheet that a part stands for, if it is one of these. */
export function sheetInside(part: Part, sheets: readonly Sheet[]): Sheet | undefined {
  const id = sheetIdInside(part);
  return id === undefined ? undefined : sheets.find((s) => s.id === id);
}

/** A sheet, and behind it those of its blocks and of the blocks inside them, each once. */
export function withSheetsInside(sheet: Sheet, sheets: readonly Sheet[]): Sheet[] {
  const taken: Sheet[] = [sheet];
  for (const at of taken)
    for (const part of at.parts.values()) {
      const inside = sheetInside(part, sheets);
      if (inside && !taken.includes(inside)) taken.push(inside);
    }
  return taken;
}

/** Where a part lets a signal enter or leave its sheet; undefined for a part that is no port. */
export function boundaryOf(part: Part): Boundary | undefined {
  return kindOf(part).boundary?.(part.params);
}

/** Whether a part is moved only while it is held. */
export function isMomentary(part: Part): boolean {
  const role = roleOf(part);
  return role?.role === 'input' && role.by === 'button';
}

/** The kinds that stand for themselves: a block is placed from its sheet. */
export const PLACEABLE: readonly PartKind[] = CATALOGUE.filter((k) => !k.insideSheet);

/** Kinds by family, in the order of the ring. */
export function families(kinds: readonly PartKind[]): { family: Family; kinds: readonly PartKind[] }[] {
  const order: Family[] = [
    'Gates',
    'Inputs',
    'Outputs',
    'Storage',
    'Registers',
    'Functions',
    'Wiring',
    'Time',
    'Notes',
    'Blocks',
  ];
  return order
    .map((family) => ({ family, kinds: kinds.filter((k) => k.family === family) }))
    .filter((f) => f.kinds.length > 0);
}

/** A part in a sentence: its label, or its kind and number. */
export function spokenName(part: Part): string {
  const name = kindOf(part).name;
  if (part.label) return spokenText(part.label);
  const number = /\d+$/.exec(part.id)?.[0];
  return number ? `${name} ${number}` : name;
}
