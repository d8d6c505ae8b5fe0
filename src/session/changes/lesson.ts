import type { Settings } from '@/core/circuit/sheet';
import { partTypedAs } from '@/core/netlist/blocks';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';

/*
 * Titles and settings.
 */

export function renameSheet(session: Session, id: string, name: string): Result<undefined> {
  const text = name.trim().slice(0, 60);
  if (!text || text === session.state.lesson.sheets.find((s) => s.id === id)?.name) return DONE;
  const renamed = session.edit(`rename the sheet to “${text}”`, {
    type: 'changeSheet',
    id,
    change: { name: text },
  });
  if (renamed.ok) tellIfPart(session, text);
  return renamed;
}

export function renameLesson(session: Session, title: string): Result<undefined> {
  const text = title.trim();
  if (!text || text === session.state.lesson.title) return DONE;
  return session.edit(`rename the lesson to “${text}”`, { type: 'changeLesson', change: { title: text } });
}

/** Says how a sheet is placed as a block where its name is also that of a part. */
export function tellIfPart(session: Session, name: string): void {
  const part = partTypedAs(name);
  if (part)
    session.say(
      `“${name}” places the part ${part.name}. To place this sheet as a block elsewhere, type “block ${name}”.`,
    );
}

/** Changes settings of the lesson. @param what the setting, as it follows “change”: `the gate symbols`. */
export function changeSettings(session: Session, what: string, change: Partial<Settings>): Result<undefined> {
  const settings = { ...session.state.lesson.settings, ...change };
  return session.edit(`change ${what}`, { type: 'changeLesson', change: { settings } });
}
