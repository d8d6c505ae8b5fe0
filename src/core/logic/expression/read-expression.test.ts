import fc from 'fast-check';
import { expressionOf } from '../../testing/expressions';
import { evaluate, namesOf } from './expression';
import { readExpression } from './read-expression';
import { precedenceWords } from './typed-formulas';

const column = (text: string, names = ['A', 'B', 'C']) => {
  const e = expressionOf(text);
  return Array.from({ length: 2 ** names.length }, (_, row) =>
    evaluate(e, new Map(names.map((n, i) => [n, ((row >> (names.length - 1 - i)) & 1) as 0 | 1]))),
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
    'A\u0305B + C',
    '\\overline{A} B + C',
    '\\bar A \\cdot B + C',
    '\\neg A \\land B \\lor C',
    '((A == False) && B) || C',
    "~A & B | 1'b1 & C",
    '(A != True) && B || C',
  ])
    expect([text, column(text)]).toEqual([text, '01110101']);
});

test('a choice is one of two by what stands before it, and goes on behind the colon', () => {
  expect(column('A ? B : C')).toBe(column("A B + A' C"));
  expect(column('A ? B : C ? A : B')).toBe(column("A B + A'(C A + C' B)"));
  expect(column('A B ? C : B + C')).toBe(column("A B C + (A B)'(B + C)"));
  expect(column('(A ? B : C) ^ C')).toBe(column("(A B + A' C) xor C"));
  expect(column("nand(A ? B : C, C)'")).toBe(column("(A B + A' C) C"));
  const chain = (count: number) => `${'A ? B : '.repeat(count)}C`;
  expect(column(chain(50))).toBe(column('A ? B : C'));
  expect(readExpression(chain(100_000))).toMatchObject({ problem: { message: 'this goes too deep' } });
  // The condition is copied into both products, so nesting it would double the size each time.
  let asked = 'A';
  for (let i = 0; i < 40; i++) asked = `(${asked} ? B : C)`;
  expect(readExpression(`${asked} ? A : B`)).toMatchObject({
    problem: { message: 'what comes before “?” is too long: name it in a statement of its own' },
  });
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
  expect(namesOf(expressionOf("AB'C1D_0"))).toEqual(['A', 'B', 'C1', 'D_0']);
  expect(namesOf(expressionOf('AB C', ['AB']))).toEqual(['AB', 'C']);
  expect(namesOf(expressionOf('Key and Bars or xB'))).toEqual(['Key', 'Bars', 'xB']);
});

test('LaTeX is read as it is written', () => {
  const text = '\\overline{\\mathit{Key} \\oplus A}\\,B';
  expect(namesOf(expressionOf(text))).toEqual(['Key', 'A', 'B']);
  expect(column('\\overline{A \\oplus B}\\,C')).toBe(column("(A xor B)'C"));
  expect(namesOf(expressionOf('\\mathit{Bars\\_down}', ['Bars_down']))).toEqual(['Bars_down']);
  expect(namesOf(expressionOf('K\u0305e\u0305y\u0305 B'))).toEqual(['Key', 'B']);
});

test('what precedence alone decides is told, but for products in a sum', () => {
  const decided = (text: string) => {
    const made = readExpression(text);
    return made.ok ? precedenceWords(made.value.decided) : made.problem.message;
  };
  expect(decided("A'B + C D")).toBe('');
  expect(decided('A & B | C')).toBe('AND before OR');
  expect(decided('A or B and C')).toBe('AND before OR');
  expect(decided('A or (B and C)')).toBe('');
  expect(decided('A ^ B + C D ^ E')).toBe('AND before XOR, XOR before OR');
  expect(decided('not A and B')).toBe('NOT before AND');
  expect(decided('not (A) or B and not C')).toBe('AND before OR');
  expect(decided('~A & B')).toBe('');
});

test('what cannot be read says what and where', () => {
  const wrong = (text: string) => {
    const made = readExpression(text);
    return made.ok ? 'read' : `${made.problem.place.offset}: ${made.problem.message}`;
  };
  expect(wrong('')).toBe('0: something is missing at the end');
  expect(wrong('A + ')).toBe('4: something is missing at the end');
  expect(wrong('A + * B')).toBe('4: a name is missing before this');
  expect(wrong('(A + B')).toBe('0: this parenthesis is never closed');
  expect(wrong('A) + B')).toBe('1: this parenthesis closes nothing');
  expect(wrong('A ? B')).toBe('5: “:” is missing after “?”: S ? A : B');
  expect(wrong('A : B')).toBe('2: “:” needs a “?” before it: S ? A : B');
  expect(wrong('? A')).toBe('0: a name is missing before this');
  expect(wrong('A nand B nand C')).toMatch(/^9: parentheses are needed/);
  expect(wrong('A nand B and C')).toMatch(/^9: parentheses are needed/);
  expect(wrong('A != B && C')).toBe('2: parentheses are needed around what != compares');
  expect(wrong('(A + B}')).toBe('0: this parenthesis is never closed');
  expect(wrong('\\frac{A}')).toBe('0: “\\frac” means nothing here');
  expect(wrong('('.repeat(300))).toMatch(/too deep/);
});

test('no text makes it stumble', () => {
  fc.assert(
    fc.property(
      fc.string({
        unit: fc.constantFrom(
          'A',
          'B',
          "'",
          '+',
          '(',
          ')',
          ' ',
          '~',
          '0',
          'x',
          '\\bar',
          '{',
          '}',
          '=',
          '!',
          '\u0305',
        ),
      }),
      (text) => {
        const made = readExpression(text);
        if (!made.ok) expect(made.problem.place.offset).toBeLessThanOrEqual(text.length);
      },
    ),
  );
});
