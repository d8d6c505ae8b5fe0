import type { Lesson } from '../circuit/lesson';
import { type LessonFile, PartFile, SettingsFile, WireFile } from '../circuit/lesson-schema';
import type { Part } from '../circuit/sheet';
import { kindOf } from '../parts/catalogue';
import { defaultParams } from '../parts/params';
import { naturalOrder } from '../values/natural-order';
import { lessonToKeep } from './kept-lesson';
import { areLargeTogether, type SheetTables, toTables } from './sheet-tables';

type SheetFile = LessonFile['sheets'][number];

const PART_FIELDS = Object.keys(PartFile.shape);
const WIRE_FIELDS = Object.keys(WireFile.shape);
const SETTINGS_FIELDS = Object.keys(SettingsFile.shape);

const byId = (a: { id: string }, b: { id: string }) => naturalOrder(a.id, b.id) || (a.id < b.id ? -1 : 1);

/**
 * The lesson as its file holds it: parts and wires ordered by id, their fields as in the schema, so that equal
 * lessons give equal files whatever edits led to them.
 */
export function lessonToFile(lesson: Lesson): LessonFile {
  const kept = lessonToKeep(lesson);
  return { ...kept, settings: ordered(kept.settings, SETTINGS_FIELDS), sheets: kept.sheets.map(sheetToFile) };
}

function sheetToFile(sheet: SheetFile): SheetFile {
  const { parts, wires } = inOrder(sheet);
  return {
    ...sheet,
    parts: parts.map((part) => ordered({ ...part, params: paramsToFile(part) }, PART_FIELDS)),
    wires: wires.map((wire) => ordered(wire, WIRE_FIELDS)),
  };
}

const inOrder = ({ parts, wires }: SheetFile) => ({
  parts: [...parts].sort(byId),
  wires: [...wires].sort(byId),
});

/** The parameters of a part without those at their defaults, so that files and links stay short. */
function paramsToFile(part: Part): SheetFile['parts'][number]['params'] {
  const usual = defaultParams(kindOf(part));
  const differing = Object.keys(usual).filter((name) => !isSame(part.params[name], usual[name]));
  // Parameters without a usual value follow the others.
  const others = Object.keys(part.params)
    .filter((name) => !(name in usual))
    .sort();
  return ordered(part.params, [...differing, ...others]) as SheetFile['parts'][number]['params'];
}

/** Whether two values of a parameter are the same; some are lists of numbers. */
const isSame = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === 'object' && JSON.stringify(a) === JSON.stringify(b));

/** A copy with the given fields in this order, and without all others. */
function ordered<T extends object>(value: T, fields: readonly string[]): T {
  const given = value as Record<string, unknown>;
  const copy: Record<string, unknown> = {};
  for (const name of fields) if (given[name] !== undefined) copy[name] = given[name];
  return copy as T;
}

/** The text of a lesson file: one part and one wire a line, so that two versions compare well; of large sheets a list a line. */
export function writeLesson(lesson: Lesson): string {
  const { sheets, settings, exercise, work, ...rest } = lessonToKeep(lesson);
  const head = { ...rest, settings: ordered(settings, SETTINGS_FIELDS), exercise, ...(work ? { work } : {}) };
  const list = (items: readonly unknown[]) =>
    items.length ? `[\n${items.map((i) => `        ${JSON.stringify(i)}`).join(',\n')}\n      ]` : '[]';
  const own = (name: string, value: unknown) =>
    value ? `,\n      ${JSON.stringify(name)}: ${JSON.stringify(value)}` : '';
  const isLarge = areLargeTogether(sheets);
  const contents = (s: SheetFile) => {
    if (isLarge) return `      "tables": ${listsText(toTables(inOrder(s), paramsToFile))}`;
    const { parts, wires } = sheetToFile(s);
    return `      "parts": ${list(parts)},\n      "wires": ${list(wires)}`;
  };
  const sheet = (s: SheetFile) =>
    `    {\n      "id": ${JSON.stringify(s.id)},\n      "name": ${JSON.stringify(s.name)},\n` +
    `${contents(s)}${own('plan', s.plan)}${own('time', s.time)}${own('chips', s.chips)}${own('board', s.board)}\n    }`;
  const heading = Object.entries(head).map(
    ([key, value]) => `  ${JSON.stringify(key)}: ${JSON.stringify(value)}`,
  );
  return `{\n${[...heading, `  "sheets": [\n${sheets.map(sheet).join(',\n')}\n  ]`].join(',\n')}\n}\n`;
}

function listsText(tables: SheetTables): string {
  const lists = (of: object) =>
    Object.entries(of)
      .map(([name, value]) => `          ${JSON.stringify(name)}: ${JSON.stringify(value)}`)
      .join(',\n');
  const { parts, wires } = tables;
  return `{\n        "parts": {\n${lists(parts)}\n        },\n        "wires": {\n${lists(wires)}\n        }\n      }`;
}
