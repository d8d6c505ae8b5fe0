import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import type { LessonLink } from '@/core/formats/link/lesson-link';
import { withSheetsInside } from '@/core/parts/catalogue';
import { momentOf } from '@/core/simulate/run-moment';
import { textHash } from '@/core/values/text-hash';
import type { MomentRecord } from '@/store/database';
import { freshRun } from './clockwork';
import type { Session } from './session';
import type { KeptStanding } from './standing';

/**
 * What a link holds of an open lesson: as it is shown, with switches and the run as they stand.
 * @param faces the ids of those that are to be open.
 * @param isSheetAlone whether the other sheets stay out, apart from those of its blocks.
 */
export function linkOf(session: Session, faces: readonly string[], isSheetAlone: boolean): LessonLink {
  const { lesson, rootId, on } = session.state;
  const { run } = session.time;
  const root = sheetOf(lesson, rootId)!;
  const sheets = isSheetAlone ? withSheetsInside(root, lesson.sheets) : lesson.sheets;
  const title = isSheetAlone && lesson.sheets.length > 1 ? root.name : lesson.title;
  const hasRun = run.time > 0 || run.steps > 0;
  return {
    lesson: { ...lesson, title, sheets },
    view: {
      sheet: rootId,
      faces: [...faces],
      on: [...on],
      ...(hasRun && { moment: momentOf(run, freshRun(lesson, on)) }),
    },
  };
}

/** The lesson of a link in this browser: opening a link again finds the same copy. */
export function copyFor(link: LessonLink, fragment: string): Lesson {
  return { ...link.lesson, id: `link-${textHash(fragment)}` };
}

/** Switches and run of the sheet that a link shows. */
export function standingIn({ view }: LessonLink): KeptStanding {
  return { on: new Set(view.on), tried: new Map(), circuit: null, moment: view.moment };
}

/** The same as a browser keeps it. */
export function momentFor({ view }: LessonLink, lesson: string): MomentRecord {
  return {
    lesson,
    sheet: view.sheet,
    inputs: Object.fromEntries(view.on.map((key) => [key, 1 as const])),
    tried: [],
    moment: view.moment,
    seconds: 0,
  };
}
