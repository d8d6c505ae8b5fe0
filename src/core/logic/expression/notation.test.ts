import { expressionOf } from '../../testing/expressions';
import { codeName, isCode, NOTATIONS, type Piece, pieces, written } from './notation';

/** Pieces as text, with the part under a bar in brackets. */
const shown = (text: string, isGrouped = false): string => {
  const show = (of: readonly Piece[]): string =>
    of.map((p) => (typeof p === 'string' ? p : 'name' in p ? p.name : `[${show(p.bar)}]`)).join('');
  return show(pieces(expressionOf(text), isGrouped));
};

test('parentheses stand where precedence needs them, or wherever they explain it', () => {
  expect(shown('A + B C')).toBe('A + BC');
  expect(shown('A + B C', true)).toBe('A + (BC)');
  expect(shown('(A + B) C')).toBe('(A + B)C');
  expect(shown('Key ^ Bars + Clear', true)).toBe('(Key ⊕ Bars) + Clear');
  expect(shown('not (A or B) and C', true)).toBe('[A + B]C');
  expect(shown('A nand B')).toBe('[AB]');
});

test('LaTeX has bars over what is inverted, and words set as words', () => {
  expect(written(expressionOf("(A + B)'C"), 'bar')).toBe('\\overline{A + B}C');
  expect(written(expressionOf("Key Bars'"), 'bar')).toBe('\\mathit{Key}\\,\\overline{\\mathit{Bars}}');
  expect(written(expressionOf('Q_0 xor A', ['Q_0']), 'bar')).toBe('\\mathit{Q\\_0} \\oplus A');
});

test('names in code are names there, and not the words of the language', () => {
  expect(['Key', 'Bars down', 'Count[3]', 'In', 'Lambda', '2nd', 'Q_0'].map(codeName)).toEqual([
    'Key',
    'Bars_down',
    'Count_3',
    'In_',
    'Lambda_',
    'n2nd',
    'Q_0',
  ]);
  expect(NOTATIONS.filter(isCode)).toEqual(['verilog', 'c', 'python', 'javascript']);
});

test('XOR is written as each language has it, in parentheses where it binds otherwise there', () => {
  const e = expressionOf('A xor B xor C or D');
  expect(written(e, 'verilog')).toBe('A ^ B ^ C | D');
  expect(written(e, 'c')).toBe('((A != B) != C) || D');
  expect(written(e, 'python')).toBe('((A != B) != C) or D');
  expect(written(e, 'javascript')).toBe('((A !== B) !== C) || D');
  expect(written(expressionOf('1 and A'), 'verilog')).toBe("1'b1 & A");
});
