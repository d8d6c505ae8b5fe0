import type { Params, Part } from '../circuit/lesson';
import { spokenText } from '../values/markup';
import { arithmetic } from './arithmetic';
import { blockKind } from './block';
import { gates } from './gates';
import { inputs } from './inputs';
import { notes } from './notes';
import { outputs } from './outputs';
import type { Family, PartKind, Role } from './part-kind';
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
  ...wiring,
  ...timed,
  ...notes,
  blockKind,
];

/** Kinds that any exercise allows: without them nothing can be tried, said, or put together of what is allowed. */
export const ALWAYS_ALLOWED: readonly string[] = [
  'switch',
  'lamp',
  'probe',
  'block',
  'port',
  ...notes.map((n) => n.kind),
];

const byKind = new Map(CATALOGUE.map((k) => [k.kind, k]));

/** The catalogue's entry, or undefined where there is none of that name. */
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

/** The kind's parameters with nothing but their defaults. */
export function defaultParams(kind: PartKind): Params {
  let params = usual.get(kind);
  if (!params) {
    params = Object.freeze(kind.params.parse({}));
    usual.set(kind, params);
  }
  return params;
}

const usual = new Map<PartKind, Params>();

export function roleOf(part: Part): Role | undefined {
  return kindOf(part).role?.(part.params);
}

/** The kinds that stand for themselves: a block is placed from its sheet. */
export const PLACEABLE: readonly PartKind[] = CATALOGUE.filter((k) => k.kind !== 'block');

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

/** What a part is called in a sentence: its label, or its kind and number. */
export function spokenName(part: Part): string {
  const name = kindOf(part).name;
  if (part.label) return spokenText(part.label);
  const number = /\d+$/.exec(part.id)?.[0];
  return number ? `${name} ${number}` : name;
}
