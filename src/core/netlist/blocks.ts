import type { Lesson } from '../circuit/lesson';
import type { Sheet } from '../circuit/sheet';
import { type BlockParams, blockKindOf, writePins } from '../parts/block';
import { boundaryOf, PLACEABLE, sheetIdInside } from '../parts/catalogue';
import type { PartKind } from '../parts/part-kind';
import { declaredInputs, declaredOutputs } from './declared';

/** The parameters of a block of this sheet: the sheet, its name, and its ports in declared order. */
export function blockParams(sheet: Sheet): BlockParams {
  const pins = (parts: ReturnType<typeof declaredInputs>) =>
    writePins(
      parts.flatMap((part) => {
        const boundary = boundaryOf(part);
        return boundary && part.label.trim() !== '' ? [{ name: part.label, ...boundary }] : [];
      }),
    );
  return {
    sheet: sheet.id,
    title: sheet.name,
    inputs: pins(declaredInputs(sheet)),
    outputs: pins(declaredOutputs(sheet)),
  };
}

/** Ids of the sheets that a sheet holds as blocks, by way of others too, itself among them. */
function heldSheets(lesson: Lesson, id: string): ReadonlySet<string> {
  const byId = new Map(lesson.sheets.map((s) => [s.id, s]));
  const held = new Set([id]);
  for (const at of held)
    for (const part of byId.get(at)?.parts.values() ?? []) {
      const inside = sheetIdInside(part);
      if (inside !== undefined) held.add(inside);
    }
  return held;
}

/** Says that a sheet, called by its name here, holds itself by way of others. */
export const holdsItself = (called: string, cycle: readonly string[]): string =>
  `a ${called} cannot hold itself: ${cycle.map((name) => `“${name}”`).join(' holds ')}`;

/**
 * A chain of sheets that leads from a sheet back to one that it has met, by the names of the sheets, the first and the last
 * the same; null where no sheet holds itself.
 */
export function blockCycle(sheets: readonly Sheet[], root: Sheet): readonly string[] | null {
  const byId = new Map(sheets.map((s) => [s.id, s]));
  const open: Sheet[] = [];
  const clear = new Set<string>();
  const visit = (sheet: Sheet): readonly string[] | null => {
    const at = open.indexOf(sheet);
    if (at !== -1) return [...open.slice(at), sheet].map((s) => s.name);
    if (clear.has(sheet.id)) return null;
    open.push(sheet);
    for (const inside of new Set([...sheet.parts.values()].map(sheetIdInside))) {
      const found = inside === undefined ? undefined : byId.get(inside);
      const cycle = found ? visit(found) : null;
      if (cycle) return cycle;
    }
    open.pop();
    clear.add(sheet.id);
    return null;
  };
  return visit(root);
}

/**
 * How many parts a sheet has with everything inside its blocks, without unfolding them: each sheet is looked at once.
 * Infinity where a sheet holds itself.
 */
export function unfoldedParts(sheets: readonly Sheet[], root: Sheet): number {
  if (blockCycle(sheets, root)) return Number.POSITIVE_INFINITY;
  const byId = new Map(sheets.map((s) => [s.id, s]));
  const known = new Map<string, number>();
  const count = (sheet: Sheet): number => {
    let parts = known.get(sheet.id);
    if (parts !== undefined) return parts;
    parts = sheet.parts.size;
    for (const part of sheet.parts.values()) {
      const inside = byId.get(sheetIdInside(part) ?? '');
      if (inside) parts += count(inside);
    }
    known.set(sheet.id, parts);
    return parts;
  };
  return count(root);
}

/** A kind of part for each sheet that can be a block on this one: it has ports, and does not hold this one. */
export function blocksFor(lesson: Lesson, onto: string): PartKind[] {
  return lesson.sheets
    .filter((s) => s.id !== onto && !heldSheets(lesson, s.id).has(onto))
    .map((s) => ({ sheet: s, params: blockParams(s) }))
    .filter(({ params }) => params.inputs !== '' || params.outputs !== '')
    .map(({ sheet, params }) => blockKindOf(sheet.name, params, partTypedAs(sheet.name) !== undefined));
}

/** The part of the catalogue that is placed by typing a name. */
export const partTypedAs = (name: string): PartKind | undefined =>
  PLACEABLE.find((kind) => kind.typed.includes(name.trim().toLowerCase()));

/** How often a sheet is used as a block. */
export function usesOf(lesson: Lesson, id: string): number {
  let uses = 0;
  for (const sheet of lesson.sheets)
    for (const part of sheet.parts.values()) if (sheetIdInside(part) === id) uses++;
  return uses;
}
