import type { Stock } from '../packages/units';
import { noSuchPackage, packageCalled } from '../parts/packages';
import { done, type Result, refused } from '../values/result';
import { readCsv } from './csv';

/** Most of one package in a drawer. */
const MOST_OF_ONE = 10_000;
const TYPE_HEADS = ['type', 'package', 'number', 'part'];
const COUNT_HEADS = ['count', 'pieces', 'quantity', 'how many'];

/**
 * Reads the packages in a drawer: CSV with a column `type` (`7408`, `74HC08`, `4011`) and a column `count`; or one package a line
 * with its number before it (`2 x 08`).
 */
export function readStock(text: string): Result<Stock[]> {
  const lines = text
    .split(/\r?\n|,(?=\s*\d+\s*[x×])/)
    .map((line) => line.trim())
    .filter(Boolean);
  if (lines.length > 0 && lines.every((line) => SHORT.test(line))) return ofLines(lines);
  const [first = ''] = text.split(/\r?\n/, 1);
  const read = readCsv(text, first.includes(';') && !first.includes(',') ? ';' : ',');
  if (!read.ok) return read;
  const heads = read.value.heads.map((head) => head.toLowerCase());
  const [type, count] = [TYPE_HEADS, COUNT_HEADS].map((names) =>
    heads.findIndex((head) => names.includes(head)),
  );
  if (type === -1 || count === -1)
    return refused(
      'no-stock',
      'it needs a column called type and one called count, or lines such as 2 x 7408',
    );
  return collected(read.value.rows.map((row, i) => [row[type!]!, row[count!]!, `row ${i + 2}`]));
}

const SHORT = /^(\d+)\s*[x×]\s*(\S+)$/i;

const ofLines = (lines: readonly string[]): Result<Stock[]> =>
  collected(
    lines.map((line, i) => {
      const [, count, type] = SHORT.exec(line)!;
      return [type!, count!, `line ${i + 1}`];
    }),
  );

function collected(
  entries: readonly (readonly [type: string, count: string, where: string])[],
): Result<Stock[]> {
  const stock: Stock[] = [];
  for (const [type, count, where] of entries) {
    const written = type.trim();
    const found = packageCalled(written) ?? packageCalled(`74${written}`);
    if (!found)
      return refused(
        'no-such-package',
        `${where}: ${noSuchPackage(written) ?? `“${written}” is no package of the catalogue`}`,
      );
    const pieces = Number(count);
    if (!/^\s*\d+\s*$/.test(count) || pieces > MOST_OF_ONE)
      return refused(
        'bad-count',
        `${where}: “${count.trim()}” is no number of packages, 0 to ${MOST_OF_ONE}`,
      );
    const isBare = /^(?:74)?\d{2,3}$/.test(written);
    stock.push({ type: isBare ? found.type.number : found.name, count: pieces });
  }
  return done(stock);
}
