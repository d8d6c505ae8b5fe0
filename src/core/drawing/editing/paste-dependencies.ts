import type { Lesson } from '../../circuit/lesson';
import { freshId, type Part, type Sheet } from '../../circuit/sheet';
import { withSheetInside } from '../../parts/block';
import { sheetIdInside, sheetInside } from '../../parts/catalogue';

/*
 * Sheets that go along when their blocks are taken from one lesson to another.
 */

/** Ids of the sheets that a sheet needs for its blocks, by way of others too. */
export function sheetsUsedBy(lesson: Lesson, sheet: Sheet): ReadonlySet<string> {
  const held = new Set<string>();
  const look = (at: Sheet) => {
    for (const part of at.parts.values()) {
      const inside = sheetInside(part, lesson.sheets);
      if (!inside || held.has(inside.id)) continue;
      held.add(inside.id);
      look(inside);
    }
  };
  look(sheet);
  return held;
}

/** The sheet with its blocks leading to sheets of other ids. */
export function withSheetIds(sheet: Sheet, ids: ReadonlyMap<string, string>): Sheet {
  const parts = new Map<string, Part>();
  for (const [id, part] of sheet.parts) {
    const now = ids.get(sheetIdInside(part) ?? '');
    parts.set(id, now ? withSheetInside(part, now) : part);
  }
  return { ...sheet, parts };
}

/**
 * Which of some sheets must be added to a lesson, under ids and names that are free there, and under which id each is
 * then to be found. One that the lesson has already, with the same content, is not brought twice.
 */
export function sheetsToAdd(
  lesson: Lesson,
  sheets: readonly Sheet[],
): { readonly added: readonly Sheet[]; readonly ids: ReadonlyMap<string, string> } {
  const content = (s: Sheet) => JSON.stringify([s.name, [...s.parts.values()], [...s.wires.values()]]);
  const there = new Map(lesson.sheets.map((s) => [content(s), s.id]));
  const taken = new Map(lesson.sheets.map((s) => [s.id, s]));
  const names = new Set(lesson.sheets.map((s) => s.name));
  const ids = new Map<string, string>();
  const added: Sheet[] = [];
  // Sheets without blocks are resolved first, so that a sheet is compared with its blocks as they are here.
  const inward = [...sheets].sort((a, b) => depth(a, sheets) - depth(b, sheets));
  for (const sheet of inward) {
    const now = withSheetIds(sheet, ids);
    const same = there.get(content(now));
    if (same) {
      ids.set(sheet.id, same);
      continue;
    }
    const id = freshId(taken, 'sheet');
    let name = now.name;
    for (let n = 2; names.has(name); n++) name = `${now.name} ${n}`;
    names.add(name);
    const fresh = { ...now, id, name };
    taken.set(id, fresh);
    ids.set(sheet.id, id);
    added.push(fresh);
  }
  return { added, ids };
}

/** How many blocks deep a sheet goes among others; a circle counts as deep as it is followed. */
function depth(sheet: Sheet, among: readonly Sheet[], seen: ReadonlySet<string> = new Set()): number {
  if (seen.has(sheet.id)) return 0;
  let most = 0;
  for (const part of sheet.parts.values()) {
    const inside = sheetInside(part, among);
    if (inside) most = Math.max(most, 1 + depth(inside, among, new Set([...seen, sheet.id])));
  }
  return most;
}
