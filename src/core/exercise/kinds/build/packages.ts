import { NO_CHIPS_SETUP } from '../../../circuit/chips-setup';
import type { Sheet } from '../../../circuit/sheet';
import { blockCycle } from '../../../netlist/blocks';
import { planOf } from '../../../packages/plan';
import { kindOf, sheetInside } from '../../../parts/catalogue';

/**
 * The fewest packages that a circuit takes as it is drawn: those of its plan, in the family of its sheet. A part for which the
 * catalogue has no package counts as one. Blocks count as their content.
 * @param whole sheets whose blocks count as one package each.
 */
export function packagesNeeded(sheet: Sheet, sheets: readonly Sheet[], whole: ReadonlySet<string>): number {
  // A sheet that holds itself has no packages; that is complained of elsewhere.
  if (blockCycle(sheets, sheet)) return 0;
  const { family } = sheet.chips ?? NO_CHIPS_SETUP;
  const { packages, unplaced } = planOf(
    sheet,
    sheets.map((one) => (whole.has(one.id) ? hollow(one) : one)),
    { family },
  );
  return packages.length + unplaced.length + wholeIn(sheet, sheets, whole);
}

/** A sheet of which only the ports are left. */
const hollow = (sheet: Sheet): Sheet => ({
  ...sheet,
  parts: new Map([...sheet.parts].filter(([, part]) => kindOf(part).boundary)),
  wires: new Map(),
});

/** Blocks that count as one, each time that they are used. */
function wholeIn(at: Sheet, sheets: readonly Sheet[], whole: ReadonlySet<string>): number {
  let count = 0;
  for (const part of at.parts.values()) {
    const inside = sheetInside(part, sheets);
    if (inside) count += whole.has(inside.id) ? 1 : wholeIn(inside, sheets, whole);
  }
  return count;
}
