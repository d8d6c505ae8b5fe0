import { isModestMarkdown, MOST_MARKS, MOST_NESTED } from './markdown';

test('what an author writes is read: lists in lists, quotes, tables, rules, code', () => {
  const text = [
    '# Lamp chase',
    '',
    '> - one *two* **three** `code`',
    '  1. first',
    '     - inner',
    '',
    '--------------------------------------------------',
    '* * * * * * * *',
    '| A | B | Y |',
    '|---|---|---|',
    ...Array.from({ length: 64 }, (_, i) => `| ${i} | 0 | 1 |`),
  ].join('\n');
  expect(isModestMarkdown(text)).toBe(true);
});

test('what nests deeper than any author would is not', () => {
  expect(isModestMarkdown('>'.repeat(MOST_NESTED))).toBe(true);
  expect(isModestMarkdown('>'.repeat(MOST_NESTED + 1))).toBe(false);
  expect(isModestMarkdown('- '.repeat(MOST_NESTED + 1))).toBe(false);
  expect(isModestMarkdown(`${' '.repeat(80)}- x`)).toBe(false);
  expect(isModestMarkdown('*_'.repeat(MOST_MARKS / 2))).toBe(true);
  expect(isModestMarkdown(`${'*_'.repeat(MOST_MARKS / 2)}*`)).toBe(false);
  expect(isModestMarkdown(`${'['.repeat(600)}\n${'['.repeat(600)}`)).toBe(false);
  expect(isModestMarkdown(`${'['.repeat(600)}\n\n${'['.repeat(600)}`)).toBe(true);
});
