import type { Exercise } from '../circuit/exercise';
import { LESSON_VERSION, type Lesson, type Part, type Sheet } from '../circuit/lesson';
import type { LessonFile, SheetFile } from '../circuit/lesson-schema';
import { defaultParams, findKind, kindOf } from '../parts/catalogue';
import { naturalOrder } from '../values/natural-order';
import type { Infer } from '../values/schema';

const byId = (a: { id: string }, b: { id: string }) => naturalOrder(a.id, b.id) || (a.id < b.id ? -1 : 1);

/** The lesson as its file holds it, parts and wires ordered by id, so that equal lessons give equal files. */
export function lessonToFile(lesson: Lesson): LessonFile {
  const sheets = lesson.sheets.map((s) => ({
    id: s.id,
    name: s.name,
    parts: [...s.parts.values()].sort(byId).map(withoutDefaults) as unknown as Infer<
      typeof SheetFile
    >['parts'],
    wires: [...s.wires.values()].sort(byId) as unknown as Infer<typeof SheetFile>['wires'],
    ...(s.plan ? { plan: s.plan } : {}),
    ...(s.time ? { time: s.time } : {}),
  }));
  const { id, title, settings, exercise } = lesson;
  return { format: 'manege-lesson', version: LESSON_VERSION, id, title, settings, sheets, exercise };
}

/** The part without the parameters that are as its kind has them, so that files and links stay short. */
function withoutDefaults(part: Part): Part {
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

/** Reads what `lessonToFile` gave under the same rules: nothing has to be checked, only filled in. */
export function lessonFromChecked(file: LessonFile): Lesson {
  const { id, title, settings, exercise } = file;
  const sheets = file.sheets.map((sheet): Sheet => {
    const parts = sheet.parts.map((part): Part => {
      const kind = findKind(part.kind)!;
      return { ...part, params: { ...defaultParams(kind), ...part.params } };
    });
    return {
      id: sheet.id,
      name: sheet.name,
      parts: new Map(parts.map((part) => [part.id, part])),
      wires: new Map(sheet.wires.map((wire) => [wire.id, wire])),
      ...(sheet.plan ? { plan: sheet.plan } : {}),
      ...(sheet.time ? { time: sheet.time } : {}),
    };
  });
  return { id, title, settings, exercise: exercise as Exercise | null, sheets };
}
