import type { Expected } from '../circuit/exercise';
import { inputAt } from '../logic/table/truth-table';
import { listed } from '../values/wording';
import type { Check } from './check';
import { expectedKindOf } from './expected';

/** Most inputs for which rows are put into words. */
const MOST_INPUTS = 6;
/** Sentences at most: more are no help. */
const MOST_SENTENCES = 3;

const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six'];

/**
 * Where rows lie, as a clause: `while Key is 1 and Bars is 0`, `where only one input is 1`, `where A and B differ`. Null if no
 * such clause describes exactly these rows.
 * @param rows row by row whether it is meant; of rows that do not count it does not matter.
 * @param counts row by row whether it counts.
 */
export function whereInWords(
  inputs: readonly string[],
  rows: readonly boolean[],
  counts: readonly boolean[] = rows.map(() => true),
): string | null {
  const all = rows.flatMap((_, row) => (counts[row] ? [row] : []));
  const meant = all.filter((row) => rows[row]);
  if (meant.length === 0 || inputs.length > MOST_INPUTS) return null;
  if (meant.length === all.length) return 'in every row';
  const bit = (row: number, i: number) => inputAt(inputs.length, i, row);
  const says = (clause: (row: number) => boolean) => all.every((row) => clause(row) === rows[row]);
  // The inputs that stand the same in all of them: a product.
  const fixed = inputs.flatMap((name, i) => {
    const value = bit(meant[0]!, i);
    return meant.every((row) => bit(row, i) === value) ? [{ name, i, value }] : [];
  });
  if (fixed.length > 0 && says((row) => fixed.every(({ i, value }) => bit(row, i) === value)))
    return `while ${listed(fixed.map(({ name, value }) => `${name} is ${value}`))}`;
  const onesIn = (row: number) => inputs.filter((_, i) => bit(row, i) === 1).length;
  const ones = onesIn(meant[0]!);
  if (says((row) => onesIn(row) === ones)) {
    if (ones === 1) return 'where only one input is 1';
    if (ones === inputs.length - 1) return 'where only one input is 0';
    return `where just ${NUMBERS[ones]} inputs are 1`;
  }
  for (const [i, a] of inputs.entries())
    for (let j = i + 1; j < inputs.length; j++)
      for (const differ of [true, false])
        if (says((row) => (bit(row, i) !== bit(row, j)) === differ))
          return `where ${a} and ${inputs[j]} ${differ ? 'differ' : 'are equal'}`;
  return null;
}

/** The errors of a circuit, one sentence for each output that has a simple description: `Your Carry is 1 where only one input is 1.` */
export function wrongInWords(expected: Expected, { given, rowIsRight }: Check): string[] {
  const { inputs, outputs, output, word, rows } = expectedKindOf(expected).rows(expected);
  if (word !== 'row' || rows !== 2 ** inputs.length || given.length === 0) return [];
  const said: string[] = [];
  for (const [o, name] of outputs.entries()) {
    const wanted = rowIsRight.map((_, row) => output(o, row));
    const is = rowIsRight.map((_, row) => given[o]![row]!);
    if (is.some((value) => value === '-')) continue;
    const counts = wanted.map((value) => value !== 'x');
    const wrong = is.map((value, row) => counts[row]! && value !== wanted[row]);
    const values = new Set(is.filter((_, row) => wrong[row]));
    if (values.size === 0) continue;
    const where = whereInWords(inputs, wrong, counts);
    if (values.size === 1 && where) said.push(`Your ${name} is ${[...values][0]} ${where}.`);
    else if (nameOfColumn(is.join(''), inputs))
      said.push(`Your ${name} is ${columnInWords(is.join(''), inputs)}.`);
    else if (where === 'in every row')
      said.push(`Your ${name} is the opposite of what it should be in every row.`);
    else
      for (const value of [...values].sort()) {
        const part = whereInWords(
          inputs,
          wrong.map((isWrong, row) => isWrong && is[row] === value),
          counts,
        );
        if (part) said.push(`Your ${name} is ${value} ${part}.`);
      }
  }
  return said.slice(0, MOST_SENTENCES);
}

/** The name of a column of some inputs: of a gate on all of them, or of one of them; null where it has none. */
function nameOfColumn(column: string, inputs: readonly string[]): string | null {
  const rows = [...column];
  const all = (value: (row: number, ones: number) => boolean) =>
    rows.every((letter, row) => letter === (value(row, onesIn(row)) ? '1' : '0'));
  const onesIn = (row: number) => inputs.filter((_, i) => inputAt(inputs.length, i, row) === 1).length;
  const names: readonly (readonly [string, (row: number, ones: number) => boolean])[] = [
    ['always 0', () => false],
    ['always 1', () => true],
    ...inputs.flatMap((name, i) =>
      ([1, 0] as const).map(
        (value) =>
          [value ? name : `not ${name}`, (row: number) => inputAt(inputs.length, i, row) === value] as const,
      ),
    ),
    ['AND', (_, ones) => ones === inputs.length],
    ['OR', (_, ones) => ones > 0],
    ['XOR', (_, ones) => ones % 2 === 1],
    ['NAND', (_, ones) => ones < inputs.length],
    ['NOR', (_, ones) => ones === 0],
    ['XNOR', (_, ones) => ones % 2 === 0],
  ];
  return names.find(([, value]) => all(value))?.[0] ?? null;
}

