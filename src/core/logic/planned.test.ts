import fc from 'fast-check';
import type { Plan } from '../circuit/plan';
import {
  columnSaid,
  filled,
  namesLine,
  openCells,
  pasted,
  plannedFor,
  plannedFromText,
  planText,
  rowOrder,
  withColumnAt,
} from './planned';
import { inputAt } from './truth-table';

const plan = (line: string, ...columns: string[]): Plan => {
  const made = plannedFor(line);
  if (!made.ok) throw new Error(made.problem);
  return columns.reduce(
    (all, letters, o) => filled(all, o, new Map([...letters].map((c, row) => [row, c]))),
    made.plan,
  );
};
const columns = (made: ReturnType<typeof plannedFor>) =>
  made.ok ? made.plan.outputs.map((o) => o.rows) : made.problem;

test('a table is begun by a line of names, all of it open', () => {
  const made = plan('K, B , P=D,W');
  expect(made.inputs).toEqual(['K', 'B', 'P']);
  expect(made.outputs).toEqual([
    { name: 'D', rows: '........' },
    { name: 'W', rows: '........' },
  ]);
  expect(namesLine(made)).toBe('K, B, P = D, W');
  expect(openCells(made)).toBe(16);
});

test.each([
  ['K, B', /then =, then the outputs/],
  ['K = B = C', /then =, then the outputs/],
  ['K, , B = D', /Between two commas the name of an input is missing/],
  ['K = ', /At least one output is needed/],
  ['= D', /At least one input is needed/],
  ['K, B, K = D', /The name K stands twice/],
  ['K, D = D', /The name D stands twice/],
  [`${Array.from({ length: 30 }, (_, i) => `N${i}`).join(',')} = Y`, /at most 16 inputs/],
  [`A = ${Array.from({ length: 40 }, (_, i) => `Y${i}`).join(',')}`, /at most 32 outputs/],
  [`${'N'.repeat(50)} = Y`, /longer than 40 letters/],
])('names that will not do are answered in words: %s', (line, expected) => {
  expect(columns(plannedFor(line))).toMatch(expected);
});

test('what was filled in survives other names: copied into both halves, or one half left open', () => {
  const old = plan('A, B = Y', '0110');
  expect(columns(plannedFor('A, B, C = Y, Z', old))).toEqual(['00111100', '........']);
  expect(columns(plannedFor('A, B, C = Y', old, 'open'))).toEqual(['0.1.1.0.']);
  expect(columns(plannedFor('C, A, B = Y', old))).toEqual(['01100110']);
  expect(columns(plannedFor('B = Y', old))).toEqual(['01']);
  // Inputs in another order: each cell goes along with its values.
  const back = plannedFor('B, A = Y', plan('A, B = Y', '0011'));
  expect(columns(back)).toEqual(['0101']);
});

test('a cell stays with the values of the inputs that are still there', () => {
  const names = ['A', 'B', 'C', 'D'];
  fc.assert(
    fc.property(
      fc.subarray(names, { minLength: 1 }),
      fc.shuffledSubarray(names, { minLength: 1 }),
      fc.array(fc.constantFrom('0', '1', 'x'), { minLength: 16, maxLength: 16 }),
      (before, after, letters) => {
        const old = plan(`${before.join()} = Y`, letters.slice(0, 2 ** before.length).join(''));
        const made = plannedFor(`${after.join()} = Y`, old);
        if (!made.ok) throw new Error(made.problem);
        for (let row = 0; row < 2 ** after.length; row++) {
          const at = before.reduce((sum, name) => {
            const i = after.indexOf(name);
            return sum * 2 + (i === -1 ? 0 : inputAt(after.length, i, row));
          }, 0);
          expect(made.plan.outputs[0]!.rows[row]).toBe(old.outputs[0]!.rows[at]);
        }
      },
    ),
  );
});

test('a block is pasted from a cell on, or refused with what is wrong with it', () => {
  const empty = plan('A, B = Y, Z');
  expect(columns(pasted(empty, 0, 0, '0\t1\n1\tx\n1\t\n0\t-\n'))).toEqual(['0110', '1x.x']);
  expect(columns(pasted(empty, 1, 2, '1\n0'))).toEqual(['....', '..10']);
  expect(columns(pasted(empty, 1, 2, '1\n0\n1'))).toMatch(
    /3 rows and 1 columns; from here on there are 2 and 1/,
  );
  expect(columns(pasted(empty, 0, 0, '0\n7'))).toMatch(/“7” in row 2 of what was pasted/);
});

