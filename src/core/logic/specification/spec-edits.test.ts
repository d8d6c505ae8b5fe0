import fc from 'fast-check';
import { specColumns, specOf } from '../../testing/specs';
import { inputAt } from '../table/truth-table';
import { namesLine, openCells, rowOrder, specFromNames, withColumnAt, withLetters } from './spec-edits';

test('a table is begun by a line of names, all of it open', () => {
  const made = specOf('K, B , P=D,W');
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
  ['Key, key = D', /The name key stands twice/],
  ['Key = D, d', /The name d stands twice/],
  [`${Array.from({ length: 30 }, (_, i) => `N${i}`).join(',')} = Y`, /at most 16 inputs/],
  [`A = ${Array.from({ length: 40 }, (_, i) => `Y${i}`).join(',')}`, /at most 32 outputs/],
  [`${'N'.repeat(50)} = Y`, /longer than 40 letters/],
])('names that will not do are answered in words: %s', (line, expected) => {
  expect(specColumns(specFromNames(line))).toMatch(expected);
});

test('what was filled in survives other names: copied into both halves, or one half left open', () => {
  const old = specOf('A, B = Y', '0110');
  expect(specColumns(specFromNames('A, B, C = Y, Z', old))).toEqual(['00111100', '........']);
  expect(specColumns(specFromNames('A, B, C = Y', old, 'open'))).toEqual(['0.1.1.0.']);
  expect(specColumns(specFromNames('C, A, B = Y', old))).toEqual(['01100110']);
  expect(specColumns(specFromNames('B = Y', old))).toEqual(['01']);
  // Inputs in another order: each cell goes along with its values.
  const back = specFromNames('B, A = Y', specOf('A, B = Y', '0011'));
  expect(specColumns(back)).toEqual(['0101']);
});

test('a cell stays with the values of the inputs that are still there', () => {
  const names = ['A', 'B', 'C', 'D'];
  fc.assert(
    fc.property(
      fc.subarray(names, { minLength: 1 }),
      fc.shuffledSubarray(names, { minLength: 1 }),
      fc.array(fc.constantFrom('0', '1', 'x'), { minLength: 16, maxLength: 16 }),
      (before, after, letters) => {
        const old = specOf(`${before.join()} = Y`, letters.slice(0, 2 ** before.length).join(''));
        const made = specFromNames(`${after.join()} = Y`, old);
        if (!made.ok) throw new Error(made.problem.message);
        for (let row = 0; row < 2 ** after.length; row++) {
          const at = before.reduce((sum, name) => {
            const i = after.indexOf(name);
            return sum * 2 + (i === -1 ? 0 : inputAt(after.length, i, row));
          }, 0);
          expect(made.value.outputs[0]!.rows[row]).toBe(old.outputs[0]!.rows[at]);
        }
      },
    ),
  );
});

test('rows are found for inputs in another order', () => {
  const of = rowOrder(specOf('A, B, C = Y'), ['C', 'A', 'B']);
  // C=1, A=0, B=1 is row 5 there and A=0, B=1, C=1, row 3, here.
  expect(of?.(5)).toBe(3);
  expect(rowOrder(specOf('A, B = Y'), ['A', 'C'])).toBeNull();
});

test('a column in another place: outputs as they are, rows of inputs by their values', () => {
  const made = specFromNames('Key, Bars, Clear = Drive, Warn');
  if (!made.ok) throw new Error(made.problem.message);
  const letters = (text: string) => new Map([...text].map((c, row) => [row, c]));
  const plan = withLetters(withLetters(made.value, 0, letters('00000001')), 1, letters('00001100'));
  expect(withColumnAt(plan, 'Warn', 0).outputs.map((o) => o.name)).toEqual(['Warn', 'Drive']);
  const moved = withColumnAt(plan, 'Clear', 0);
  expect(moved.inputs).toEqual(['Clear', 'Key', 'Bars']);
  // Warn is 1 where Key is 1 and Bars is 0: rows 2 and 6 now.
  expect(moved.outputs.map((o) => o.rows)).toEqual(['00000001', '00100010']);
  expect(withColumnAt(moved, 'Clear', 2)).toEqual(plan);
  expect(withColumnAt(plan, 'Gone', 0)).toBe(plan);
});
