import type { Student } from '../exercise/class-list';
import { unguarded } from '../values/csv';
import { done, type Result, refused } from '../values/result';
import { readCsv } from './csv';

/** Most students of a class list. */
export const MOST_STUDENTS = 5000;
const MOST_LETTERS = 120;

/** What the heading of a column may be called, in small letters. */
const HEADS = {
  name: ['name', 'student', 'full name'],
  first: ['first name', 'first', 'given name'],
  last: ['last name', 'last', 'surname', 'family name'],
  number: ['number', 'id', 'student number', 'no', 'no.'],
  group: ['group', 'class', 'section', 'team'],
} as const;

/** Reads a class list: CSV with a heading, fields parted by commas or semicolons, a column `name` or one for each half of it. */
export function readClassList(text: string): Result<Student[]> {
  const [first = ''] = text.split(/\r?\n/, 1);
  const read = readCsv(text, first.split(';').length > first.split(',').length ? ';' : ',');
  if (!read.ok) return read;
  const heads = read.value.heads.map((head) => head.toLowerCase());
  const columnOf = (of: keyof typeof HEADS) =>
    heads.findIndex((head) => (HEADS[of] as readonly string[]).includes(head));
  const [name, firstName, lastName, number, group] = (
    ['name', 'first', 'last', 'number', 'group'] as const
  ).map(columnOf);
  if (name === -1 && (firstName === -1 || lastName === -1))
    return refused('no-name', 'it needs a column called name, or first name and last name');
  if (read.value.rows.length > MOST_STUDENTS)
    return refused('too-many', `it has more than ${MOST_STUDENTS} students`);
  const at = (row: readonly string[], column: number | undefined) =>
    column === undefined || column === -1 ? '' : unguarded(row[column]!.trim()).slice(0, MOST_LETTERS);
  const students = read.value.rows.map((row) => ({
    name: at(row, name) || `${at(row, firstName)} ${at(row, lastName)}`.trim(),
    number: at(row, number),
    group: at(row, group),
  }));
  return done(students.filter((student) => student.name !== ''));
}
