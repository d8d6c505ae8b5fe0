import { listed } from '../values/wording';
import { dataSheet, type PackagePlan, type PlannedUnit } from './plan';
import type { Feed } from './realisations';

/*
 * What is saved where gates may be made of others: told in words, and as the gates that take the place of drawn ones.
 */

/** A gate that takes the place of a drawn one, or of a part of it. */
export interface SubstituteGate {
  readonly kind: string;
  /** What leads into its inputs, A first: an input of the drawn gate by its number, an earlier gate, or a constant. */
  readonly feeds: readonly Feed[];
}

/** A drawn gate, and the gates that do the same; the last of them gives its output. */
export interface Substitution {
  readonly part: string;
  readonly gates: readonly SubstituteGate[];
}

export interface Offer {
  /** Packages that it takes then. */
  readonly packages: number;
  readonly substitutions: readonly Substitution[];
  /** `1 NOT is made of a spare NAND`. */
  readonly says: string;
  /** Why it cannot be had by a press, or null. */
  readonly problem: string | null;
}

/** The offer of a plan with fewer packages; null where it saves none. */
export function offerOf(plan: PackagePlan, saving: PackagePlan): Offer | null {
  const isBetter =
    saving.lacking.size < plan.lacking.size ||
    (saving.lacking.size === plan.lacking.size && saving.packages.length < plan.packages.length);
  if (!isBetter) return null;
  const units = saving.packages.flatMap((one) =>
    one.units
      .filter(({ way, parts }) => parts.length > 0 && way !== 'as drawn')
      .map((unit) => ({ unit, gate: dataSheet(one).gate! })),
  );
  const byPart = new Map<string, { unit: PlannedUnit; kind: string }[]>();
  for (const { unit, gate } of units) {
    const [part] = unit.parts as [string];
    const key = `${part} ${unit.bit ?? 0}`;
    byPart.set(key, [...(byPart.get(key) ?? []), { unit, kind: gate.kind }]);
  }
  const substitutions = [...byPart].flatMap(([key, of]): Substitution[] => {
    const drawn = of.filter(({ unit }) => unit.way !== 'inside');
    if (drawn.length === 0) return [];
    const ordered = drawn.sort((a, b) => (a.unit.step ?? 0) - (b.unit.step ?? 0));
    const gates = ordered.map(({ unit, kind }) => ({ kind, feeds: [...(unit.feeds?.values() ?? [])] }));
    return [{ part: key.split(' ')[0]!, gates }];
  });
  return {
    packages: saving.packages.length,
    substitutions,
    says: said([...byPart.values()]),
    problem: problemOf(units.map(({ unit }) => unit)),
  };
}

function problemOf(units: readonly PlannedUnit[]): string | null {
  if (units.some(({ parts }) => parts[0]!.includes('/')))
    return 'Some of these gates are inside blocks: change them there.';
  if (units.some(({ bit }) => (bit ?? 0) > 0))
    return 'Some of these gates are wider than one bit: split them first.';
  if (units.some(({ way }) => way === 'inside'))
    return 'Some of these are inverters at bubbles, or gates inside larger parts, which are not drawn by themselves.';
  return null;
}

/** The drawn gates by what they are made of: `2 NOT are made of spare NAND, 1 AND is made of NAND and NOT`. */
function said(
  changes: readonly (readonly { readonly unit: PlannedUnit; readonly kind: string }[])[],
): string {
  const counts = new Map<string, number>();
  for (const of of changes) {
    const sort = of[0]!.unit.sort!.toUpperCase();
    const kinds = [...new Set(of.map(({ kind }) => kind.toUpperCase()))];
    const isSpare = of.length === 1;
    const wider = isSpare && kinds[0] === sort;
    const how = wider ? `put into a wider ${sort}` : `made of ${isSpare ? 'a spare ' : ''}${listed(kinds)}`;
    counts.set(`${sort}|${how}`, (counts.get(`${sort}|${how}`) ?? 0) + 1);
  }
  return listed(
    [...counts].map(([key, count]) => {
      const [sort, how] = key.split('|');
      return `${count} ${sort} ${count === 1 ? 'is' : 'are each'} ${how}`;
    }),
  );
}
