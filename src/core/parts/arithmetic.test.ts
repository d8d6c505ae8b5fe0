import { Rig } from '../testing/rig';

/** All values of named words: [{A: 0, B: 0}, {A: 0, B: 1} ...]. */
function* all(widths: Record<string, number>): Generator<Record<string, number>> {
  const names = Object.keys(widths);
  const bits = names.reduce((sum, n) => sum + widths[n]!, 0);
  for (let row = 0; row < 2 ** bits; row++) {
    let rest = row;
    yield Object.fromEntries(
      names.map((name) => {
        const value = rest % 2 ** widths[name]!;
        rest = Math.floor(rest / 2 ** widths[name]!);
        return [name, value];
      }),
    );
  }
}

test.each([1, 3, 4])('an adder of %i bits adds', (width) => {
  const rig = Rig.of('adder', { width });
  for (const { A, B, CI } of all({ A: width, B: width, CI: 1 }) as Generator<{
    A: number;
    B: number;
    CI: number;
  }>) {
    rig.set({ A, B, CI });
    expect(rig.number('CO') * 2 ** width + rig.number('S')).toBe(A + B + CI);
  }
});

test.each([1, 3, 4])('a subtractor of %i bits subtracts', (width) => {
  const rig = Rig.of('subtractor', { width });
  for (const { A, B, BI } of all({ A: width, B: width, BI: 1 }) as Generator<{
    A: number;
    B: number;
    BI: number;
  }>) {
    rig.set({ A, B, BI });
    expect(rig.number('D') - rig.number('BO') * 2 ** width).toBe(A - B - BI);
  }
});

test.each([
  [1, 'unsigned'],
  [4, 'unsigned'],
  [3, 'signed'],
  [4, 'signed'],
])('a comparator of %i bits, %s', (width, numbers) => {
  const rig = Rig.of('comparator', { width, numbers });
  const value = (n: number) => (numbers === 'signed' && n >= 2 ** (width - 1) ? n - 2 ** width : n);
  for (const { A, B } of all({ A: width, B: width }) as Generator<{ A: number; B: number }>) {
    rig.set({ A, B });
    const [a, b] = [value(A), value(B)];
    expect(['LT', 'EQ', 'GT'].map((p) => rig.number(p))).toEqual([+(a < b), +(a === b), +(a > b)]);
  }
});

test.each([
  [1, 1],
  [2, 3],
  [3, 1],
])('a multiplexer with %i select bits of %i bits hands on the chosen input', (select, width) => {
  const rig = Rig.of('mux', { select, width });
  const words = Array.from({ length: 2 ** select }, (_, i) => (i * 5 + 1) % 2 ** width);
  rig.set(Object.fromEntries(words.map((w, i) => [`D${i}`, w])));
  for (const [i, word] of words.entries()) expect(rig.set({ S: i }).number('Y')).toBe(word);
});

test('a multiplexer with an unknown select gives what its inputs agree on', () => {
  const rig = Rig.of('mux', { select: 1, width: 2 });
  expect(rig.set({ D0: '10', D1: '11', S: 'X' }).word('Y')).toBe('1X');
});

test.each([1, 2, 3])('a demultiplexer with %i select bits hands its input to one output', (select) => {
  const rig = Rig.of('demux', { select, width: 2 });
  for (const { S, D } of all({ S: select, D: 2 }) as Generator<{ S: number; D: number }>) {
    rig.set({ S, D });
    for (let i = 0; i < 2 ** select; i++) expect(rig.number(`Y${i}`)).toBe(i === S ? D : 0);
  }
});

test.each([1, 2, 4])('a decoder of %i bits raises one output, and none without its enable', (select) => {
  const rig = Rig.of('decoder', { select, enable: 'yes' });
  for (const { A, EN } of all({ A: select, EN: 1 }) as Generator<{ A: number; EN: number }>) {
    rig.set({ A, EN });
    for (let i = 0; i < 2 ** select; i++) expect(rig.number(`Y${i}`)).toBe(+(EN === 1 && i === A));
  }
});

test.each([1, 2, 3])('a priority encoder of %i bits gives the number of the highest input', (select) => {
  const rig = Rig.of('encoder', { select });
  const inputs = 2 ** select;
  for (let row = 0; row < 2 ** inputs; row++) {
    rig.set(Object.fromEntries(Array.from({ length: inputs }, (_, i) => [`I${i}`, (row >> i) & 1])));
    expect(rig.number('V')).toBe(+(row > 0));
    expect(rig.number('Y')).toBe(row > 0 ? 31 - Math.clz32(row) : 0);
  }
});

test('an adder keeps the bits that an unknown one cannot reach', () => {
  const rig = Rig.of('adder', { width: 4 });
  expect(rig.set({ A: '0X00', B: '0001', CI: 0 }).word('S')).toBe('0X01');
});
