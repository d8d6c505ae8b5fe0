import { type Infer, list, text, z } from '../values/schema';

const StudentFile = z.object({ name: text(250), number: text(120), group: text(120) });
/** A student as the class list names them. */
export type Student = Infer<typeof StudentFile>;

/** A class, and the students to whom differently written names belong. */
export const ClassList = z.object({
  students: list(StudentFile, 5000),
  /** By the name on a hand-in the name in the list. */
  joined: z.record(text(250), text(250)),
});
export type ClassList = Infer<typeof ClassList>;

/** A name as it is compared: small letters without accents, its words in one order. */
const keyOf = (name: string): string =>
  name
    .normalize('NFKD')
    .replaceAll(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');

/** Letters in which names may differ to be offered as one. */
const MOST_DIFFERENT = 2;

/** The letters that have to be changed, added or left out to make one text of the other (Levenshtein, 1966). */
function distance(a: string, b: string): number {
  let before = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (const [i, letter] of [...a].entries()) {
    const now = [i + 1];
    for (let j = 0; j < b.length; j++)
      now.push(Math.min(now[j]! + 1, before[j + 1]! + 1, before[j]! + (letter === b[j] ? 0 : 1)));
    before = now;
  }
  return before[b.length]!;
}

/** Whether two names may well be one person's: a slip of the pen, or a first name by its letter. */
function isLike(a: string, b: string): boolean {
  if (distance(a, b) <= MOST_DIFFERENT) return true;
  const [words, others] = [a.split(' '), b.split(' ')];
  return (
    words.length === others.length &&
    words.length > 1 &&
    words.every((word) => others.some((other) => other.startsWith(word) || word.startsWith(other)))
  );
}

/** A class beside the names on hand-ins. */
export interface Attendance {
  /** By the name on a hand-in the student of the list. */
  readonly students: ReadonlyMap<string, Student>;
  readonly missing: readonly Student[];
  /** Names on hand-ins that are not in the list, each with the student probably meant, if any. */
  readonly unknown: readonly { readonly name: string; readonly like: Student | null }[];
}

/** Who of a class has handed in. Names that differ are offered, and never joined by themselves. */
export function attendanceOf({ students, joined }: ClassList, names: readonly string[]): Attendance {
  const byKey = new Map(students.map((student) => [keyOf(student.name), student]));
  const found = new Map<string, Student>();
  for (const name of names) {
    const student = byKey.get(keyOf(Object.hasOwn(joined, name) ? joined[name]! : name));
    if (student) found.set(name, student);
  }
  const there = new Set(found.values());
  const missing = students.filter((student) => !there.has(student));
  const unknown = names
    .filter((name) => !found.has(name))
    .map((name) => ({
      name,
      like: missing.find((student) => isLike(keyOf(student.name), keyOf(name))) ?? null,
    }));
  return { students: found, missing, unknown };
}

/** The list with a name on hand-ins joined to one of its students. */
export const withJoined = (of: ClassList, name: string, student: Student): ClassList => ({
  ...of,
  joined: { ...of.joined, [name]: student.name },
});
