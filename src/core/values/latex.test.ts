import fc from 'fast-check';
import { latexName, latexText } from './latex';

test('signs of LaTeX are letters of the text', () => {
  expect(latexText('50 % of $5 & #1_a^b~')).toBe(
    '50 \\% of \\$5 \\& \\#1\\_a\\textasciicircum{}b\\textasciitilde{}',
  );
  expect(latexText('A → B ≥ 1 ⊕ µ')).toBe('A $\\rightarrow$ B $\\geq$ 1 $\\oplus$ $\\mu$');
  expect(latexText('a\u0007b')).toBe('ab');
});

test('names in formulas: a letter, a word, a subscript, a bar', () => {
  expect(latexName('A')).toBe('A');
  expect(latexName('Drive')).toBe('\\mathit{Drive}');
  expect(latexName('Q_0')).toBe('Q_{0}');
  expect(latexName('A_{in}')).toBe('A_{\\mathit{in}}');
  expect(latexName('~Clear')).toBe('\\overline{\\mathit{Clear}}');
});

test('whatever a text holds, its braces and formulas close', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 20 }), (text) => {
      const said = latexText(text).replaceAll(/\\[\\{}$&#%_]/g, '');
      expect(said.split('{').length).toBe(said.split('}').length);
      expect(said.split('$').length % 2).toBe(1);
      expect(said).not.toMatch(/[&#%_^](?!\\circ)/);
    }),
  );
});
