import type { Part, Sheet } from '../../../circuit/sheet';
import { kindOf, sheetInside } from '../../../parts/catalogue';
import type { Family } from '../../../parts/part-kind';

/** Gates of one package of the 7400 and 4000 series, by the inputs of the gate: quad, triple, dual, single. */
const GATES_BY_INPUTS: readonly (readonly [inputs: number, gates: number])[] = [
  [1, 6],
  [2, 4],
  [3, 3],
  [4, 2],
  [8, 1],
];
/** Inputs of the widest gate that there is in one package. */
const WIDEST = 8;
const FLIP_FLOPS = 2;
const LATCHES = 4;

/** What is made of packages; the rest stands outside, or is wire. */
const PACKAGED: ReadonlySet<Family> = new Set(['Gates', 'Storage', 'Registers', 'Functions']);

/** Units of packages that a part takes, and how many of them one package holds. */
function unitsOf(
  part: Part,
): readonly { readonly sort: string; readonly units: number; readonly each: number }[] {
  const kind = kindOf(part);
  if (!PACKAGED.has(kind.family)) return [];
  const width = typeof part.params.width === 'number' ? part.params.width : 1;
  if (kind.isGate) {
    const inputs = kind.ports(part.params).filter(({ direction }) => direction === 'in').length;
    const inverted = Array.isArray(part.params.inverted) ? part.params.inverted.length : 0;
    const [size, each] = GATES_BY_INPUTS.find(([most]) => inputs <= most) ?? [WIDEST, 1];
    const gate = { sort: `${part.kind} ${size}`, units: width * Math.ceil(inputs / WIDEST), each };
    return inverted > 0 ? [gate, { sort: 'not 1', units: inverted * width, each: 6 }] : [gate];
  }
  if (kind.stores === 'flip-flop') return [{ sort: part.kind, units: 1, each: FLIP_FLOPS }];
  if (kind.stores === 'latch') return [{ sort: part.kind, units: 1, each: LATCHES }];
  return [{ sort: part.id, units: 1, each: 1 }];
}

/**
 * Packages of the 7400 or 4000 series that the parts of a circuit fill, gates of one kind and width together: four of two
 * inputs, three of three, two of four, one of eight, six inverters, two flip-flops, four latches; any other part takes one.
 * A bubble at an input is an inverter. Blocks count as their content.
 * @param whole sheets whose blocks count as one package each.
 */
export function packagesNeeded(sheet: Sheet, sheets: readonly Sheet[], whole: ReadonlySet<string>): number {
  const units = new Map<string, { units: number; each: number }>();
  let ones = 0;
  const walk = (at: Sheet, path: readonly string[]) => {
    for (const part of at.parts.values()) {
      const inside = sheetInside(part, sheets);
      if (inside && whole.has(inside.id)) ones++;
      else if (inside) {
        if (!path.includes(inside.id)) walk(inside, [...path, inside.id]);
      } else
        for (const { sort, units: n, each } of unitsOf(part)) {
          if (sort === part.id) ones++;
          else units.set(sort, { units: (units.get(sort)?.units ?? 0) + n, each });
        }
    }
  };
  walk(sheet, [sheet.id]);
  return ones + [...units.values()].reduce((sum, one) => sum + Math.ceil(one.units / one.each), 0);
}
