import fc from 'fast-check';
import type { Answer, Task } from '../../circuit/exercise';
import { emptySheet } from '../../circuit/sheet';
import { productOf, sumOf } from '../../logic/expression/forms';
import { written } from '../../logic/expression/notation';
import { complement, rowsOf } from '../../logic/minimise/cube';
import { minimise } from '../../logic/minimise/minimise';
import { lessonOf, randomSheet } from '../../testing/random-circuit';
import { interlock, Sketch } from '../../testing/sketch';
import { expectDone } from '../../values/result';
import { excerptFor } from '../begin';
import { findTaskKind, TASK_KINDS } from '.';
import { type FormulaTask, formula, isInForm, readAnswer, smallestIn } from './formula';
import { type FunctionRows, functionOf, functionsOfSheet } from './function';
import { type MapTask, map } from './map';
import { type NumberTask, number } from './number';
import { valuesOf } from './number/from-circuit';
import { readQuantity } from './number/quantity';
import { type TableTask, table } from './table';
import { tableTask, typedTable, usuallyAsked, wholeTable, withCell } from './table/set-up';
import { words } from './words';

const heading = {
  id: 'task1',
  title: 'T',
  words: '',
  points: 1,
  tells: 'wanted',
  tries: null,
  given: null,
} as const;
const sheet = emptySheet('sheet1', 'Sheet 1');
const solution = <A extends Answer>(answer: A | null) => ({
  sheet,
  sheets: [sheet],
  answer,
  builtIn: () => [],
});

/** Functions of two to four inputs that are 1 somewhere. */
const anyFunction = fc
  .integer({ min: 2, max: 4 })
  .chain((inputs) =>
    fc.array(fc.constantFrom('0', '1', 'x'), { minLength: 2 ** inputs, maxLength: 2 ** inputs }).map(
      (rows): FunctionRows => ({
        inputs: ['A', 'B', 'C', 'D'].slice(0, inputs),
        output: 'Y',
        rows: rows.join(''),
      }),
    ),
  )
  .filter(({ rows }) => rows.includes('1'));

test('every kind is found by its name, and an unknown one is not', () => {
  for (const kind of TASK_KINDS) expect(findTaskKind(kind.kind)).toBe(kind);
  expect(findTaskKind('riddle')).toBeUndefined();
});

