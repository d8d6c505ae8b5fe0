import { preprocessed } from './preprocess';
import type { VerilogError } from './tokens';

function written(source: string, includes?: ReadonlyMap<string, string>): string {
  const tokens = preprocessed(source, includes);
  const texts: string[] = [];
  for (let token = tokens.next(); token.kind !== 'end'; token = tokens.next()) texts.push(token.text);
  return texts.join(' ');
}
const problem = (source: string, includes?: ReadonlyMap<string, string>) => {
  try {
    return written(source, includes);
  } catch (error) {
    const { line, column } = (error as VerilogError).place;
    return `${line}:${column} ${(error as Error).message}`;
  }
};

test('macros are replaced, with arguments, in one another, over several lines', () => {
  expect(written('`define W 8\nwire [`W-1:0] a;')).toBe('wire [ 8 - 1 : 0 ] a ;');
  expect(written('`define MAX(a, b) ((a) > (b) ? (a) : (b))\n`MAX(x[1], f(2, 3))')).toBe(
    '( ( x [ 1 ] ) > ( f ( 2 , 3 ) ) ? ( x [ 1 ] ) : ( f ( 2 , 3 ) ) )',
  );
  expect(written('`define A `B + 1\n`define B 2 // two\n`A')).toBe('2 + 1');
  expect(written('`define LONG a + \\\n b\n`LONG c')).toBe('a + b c');
  expect(written('`define ADD(a, b = 1) a + b\n`ADD(x) `ADD(x, 5)')).toBe('x + 1 x + 5');
  expect(written('`define N 1\n`undef N\n`ifdef N\n yes\n`else\n no\n`endif')).toBe('no');
});

test('conditions take one branch, and nest', () => {
  const text = '`ifdef A\n a\n`elsif B\n b `ifndef C not_c `endif\n`else\n neither\n`endif after';
  expect(written(text.replaceAll('`ifndef C not_c `endif', '\n`ifndef C\n not_c\n`endif\n'))).toBe('neither');
  expect(
    written(`\`define B\n${text.replaceAll('`ifndef C not_c `endif', '\n`ifndef C\n not_c\n`endif\n')}`),
  ).toBe('b not_c');
});

test('files are put in where they are named', () => {
  const files = new Map([
    ['a.vh', '`include "b.vh"\n`define A B + 1\n'],
    ['b.vh', '`define B 41\n'],
  ]);
  expect(written('`include "dir/a.vh"\n`A', files)).toBe('B + 1');
});

test.each<[string, string, RegExp]>([
  ['a macro that nobody has defined', 'wire a;\n  `NOTHING', /^2:3 there is no macro `NOTHING/],
  ['a macro that holds itself', '`define A `B\n`define B `A\n`A', /holds itself/],
  ['an open condition', '`ifdef A\nwire a;', /^1:1 `endif is expected/],
  ['an else of its own', 'wire a;\n`else', /^2:1 `else without an `ifdef/],
  ['too few arguments', '`define M(a, b) a b\n`M(1)', /^2:1 the macro `M has 2 arguments/],
  ['a file that is not there', '`include "none.vh"', /^1:1 there is no file none.vh beside this one/],
])('refuses %s', (_, source, reason) => {
  expect(problem(source)).toMatch(reason);
});

test('what is wrong in a file that is put in is told where it is put in', () => {
  expect(problem('wire a;\n`include "bad.vh"', new Map([['bad.vh', 'wire b;\nwire €;']]))).toMatch(
    /^2:1 in the file or text that is put in here, line 2: the character “€”/,
  );
});
