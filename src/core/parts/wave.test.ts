import { partOf, Rig, sheetOfParts } from '../testing/rig';

const seen = (params: Record<string, string | number>, times: readonly number[]) => {
  const width = Number(params.width ?? 1);
  const sheet = sheetOfParts(
    [partOf('stimulus', 's', params), partOf('port', 'Y', { direction: 'out', width })],
    ['s.Y-Y.A'],
  );
  const rig = new Rig(sheet);
  return times.map((t) => {
    rig.run.advance(t * 1000);
    return rig.number('Y');
  });
};

test('levels at given times', () => {
  const params = { pattern: 'times', data: '10 1, 25ns 0\n40:3', width: 2 };
  expect(seen(params, [0, 9, 10, 24, 25, 39, 40, 99])).toEqual([0, 0, 1, 1, 0, 0, 3, 3]);
});

test('a value a step, staying at the end or beginning anew', () => {
  const params = { pattern: 'cycles', data: '5 0x2 7', step: 10_000, width: 3 };
  expect(seen(params, [0, 10, 20, 30, 90])).toEqual([5, 2, 7, 7, 7]);
  expect(seen({ ...params, repeat: 'yes' }, [0, 10, 20, 30, 45, 59, 60])).toEqual([5, 2, 7, 5, 2, 7, 5]);
});

test('a string of bits from either end', () => {
  const params = { pattern: 'bits', data: '0011 01', step: 1000 };
  expect(seen(params, [0, 1, 2, 3, 4, 5, 9])).toEqual([0, 0, 1, 1, 0, 1, 1]);
  expect(seen({ ...params, firstBit: 'least' }, [0, 1, 2, 3, 4, 5])).toEqual([1, 0, 1, 1, 0, 0]);
});

test('a count through all combinations', () => {
  const params = { pattern: 'count', step: 5000, width: 2 };
  expect(seen(params, [0, 5, 10, 15, 20, 500])).toEqual([0, 1, 2, 3, 3, 3]);
  expect(seen({ ...params, repeat: 'yes' }, [15, 20, 25])).toEqual([3, 0, 1]);
});

test('what cannot be read is left out', () => {
  expect(seen({ pattern: 'times', data: 'soon 1, 5 door, 7 1' }, [6, 7])).toEqual([0, 1]);
  expect(seen({ pattern: 'bits', data: '' }, [0, 5])).toEqual([0, 0]);
});
