import type { Edit } from '@/core/circuit/edit';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { Part } from '@/core/circuit/sheet';
import { FREE, type SheetRules } from '@/core/exercise/rules';
import { findKind } from '@/core/parts/catalogue';
import { type Problem, problem } from '@/core/values/result';

/** What may be done on a sheet of a lesson that answers an exercise. */
export type RuleBook = (lesson: Lesson, sheet: { readonly id: string }) => SheetRules;

/** The rules for the view: those of the shown sheet, and for signals those of the running sheet. */
export function rulesShown(
  book: RuleBook | null,
  { lesson, rootId, sheetId }: { readonly lesson: Lesson; readonly rootId: string; readonly sheetId: string },
): SheetRules {
  if (!book) return FREE;
  const { still, needsTime, guide } = book(lesson, { id: rootId });
  return { ...book(lesson, { id: sheetId }), still, needsTime, guide };
}

/** Why an exercise does not let an edit be made, else null. */
export function forbidden(book: RuleBook, lesson: Lesson, edit: Edit): Problem | null {
  switch (edit.type) {
    case 'group': {
      for (const inner of edit.edits) {
        const found = forbidden(book, lesson, inner);
        if (found) return found;
      }
      return null;
    }
    case 'addSheet':
      return strangeAmong(edit.sheet.parts.values(), book(lesson, edit.sheet));
    case 'removeSheet': {
      const tasks = lesson.work?.tasks ?? {};
      return Object.values(tasks).some(({ sheet }) => sheet === edit.id)
        ? problem('task-sheet', 'a task of the exercise is done on this sheet')
        : null;
    }
    case 'changeLesson':
    case 'changeWork':
    case 'noteChecks':
    case 'changeSheet':
      return null;
    default: {
      const rules = book(lesson, { id: edit.sheet });
      if (rules.fixed) return problem('fixed-sheet', rules.fixed);
      if (edit.type === 'addPart') return strangeAmong([edit.part], rules);
      const part = edit.type === 'changePart' && sheetOf(lesson, edit.sheet)?.parts.get(edit.id);
      return part && edit.change.kind ? strangeAmong([{ ...part, ...edit.change }], rules) : null;
    }
  }
}

function strangeAmong(parts: Iterable<Part>, { parts: allowed }: SheetRules): Problem | null {
  if (!allowed) return null;
  for (const { kind } of parts)
    if (!isAllowed(allowed, kind))
      return problem('not-allowed', `this exercise does not allow ${findKind(kind)?.name ?? kind}`);
  return null;
}

/** Whether a kind may be placed where only some kinds may; switches, lamps and blocks always can. */
export function isAllowed(allowed: SheetRules['parts'], kind: string): boolean {
  const entry = findKind(kind);
  return !allowed || allowed.has(kind) || entry?.alwaysAllowed === true || entry?.insideSheet !== undefined;
}
