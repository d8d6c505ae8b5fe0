import { unplacedCircuit } from '../../synthesis/draw-functions';
import { expressionOf } from '../../testing/expressions';
import { layersOf } from './layers';

/** The kinds of parts column by column, each with how many there are. */
function kindsOf(inputs: string, ...formulas: string[]): string[] {
  const functions = formulas.map((text, i) => ({ name: `Y${i}`, expression: expressionOf(text) }));
  return layersOf(unplacedCircuit('s', 'S', inputs.split(','), functions)).map((column) => {
    const counts = new Map<string, number>();
    for (const { kind } of column) counts.set(kind, (counts.get(kind) ?? 0) + 1);
    return [...counts].map(([kind, n]) => `${n} ${kind}`).join(', ');
  });
}

test('terms stand below each other, also those that could stand further left', () => {
  expect(kindsOf('A,B,C', "A B + A C' + A'C")).toEqual(['3 switch', '2 not', '3 and', '1 or', '1 lamp']);
});

test('sums of two outputs stand below each other, and so do their terms', () => {
  expect(kindsOf('A,B,C', "A'B + A B'", 'A B + B C')).toEqual([
    '3 switch',
    '2 not',
    '4 and',
    '2 or',
    '2 lamp',
  ]);
});

test('a term that is an output by itself stands among the terms', () => {
  expect(kindsOf('A,B', "A'B + A B'", 'A B')).toEqual(['2 switch', '2 not', '3 and', '1 or', '2 lamp']);
});

test('what inverts an input stands beside the inputs, what inverts a gate behind that', () => {
  expect(kindsOf('A,B,C', "(A B C)' + B'")).toEqual(['3 switch', '1 and, 1 not', '1 not', '1 or', '1 lamp']);
});
