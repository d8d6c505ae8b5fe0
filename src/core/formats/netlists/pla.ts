import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { layOut } from '../../drawing/layout/lay-out';
import { type BooleanFunction, OFF, ON } from '../../logic/minimise/cube';
import { MOST_TO_MINIMISE, minimise } from '../../logic/minimise/minimise';
import { cell, type TruthTable } from '../../logic/table/truth-table';
import { ONE, ZERO } from '../../values/logic';
import { done, type Result, refused } from '../../values/result';
import { C0 } from '../verilog/cells';
import { NamedBits } from './netlist-cells';

/*
 * Tables of products for several outputs, in the format of the espresso minimiser.
 */

const MOST_PRODUCTS = 20_000;
const MOST_COLUMNS = 512;

interface Row {
  readonly cube: string;
  readonly outputs: string;
}

/** Reads a PLA: an AND for each product, an OR for each output. Rows that may be either are taken as 0. */
export function readPla(text: string, title: string, laidOut = true): Result<Lesson> {
  let [inputs, outputs] = [0, 0];
  let names: { in: readonly string[]; out: readonly string[] } = { in: [], out: [] };
  const rows: Row[] = [];
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const bad = (message: string): Result<Lesson> => refused('bad-pla', `line ${i + 1}: ${message}`);
    const line = raw.replace(/#.*$/, '').trim();
    if (line === '') continue;
    const [word, ...rest] = line.split(/\s+/) as [string, ...string[]];
    if (word.startsWith('.')) {
      const count = Number(rest[0]);
      switch (word) {
        case '.i':
        case '.o':
          if (!(Number.isInteger(count) && count >= 1 && count <= MOST_COLUMNS))
            return bad(`1 to ${MOST_COLUMNS} is expected behind ${word}`);
          if (word === '.i') inputs = count;
          else outputs = count;
          break;
        case '.ilb':
          names = { ...names, in: rest };
          break;
        case '.ob':
          names = { ...names, out: rest };
          break;
        case '.type':
          if (!/^(f|fd|fr|fdr)$/.test(rest[0] ?? '')) return bad('f, fd, fr or fdr is expected behind .type');
          break;
        case '.p':
        case '.e':
        case '.end':
          break;
        default:
          return bad(`${word} is not known here`);
      }
      continue;
    }
    if (inputs === 0 || outputs === 0) return bad('.i and .o are expected before the first row');
    const signs = line.replaceAll(/[\s|]+/g, '');
    const [cube, values] = [signs.slice(0, inputs), signs.slice(inputs)];
    if (!/^[01-]+$/.test(cube) || values.length !== outputs || !/^[01~24-]+$/.test(values))
      return bad(`${inputs} signs 0, 1 or - and ${outputs} signs 0, 1, - or ~ are expected`);
    rows.push({ cube, outputs: values });
    if (rows.length > MOST_PRODUCTS) return bad(`more than ${MOST_PRODUCTS} products`);
  }
  if (inputs === 0 || outputs === 0) return refused('bad-pla', 'line 1: .i and .o are expected');
  const nameOf = (list: readonly string[], i: number, letter: string) => list[i] ?? `${letter}${i}`;
  const bits = new NamedBits('m1', title.slice(0, 60) || 'PLA');
  for (let i = 0; i < inputs; i++) bits.input(nameOf(names.in, i, 'i'), i);
  const columns = Array.from({ length: inputs }, (_, i) => bits.bit(nameOf(names.in, i, 'i')));
  const signOf = (c: string): 0 | 1 | -1 => (c === '1' ? 1 : c === '0' ? 0 : -1);
  const isOn = (sign: string) => sign === '1' || sign === '4';
  // A product that several outputs share is one gate.
  const terms = rows.map(({ cube, outputs: values }) =>
    [...values].some(isOn) ? bits.gates.equals(columns, [...cube].map(signOf)) : C0,
  );
  for (let o = 0; o < outputs; o++) {
    const own = terms.filter((_, row) => isOn(rows[row]!.outputs[o]!));
    const name = nameOf(names.out, o, 'o');
    bits.output(name, o, bits.anyOf(own));
  }
  const sheet = bits.sheet();
  return done({
    ...emptyLesson('from-pla', title.slice(0, 120) || 'PLA'),
    sheets: [laidOut ? layOut(sheet) : sheet],
  });
}

/** The lines of a table as PLA: the smallest sum of products for each output; X and Z are left to either. */
export function writePla(table: TruthTable): Result<string[]> {
  const inputs = table.inputs.length;
  if (inputs > MOST_TO_MINIMISE)
    return refused(
      'too-many-inputs',
      `${inputs} inputs are too many for the products of this format: ${MOST_TO_MINIMISE} are the most`,
    );
  const products = new Map<string, Set<number>>();
  for (const o of table.outputs.keys()) {
    const rows = Uint8Array.from({ length: table.rows }, (_, row) => {
      const value = cell(table, o, row);
      return value === ONE ? ON : value === ZERO ? OFF : 2;
    });
    const fn: BooleanFunction = { inputs, rows };
    for (const { mask, value } of minimise(fn).cubes) {
      let cube = '';
      for (let bit = inputs - 1; bit >= 0; bit--) cube += (mask >> bit) & 1 ? `${(value >> bit) & 1}` : '-';
      products.set(cube, (products.get(cube) ?? new Set()).add(o));
    }
  }
  const plain = (names: readonly string[]) => names.map((name) => name.replaceAll(/[\s#]+/g, '_')).join(' ');
  return done([
    `.i ${inputs}`,
    `.o ${table.outputs.length}`,
    `.ilb ${plain(table.inputs)}`,
    `.ob ${plain(table.outputs)}`,
    '.type f',
    `.p ${products.size}`,
    ...[...products].map(
      ([cube, own]) => `${cube} ${table.outputs.map((_, o) => (own.has(o) ? '1' : '0')).join('')}`,
    ),
    '.e',
  ]);
}
