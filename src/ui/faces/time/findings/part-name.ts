import { spokenName } from '@/core/parts/catalogue';
import type { Session } from '@/session/session';

/** A part by the name that people know it by. */
export function nameOf(session: Session, path: string): string {
  const [, first, rest] = /^([A-Za-z0-9_-]+)(.*)$/.exec(path) ?? ['', path, ''];
  const part = session.sheet.parts.get(first!);
  return `${part ? spokenName(part) : first}${rest!.replaceAll('/', ' / ')}`;
}