describe('a table to fill in', () => {
  const taskFor = (key: ReturnType<typeof tableTask>, given: Task['given'] = null): TableTask => ({
    ...heading,
    kind: 'table',
    given,
    ...key,
  });

  test('of a random circuit accepts its own cells, and tells a changed one by its row and column', () => {
    fc.assert(
      fc.property(randomSheet({ inputs: 3, gates: 8 }), fc.nat(), fc.nat(), (random, c, r) => {
        const whole = expectDone(wholeTable(random, [random]));
        const task = taskFor(tableTask(whole, usuallyAsked(whole), false));
        const { columns } = task.key;
        const own = { kind: 'table' as const, columns, isFinal: false };
        expect(table.mark(task, solution(own))).toMatchObject({ solved: true, complaints: [], wrong: null });
        const [at, row] = [c % columns.length, r % whole.rows];
        const was = columns[at]![row]!;
        const changed = columns.with(at, columns[at]!.with(row, was === '0' ? '1' : '0'));
        const mark = table.mark(task, solution({ ...own, columns: changed }));
        expect(mark).toMatchObject({ solved: false, right: mark.of - 1 });
        const name = whole.columns.filter(({ isInput }) => !isInput)[at]!.name;
        expect(mark.wrong).toBe(columns.length > 1 ? `row ${row} (${name})` : `row ${row}`);
      }),
      { numRuns: 60 },
    );
  });

  test('a given circuit stands still until the prediction is final', () => {
    const { sheet: drawn, lesson } = interlock();
    const whole = expectDone(wholeTable(drawn, [drawn]));
    const task = taskFor(
      tableTask(whole, usuallyAsked(whole), true),
      excerptFor(drawn, [drawn], lesson.settings),
    );
    const answer = { kind: 'table' as const, columns: task.key.columns, isFinal: false };
    expect(table.rules(task, null).still).toContain('Observe');
    expect(table.rules(task, answer).still).not.toBeNull();
    expect(table.rules(task, { ...answer, isFinal: true })).toMatchObject({
      still: null,
      fixed: expect.any(String),
    });
  });

  test('says how much is empty, and takes capitals and blanks for the same', () => {
    const key = {
      asked: {
        rows: 2,
        columns: [
          { name: 'Q', cells: ['0', '1'], isInput: true },
          { name: 'next', cells: null, isInput: false },
        ],
        values: [],
        isPredicted: false,
      },
      key: { columns: [['Q', "Q'"]] },
    };
    const task = taskFor(key);
    expect(table.mark(task, { ...solution(null), answer: null }).complaints).toEqual([
      'Nothing is filled in yet.',
    ]);
    const half = { kind: 'table' as const, columns: [[' q', '']], isFinal: false };
    expect(table.mark(task, solution(half))).toMatchObject({
      right: 1,
      complaints: ['1 of 2 cells is still empty.'],
    });
    expect(table.strange(task)).toBeNull();
    expect(table.strange({ ...task, key: { columns: [] } })).toContain('0 wanted columns where 1 are needed');
  });

  test('a sheet with storage gives its state table', () => {
    const s = new Sketch();
    s.place('clock', 0, 8, 'Clk');
    s.place('switch', 0, 0, 'D');
    s.place('dff', 12, 4, 'Q');
    s.place('lamp', 24, 2, 'Lit');
    s.wire('switch1.Y', 'dff1.D');
    s.wire('clock1.Y', 'dff1.C');
    s.wire('dff1.Q', 'lamp1.A');
    const whole = expectDone(wholeTable(s.sheet, [s.sheet]));
    expect(whole.rows).toBe(4);
    expect(whole.columns.map(({ name }) => name)).toContain('Lit');
  });
});

describe('a formula', () => {
  const taskFor = (
    of: FunctionRows,
    form: FormulaTask['asked']['form'],
    mostLiterals: number | null,
  ): FormulaTask => ({
    ...heading,
    kind: 'formula',
    asked: { inputs: of.inputs, output: of.output, form, mostLiterals, showsTable: true },
    key: { function: of },
  });

  test('the smallest of each form is accepted with as many literals as are enough, and none fewer is allowed', () => {
    fc.assert(
      fc.property(anyFunction, (of) => {
        const fn = functionOf(of);
        const sum = written(sumOf(minimise(fn).cubes, of.inputs), 'words');
        const product = written(productOf(minimise(complement(fn)).cubes, of.inputs), 'words');
        for (const [form, text] of [
          ['sum of products', sum],
          ['product of sums', product],
        ] as const) {
          const enough = smallestIn(form, of)!;
          const answer = { kind: 'formula' as const, text };
          expect([
            form,
            text,
            formula.mark(taskFor(of, form, Math.max(1, enough)), solution(answer)),
          ]).toMatchObject([form, text, { solved: true, complaints: [] }]);
          if (enough > 1)
            expect(formula.mark(taskFor(of, form, enough - 1), solution(answer)).complaints).toEqual([
              `It has ${enough} literals, and ${enough - 1} are allowed.`,
            ]);
        }
      }),
      { numRuns: 80 },
    );
  });

  test('another function is refused, and the rows that are told are those that differ', () => {
    fc.assert(
      fc.property(anyFunction, fc.nat(), (of, at) => {
        const cared = [...of.rows].flatMap((letter, row) => (letter === 'x' ? [] : [row]));
        const row = cared[at % cared.length]!;
        const other = [...of.rows].map((letter, r) =>
          letter === 'x' ? '0' : r === row ? String(1 - Number(letter)) : letter,
        );
        const cubes = [...other.keys()]
          .filter((r) => other[r] === '1')
          .map((value) => ({ mask: 2 ** of.inputs.length - 1, value }));
        const text = written(sumOf(cubes, of.inputs), 'words');
        const mark = formula.mark(taskFor(of, 'any', null), solution({ kind: 'formula', text }));
        expect(mark).toMatchObject({ solved: false, right: mark.of - 1 });
        expect(mark.detail.isRight.indexOf(false)).toBe(row);
      }),
      { numRuns: 80 },
    );
  });

  const asked = taskFor({ inputs: ['Key', 'Bars'], output: 'Warn', rows: '0010' }, 'any', null).asked;
  test.each([
    ['Key Bars and Clear', /Clear is not an input here: Key and Bars/],
    ['Drive = Key', /a formula of Warn is asked for, not of Drive/],
    ['Key (', /./],
    ["Key'; Bars", /one formula is asked for/],
  ])('%s is no answer, and it is said why', (text, why) => {
    const read = readAnswer(asked, text);
    expect(read.ok ? '' : read.problem.message).toMatch(why);
  });

  test.each([
    ["A B' + C", 'sum of products', true],
    ['A (B + C)', 'sum of products', false],
    ["(A + B') C", 'product of sums', true],
    ['A + B C', 'product of sums', false],
    ['A nand (B nand C)', 'NAND only', true],
    ['not (A nand B)', 'NAND only', true],
    ['A nand (B and C)', 'NAND only', false],
    ['(A nor B) nor C', 'NOR only', true],
  ] as const)('%s as a %s: %s', (text, form, is) => {
    const all = { ...asked, inputs: ['A', 'B', 'C'] };
    expect(isInForm(expectDone(readAnswer(all, text)), form)).toBe(is);
  });
});

