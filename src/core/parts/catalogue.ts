import type { Params, Part } from '../circuit/lesson';
import { gates } from './gates';
import { buttonKind, clockKind, constantKind, switchKind } from './inputs';
import { lampKind } from './outputs';
import type { Family, PartKind, Role } from './part-kind';
import { dFlipFlop } from './storage';

/** Every kind of part, in the order in which the ring and lists show them. */
export const CATALOGUE: readonly PartKind[] = [
  ...gates,
  switchKind,
  buttonKind,
  constantKind,
  lampKind,
  dFlipFlop,
  clockKind,
];

/** Kinds that any exercise allows: without them nothing can be tried. */
export const ALWAYS_ALLOWED: readonly string[] = ['switch', 'lamp'];

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
  return kind.params.parse({});
}

export function roleOf(part: Part): Role | undefined {
  return kindOf(part).role?.(part.params);
}

/** The families in the order of the ring, each with its kinds among those allowed. */
export function families(
  allowed: (kind: string) => boolean,
): { family: Family; kinds: readonly PartKind[] }[] {
  const order: Family[] = ['Gates', 'Inputs', 'Outputs', 'Storage', 'Time'];
  return order
    .map((family) => ({ family, kinds: CATALOGUE.filter((k) => k.family === family && allowed(k.kind)) }))
    .filter((f) => f.kinds.length > 0);
}

/** What a part is called in a sentence: its label, or its kind and number. */
export function spokenName(part: Part): string {
  const name = kindOf(part).name;
  if (part.label) return part.label;
  const number = /\d+$/.exec(part.id)?.[0];
  return number ? `${name} ${number}` : name;
}