test('a whole table comes as CSV, from a spreadsheet or as Markdown, in any order of rows', () => {
  const csv = plannedFromText('A,B,=,Y\n1,1,,1\n0,0,,0\n0,1,,\n1,0,,x');
  expect(columns(csv)).toEqual(['0xx1']);
  expect(columns(plannedFromText('A\tB\tY\tZ\n0\t0\t0\t1\n0\t1\t1\t0\n1\t0\t1\t0\n1\t1\t0\t1'))).toEqual([
    '0110',
    '1001',
  ]);
  expect(columns(plannedFromText('| A | Y |\n| - | - |\n| 0 | 1 |\n| 1 | 0 |'))).toEqual(['10']);
  expect(columns(plannedFromText('A,B,Y\n0,0,1\n0,0,1\n1,0,1'))).toMatch(
    /Row 2 has the inputs of a row above it/,
  );
  expect(columns(plannedFromText('A,B,Y\n0,2,1'))).toMatch(/Row 1/);
  expect(columns(plannedFromText('A,B,Y\n0,1'))).toMatch(/Row 1 has 2 cells where there are 3 names/);
  expect(columns(plannedFromText('A,B,Y'))).toMatch(/rows of 0, 1 and x below it/);
});

test('a table that is copied can be pasted as a whole', () => {
  const made = plan('A, B = Y, Z', '01x.', '1100');
  expect(planText(made)).toBe('A\tB\tY\tZ\n0\t0\t0\t1\n0\t1\t1\t1\n1\t0\tx\t0\n1\t1\t.\t0');
  expect(plannedFromText(planText(made))).toEqual({ ok: true, plan: made });
});

test('a column is said by a formula or by its rows', () => {
  const empty = plan('A, B, C = Y');
  expect(columns(columnSaid(empty, 0, "A'B + C"))).toEqual(['01110101']);
  expect(columns(columnSaid(empty, 0, '1, 3, 5-7'))).toEqual(['01010111']);
  expect(columns(columnSaid(empty, 0, '1 3 d 4-6'))).toEqual(['0101xxx0']);
  expect(columns(columnSaid(empty, 0, 'Σm(0,2)'))).toEqual(['10100000']);
  expect(columns(columnSaid(empty, 0, '1'))).toEqual(['11111111']);
  expect(columns(columnSaid(empty, 0, '3, 9'))).toMatch(/“9” is no row of this table: it has rows 0 to 7/);
  expect(columns(columnSaid(empty, 0, 'A + Q'))).toMatch(/Q is no input of this table: A, B, C/);
  expect(columns(columnSaid(empty, 0, 'A + (B'))).toMatch(/At “\(B”: this parenthesis is never closed/);
});

test('rows are found for inputs in another order', () => {
  const of = rowOrder(plan('A, B, C = Y'), ['C', 'A', 'B']);
  // C=1, A=0, B=1 is row 5 there and A=0, B=1, C=1, row 3, here.
  expect(of?.(5)).toBe(3);
  expect(rowOrder(plan('A, B = Y'), ['A', 'C'])).toBeNull();
});

test('a column in another place: outputs as they are, rows of inputs by their values', () => {
  const made = plannedFor('Key, Bars, Clear = Drive, Warn');
  if (!made.ok) throw new Error(made.problem);
  const letters = (text: string) => new Map([...text].map((c, row) => [row, c]));
  const plan = filled(filled(made.plan, 0, letters('00000001')), 1, letters('00001100'));
  expect(withColumnAt(plan, 'Warn', 0).outputs.map((o) => o.name)).toEqual(['Warn', 'Drive']);
  const moved = withColumnAt(plan, 'Clear', 0);
  expect(moved.inputs).toEqual(['Clear', 'Key', 'Bars']);
  // Warn is 1 where Key is 1 and Bars is 0: rows 2 and 6 now.
  expect(moved.outputs.map((o) => o.rows)).toEqual(['00000001', '00100010']);
  expect(withColumnAt(moved, 'Clear', 2)).toEqual(plan);
  expect(withColumnAt(plan, 'Gone', 0)).toBe(plan);
});