describe('a map', () => {
  const taskFor = (of: FunctionRows): MapTask => ({
    ...heading,
    kind: 'map',
    asked: { function: of },
    key: {},
  });

  test('the smallest groups are right; without one of them rows stay bare; a smaller one can be larger', () => {
    fc.assert(
      fc.property(anyFunction, (of) => {
        const task = taskFor(of);
        const fn = functionOf(of);
        const groups = minimise(fn).cubes.map((cube) => [...rowsOf(cube, fn.inputs)]);
        const own = map.mark(task, solution({ kind: 'map', groups }));
        expect(own).toMatchObject({ solved: true, complaints: [], remark: undefined, right: groups.length });
        const less = map.mark(task, solution({ kind: 'map', groups: groups.slice(1) }));
        expect(less.solved).toBe(false);
        for (const row of less.detail.bare) expect(groups[0]).toContain(row);
        if (groups.length > 1) expect(less.wrong).toContain('no group covers row');
        const [first] = groups;
        if (first!.length > 1) {
          const half = first!.slice(0, first!.length / 2);
          const smaller = map.mark(task, solution({ kind: 'map', groups: [half, ...groups.slice(1)] }));
          expect(smaller.solved).toBe(false);
        }
      }),
      { numRuns: 80 },
    );
  });

  test('a group over a 0, one that is no block, and one that is there twice are told', () => {
    const task = taskFor({ inputs: ['A', 'B'], output: 'Y', rows: '0111' });
    const said = (groups: number[][]) => map.mark(task, solution({ kind: 'map', groups }));
    expect(said([[0, 1]]).detail.said).toEqual(['There is a 0 in it, in row 0.']);
    expect(said([[1, 2]]).complaints).toEqual(['1 group is no block of 1, 2, 4, 8 … cells.']);
    expect(
      said([
        [1, 3],
        [2, 3],
        [2, 3],
      ]).detail.said[2],
    ).toBe('It is there twice.');
    expect(map.strange(taskFor({ inputs: ['A', 'B'], output: 'Y', rows: '00x0' }))).toContain(
      'nothing to group',
    );
  });
});