/** A column that has a name, as what it is: `always 0`, `just Key`, `the OR of Key and Bars`. */
function columnInWords(column: string, inputs: readonly string[]): string {
  const name = nameOfColumn(column, inputs)!;
  if (name.startsWith('always')) return name;
  return /^[A-Z]{2,4}$/.test(name) && !inputs.includes(name)
    ? `the ${name} of ${listed(inputs)}`
    : `just ${name}`;
}

/** What is wrong in a circuit, in a few words for a teacher: `OR for AND in Carry`; null where that cannot be said. */
export function mistakeInWords(expected: Expected, found: Check): string | null {
  const { inputs, outputs, output, word, rows } = expectedKindOf(expected).rows(expected);
  if (word !== 'row' || found.given.length === 0) return null;
  const all = Array.from({ length: rows }, (_, row) => row);
  const said = outputs.flatMap((name, o) => {
    const wanted = all.map((row) => output(o, row)).join('');
    const given = all.map((row) => found.given[o]![row]!).join('');
    if (all.every((row) => wanted[row] === 'x' || wanted[row] === given[row])) return [];
    if (given.includes('-')) return [missing(name, found)];
    const [is, should] = [nameOfColumn(given, inputs), nameOfColumn(wanted, inputs)];
    if (is && should) return [`${is} for ${should} in ${name}`];
    if (is) return [`${is} in ${name}`];
    const other = relatedTo(wanted, given, inputs);
    if (other) return [`${other} in ${name}`];
    const [sentence] = wrongInWords(expected, {
      ...found,
      given: found.given.map((g, i) => (i === o ? g : maskOf(g))),
    });
    return sentence ? [sentence.replace(/^Your /, '').replace(/\.$/, '')] : [`${name} wrong`];
  });
  return said.length > 0 ? listed([...new Set(said)]) : null;
}

/** How a column comes of the wanted one: all of it inverted, or two inputs exchanged; or of which inputs it is a gate. */
function relatedTo(wanted: string, given: string, inputs: readonly string[]): string | null {
  const count = inputs.length;
  if (count > MOST_INPUTS || !/^[01]+$/.test(given)) return null;
  const rows = [...wanted].map((_, row) => row);
  const is = (column: (row: number) => string) =>
    rows.every((row) => wanted[row] === 'x' || given[row] === column(row));
  if (is((row) => (wanted[row] === '1' ? '0' : '1'))) return 'all of it inverted';
  for (let i = 0; i < count; i++)
    for (let j = i + 1; j < count; j++) {
      const [a, b] = [count - 1 - i, count - 1 - j];
      const exchanged = (row: number) => {
        const differ = ((row >> a) ^ (row >> b)) & 1;
        return differ ? row ^ (1 << a) ^ (1 << b) : row;
      };
      if (is((row) => wanted[exchanged(row)]!)) return `${inputs[i]} and ${inputs[j]} exchanged`;
    }
  const inverted = inputs.find((_, i) => is((row) => wanted[row ^ (1 << (count - 1 - i))]!));
  if (inverted !== undefined) return `${inverted} inverted`;
  const essential = inputs.filter((_, i) =>
    rows.some((row) => given[row] !== given[row ^ (1 << (count - 1 - i))]),
  );
  if (essential.length === count) return null;
  const short = Array.from({ length: 2 ** essential.length }, (_, row) => {
    const whole = essential.reduce(
      (sum, name, k) =>
        sum + (((row >> (essential.length - 1 - k)) & 1) << (count - 1 - inputs.indexOf(name))),
      0,
    );
    return given[whole]!;
  }).join('');
  const gate = nameOfColumn(short, essential);
  return gate === null ? null : `${gate} of ${listed(essential)} only`;
}

/** Why an output has no values: it is not there, or the circuit gives none to any of them. */
function missing(name: string, { complaints }: Check): string {
  const [first] = complaints;
  if (first === undefined || complaints.some((text) => text.includes(`“${name}”`))) return `no ${name}`;
  const clause = first.replace(/[,.].*$/, '');
  return `${clause[0]!.toLowerCase()}${clause.slice(1)}`;
}

/** As long as a column, and missing. */
const maskOf = (column: Check['given'][number]): string => '-'.repeat(column.length);
