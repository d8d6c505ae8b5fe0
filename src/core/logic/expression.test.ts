import fc from 'fast-check';
import { type Expression, evaluated, namesOf, readExpression } from './expression';

const read = (text: string, known: string[] = []): Expression => {
  const made = readExpression(text, known);
  if (!made.ok) throw new Error(`${made.problem} at ${made.at}`);
  return made.value;
};
const column = (text: string, names = ['A', 'B', 'C']) => {
  const e = read(text);
  return Array.from({ length: 2 ** names.length }, (_, row) =>
    evaluated(e, new Map(names.map((n, i) => [n, ((row >> (names.length - 1 - i)) & 1) as 0 | 1]))),
  ).join('');
};

test('all notations say the same', () => {
  for (const text of [
    "A'B + C",
    '~A & B | C',
    '!A && B || C',
    '¬A∧B∨C',
    'not A and B or C',
    "A' * B + C",
    '/A B + C',
    '(~(A)B)+C',
  ])
    expect([text, column(text)]).toEqual([text, '01110101']);
});

test('AND binds before XOR, and XOR before OR; a prime binds to what is before it', () => {
  expect(column('A + B ^ C')).toBe(column('A + (B ^ C)'));
  expect(column('A ^ B C')).toBe(column('A ^ (B C)'));
  expect(column("(A + B)'C")).toBe(column('~(A+B) & C'));
  expect(column("A''")).toBe(column('A'));
  expect(column('A xnor B', ['A', 'B'])).toBe('1001');
  expect(column('A nand B', ['A', 'B'])).toBe('1110');
  expect(column('A nor B', ['A', 'B'])).toBe('1000');
});

test('a run of capitals is a product unless somebody is called so; other names stay whole', () => {
  expect(namesOf(read("AB'C1D_0"))).toEqual(['A', 'B', 'C1', 'D_0']);
  expect(namesOf(read('AB C', ['AB']))).toEqual(['AB', 'C']);
  expect(namesOf(read('Key and Bars or xB'))).toEqual(['Key', 'Bars', 'xB']);
});

test('what cannot be read says what and where', () => {
  const wrong = (text: string) => {
    const made = readExpression(text);
    return made.ok ? 'read' : `${made.at}: ${made.problem}`;
  };
  expect(wrong('')).toBe('0: something is missing at the end');
  expect(wrong('A + ')).toBe('4: something is missing at the end');
  expect(wrong('A + * B')).toBe('4: a name is missing before this');
  expect(wrong('(A + B')).toBe('0: this parenthesis is never closed');
  expect(wrong('A) + B')).toBe('1: this parenthesis closes nothing');
  expect(wrong('A ? B')).toBe('2: “?” means nothing here');
  expect(wrong('A nand B nand C')).toMatch(/^9: parentheses are needed/);
  expect(wrong('A nand B and C')).toMatch(/^9: parentheses are needed/);
  expect(wrong('('.repeat(300))).toMatch(/too deep/);
});

test('no text makes it stumble', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('A', 'B', "'", '+', '(', ')', ' ', '~', '0', 'x') }),
      (text) => {
        const made = readExpression(text);
        if (!made.ok) expect(made.at).toBeLessThanOrEqual(text.length);
      },
    ),
  );
});
