import { printable } from './printable';

test('what acts on a terminal stands as an escape, and letters of all scripts as themselves', () => {
  expect(printable('a\nb\tc\r\u001b[2J\u0085\u007f')).toBe('a\\nb\\tc\\x0d\\x1b[2J\\x85\\x7f');
  expect(printable('x\u202ey\u2066z\u200b\ufeff\u2028\u{e0041}')).toBe(
    'x\\u202ey\\u2066z\\u200b\\ufeff\\u2028\\u{e0041}',
  );
  expect(printable('Ådа 中文 עברית 🎠 –“”')).toBe('Ådа 中文 עברית 🎠 –“”');
});
