import type { Lesson } from '../circuit/lesson';
import type { LessonFile } from '../circuit/lesson-schema';
import { kindOf } from '../parts/catalogue';
import { defaultParams } from '../parts/params';
import { naturalOrder } from '../values/natural-order';
import { lessonToKeep } from './kept-lesson';

type PartFile = LessonFile['sheets'][number]['parts'][number];

const byId = (a: { id: string }, b: { id: string }) => naturalOrder(a.id, b.id) || (a.id < b.id ? -1 : 1);

/** The lesson as its file holds it, parts and wires ordered by id, so that equal lessons give equal files. */
export function lessonToFile(lesson: Lesson): LessonFile {
  const { sheets, ...head } = lessonToKeep(lesson);
  return {
    ...head,
    sheets: sheets.map((sheet) => ({
      ...sheet,
      parts: [...sheet.parts].sort(byId).map(withoutDefaults),
      wires: [...sheet.wires].sort(byId),
    })),
  };
}

/** The part without parameters at their defaults, so that files and links stay short. */
function withoutDefaults(part: PartFile): PartFile {
  const usual = defaultParams(kindOf(part));
  const params = Object.entries(part.params).filter(
    ([name, value]) => JSON.stringify(value) !== JSON.stringify(usual[name]),
  );
  return { ...part, params: Object.fromEntries(params) };
}

/** The text of a lesson file: one part and one wire a line, so that two versions compare well. */
export function writeLesson(lesson: Lesson): string {
  const { sheets, ...head } = lessonToFile(lesson);
  const list = (items: readonly unknown[]) =>
    items.length ? `[\n${items.map((i) => `        ${JSON.stringify(i)}`).join(',\n')}\n      ]` : '[]';
  const own = (name: string, value: unknown) =>
    value ? `,\n      ${JSON.stringify(name)}: ${JSON.stringify(value)}` : '';
  const sheet = (s: LessonFile['sheets'][number]) =>
    `    {\n      "id": ${JSON.stringify(s.id)},\n      "name": ${JSON.stringify(s.name)},\n` +
    `      "parts": ${list(s.parts)},\n      "wires": ${list(s.wires)}${own('plan', s.plan)}${own('time', s.time)}\n    }`;
  const heading = Object.entries(head).map(
    ([key, value]) => `  ${JSON.stringify(key)}: ${JSON.stringify(value)}`,
  );
  return `{\n${[...heading, `  "sheets": [\n${sheets.map(sheet).join(',\n')}\n  ]`].join(',\n')}\n}\n`;
}
