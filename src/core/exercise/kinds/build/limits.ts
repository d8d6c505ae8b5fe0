import type { Sheet } from '../../../circuit/sheet';
import { compile } from '../../../netlist/compile';
import { drawnLevels } from '../../../netlist/levels';
import { findKind, kindOf, sheetInside } from '../../../parts/catalogue';
import { timingOf } from '../../../timing/paths';
import { type Infer, moment, whole, z } from '../../../values/schema';
import { timeText } from '../../../values/time';
import { counted } from '../../../values/wording';
import { partsUsed } from '../../check';
import { packagesNeeded } from './packages';

const Most = z.optional(whole(0, 100_000));

/** How large a circuit may be; what is left out is not limited. */
export const Limits = z.object({
  gates: Most,
  /** Inputs of a gate. */
  gateInputs: Most,
  /** Gates on the longest way from an input to an output. */
  levels: Most,
  /** Bits of storage. */
  storage: Most,
  /** Logic packages, see `packagesNeeded`. */
  packages: Most,
  /** The longest delay by the parts' own delays, in ps. */
  delay: z.optional(moment()),
});
export type Limits = Infer<typeof Limits>;

/** The limits in words: `at most 5 gates`. */
export function limitsText({ gates, gateInputs, levels, storage, packages, delay }: Limits): string[] {
  return [
    gates !== undefined && `at most ${counted(gates, 'gate')}`,
    gateInputs !== undefined && `${counted(gateInputs, 'input')} a gate`,
    levels !== undefined && counted(levels, 'level'),
    storage !== undefined && counted(storage, 'bit of storage', 'bits of storage'),
    packages !== undefined && counted(packages, 'package'),
    delay !== undefined && `a delay of ${timeText(delay)}`,
  ].filter((text) => text !== false);
}

/** Inputs of the gate on the sheet, or inside its blocks, that has most. */
function widestGate(sheet: Sheet, sheets: readonly Sheet[], seen = new Set<string>()): number {
  if (seen.has(sheet.id)) return 0;
  seen.add(sheet.id);
  let most = 0;
  for (const part of sheet.parts.values()) {
    const kind = kindOf(part);
    if (kind.isGate)
      most = Math.max(most, kind.ports(part.params).filter(({ direction }) => direction === 'in').length);
    const inside = sheetInside(part, sheets);
    if (inside) most = Math.max(most, widestGate(inside, sheets, seen));
  }
  return most;
}

/** What a circuit exceeds, as sentences. @param whole sheets whose blocks count as one part; see `partsUsed`. */
export function exceeded(
  limits: Limits,
  sheet: Sheet,
  sheets: readonly Sheet[],
  whole: ReadonlySet<string>,
): string[] {
  const said: string[] = [];
  const hold = (is: number, most: number | undefined, text: (n: number) => string) => {
    if (most !== undefined && is > most)
      said.push(`It has ${text(is)}, and ${most} ${most === 1 ? 'is' : 'are'} allowed.`);
  };
  const gates = partsUsed(sheet, sheets, whole)
    .filter(({ kind }) => findKind(kind)?.isGate)
    .reduce((sum, { count }) => sum + count, 0);
  hold(gates, limits.gates, (n) => counted(n, 'gate'));
  if (limits.gateInputs !== undefined)
    hold(
      widestGate(sheet, sheets, new Set(whole)),
      limits.gateInputs,
      (n) => `a gate with ${counted(n, 'input')}`,
    );
  if (limits.packages !== undefined)
    hold(packagesNeeded(sheet, sheets, whole), limits.packages, (n) => counted(n, 'package'));
  if (limits.levels === undefined && limits.storage === undefined && limits.delay === undefined) return said;
  const netlist = compile(sheet, sheets);
  hold(netlist.storage.length, limits.storage, (n) => counted(n, 'bit of storage', 'bits of storage'));
  if (netlist.looped.length === 0)
    hold(drawnLevels(netlist), limits.levels, (n) => counted(n, 'level of gates', 'levels of gates'));
  const { slowest } = timingOf(netlist);
  if (limits.delay !== undefined && slowest && slowest.delayPs > limits.delay)
    said.push(
      `Its longest delay is ${timeText(slowest.delayPs)}, and ${timeText(limits.delay)} are allowed.`,
    );
  return said;
}