describe('a number', () => {
  const taskFor = (asked: NumberTask['asked'], value: string, tolerance = 0): NumberTask => ({
    ...heading,
    kind: 'number',
    asked,
    key: { value, tolerance },
  });
  const time = { quantity: 'time', bits: null } as const;

  test.each([
    ['12.5 ns', '0.0125 us', 0, true],
    ['12.5 ns', '12,5ns', 0, true],
    ['12.5 ns', '12.6 ns', 0.01, true],
    ['12.5 ns', '12.7 ns', 0.01, false],
    ['12.5 ns', '12.5', 0.01, false],
  ])('%s against %s within %s: %s', (wanted, typed, tolerance, right) => {
    expect(
      number.mark(taskFor(time, wanted, tolerance), solution({ kind: 'number', text: typed })).solved,
    ).toBe(right);
  });

  test('a time without its unit says what to write; bits are as many as are asked for', () => {
    const unit = number.mark(taskFor(time, '1 ns'), solution({ kind: 'number', text: '12' }));
    expect(unit.complaints).toEqual(['Write a time with its unit, such as 12.5 ns.']);
    const bits = taskFor({ quantity: 'number', bits: 8 }, '1111 0110');
    expect(number.mark(bits, solution({ kind: 'number', text: '11110110' })).solved).toBe(true);
    expect(number.mark(bits, solution({ kind: 'number', text: '1110' })).complaints).toEqual([
      '4 bits are written, and 8 are asked for.',
    ]);
    expect(number.strange(taskFor(time, 'soon'))).toContain('its wanted value cannot be read');
  });

  test.each([
    ['13', 13],
    ['-3', -3],
    ['−3', -3],
    ['0b1101', 13],
    ['0xD', 13],
    ['1.5e3', 1500],
    ['0b12', null],
    ['twelve', null],
    ['', null],
  ])('%s is read as %s', (text, value) => {
    expect(readQuantity(text, 'number')).toBe(value);
  });

  test('every value that a circuit gives is one that can be asked for, and is its own answer', () => {
    const { sheet: drawn } = interlock();
    const found = valuesOf(drawn, [drawn]);
    expect(found.map(({ id }) => id)).toEqual(['gates', 'levels', 'rows', 'delay']);
    for (const { quantity, value } of found) {
      const task = taskFor({ quantity, bits: null }, value);
      expect(number.strange(task)).toBeNull();
      expect(number.mark(task, solution({ kind: 'number', text: value })).solved).toBe(true);
    }
  });
});

test('words are marked by a person, and an empty answer is not solved', () => {
  const task = { ...heading, kind: 'words', asked: {}, key: { model: 'While the key is in.' } };
  expect(words.mark(task, solution({ kind: 'words', text: ' ' })).solved).toBe(false);
  expect(words.mark(task, solution({ kind: 'words', text: 'At noon.' }))).toMatchObject({
    solved: null,
    gist: 'At noon.',
  });
});

test('the functions of a sheet are those of its table', () => {
  const { sheet: drawn } = interlock();
  expect(
    expectDone(functionsOfSheet(drawn, lessonOf(drawn).sheets)).map(({ output, rows }) => [output, rows]),
  ).toEqual([
    ['Drive', '00000001'],
    ['Warn', '00001100'],
  ]);
});

describe('a typed table', () => {
  test('counts upwards in what is given, and keeps the cells of columns that stay', () => {
    const first = expectDone(typedTable('A, B → Y', 4, null));
    expect(first.columns.map(({ name, isInput, cells }) => [name, isInput, cells.join('')])).toEqual([
      ['A', true, '0011'],
      ['B', true, '0101'],
      ['Y', false, ''],
    ]);
    const filled = withCell(first, 2, 1, 'x');
    const more = expectDone(typedTable('A, B, C -> Z, Y', 4, filled));
    expect(more.columns.map(({ name, cells }) => [name, cells.join()])).toEqual([
      ['A', '0,0,1,1'],
      ['B', '0,1,0,1'],
      ['C', ',,,'],
      ['Z', ',,,'],
      ['Y', ',x,,'],
    ]);
  });

  test.each([
    ['A, B', 4, 'behind an arrow'],
    ['A, A → Y', 4, 'the name A stands twice'],
    ['A → Y', 65, 'has 1 to 64 rows'],
    ['A → Y', 1.5, 'has 1 to 64 rows'],
    ['a,b,c,d,e,f,g,h,i,j,k,l → m', 4, 'at most 12 columns'],
  ])('%s with %d rows is refused', (line, rows, message) => {
    expect(typedTable(line, rows, null)).toMatchObject({
      problem: { message: expect.stringContaining(message) },
    });
  });
});
