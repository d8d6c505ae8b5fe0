import { sampleClass } from '../testing/sample-class';
import { foundIn, marksIn } from './found';
import { binned, checksMade, gatesUsed, unitsName, wrongCells } from './standing';

const planted = sampleClass(100, 5);
const { tasks } = planted.exercises[0]!;
const found = planted.six.map((handIn, i) =>
  foundIn(String(i), handIn, marksIn(handIn, planted.exercises[0]!, [], null)),
);

test('each number lies in one bin, of a round width', () => {
  const bins = binned([0, 0.25, 7, 33.5, 59.9, 60], 60, 8);
  expect(bins.map(({ from, to }) => [from, to])).toEqual([
    [0, 10],
    [10, 20],
    [20, 30],
    [30, 40],
    [40, 50],
    [50, 60],
  ]);
  expect(bins.map(({ count }) => count)).toEqual([3, 0, 0, 1, 0, 2]);
  expect(binned([5, 6, 6], 6, 16).map(({ count }) => count)).toEqual([0, 0, 0, 0, 0, 1, 2]);
});

test('the wrong rows of a class are those of its planted mistakes', () => {
  const cells = wrongCells(tasks, found);
  const of = (mistake: number) => [...planted.mistakes.values()].filter((m) => m === mistake).length;
  // OR for XOR in Sum is wrong in row 3, OR for AND in Carry in rows 1 and 2.
  expect(cells[0]!.map(({ count }) => count)).toEqual([0, of(1), of(1), of(0)]);
  // AND for OR in the table that is filled in.
  expect(cells[4]!.map(({ count }) => count)).toEqual([0, of(6), of(6), 0]);
  expect(cells[0]![3]!.name).toBe('row 3');
  expect(unitsName(tasks[1]!, 4, 8)).toBe('row 4 to 7');
});

test('gates are counted of right circuits, from the smallest on', () => {
  const gates = gatesUsed(tasks, found);
  expect(gates.map(({ task, smallest }) => [task, smallest])).toEqual([
    [0, 2],
    [1, 6],
    [2, 4],
    [3, 6],
  ]);
  for (const { task, more } of gates)
    expect(more.reduce((sum, n) => sum + n, 0)).toBe(
      found.filter(({ answers }) => answers[task]!.mark.solved).length,
    );
});

test('checks are told of the tasks that were checked', () => {
  const checked = found.map((one, i) => {
    const checks: Record<string, number> = i < 3 ? { task2: i + 1 } : {};
    return { ...one, handIn: { ...one.handIn, checks } };
  });
  expect(checksMade(tasks, checked)).toEqual([{ task: 1, median: 2, most: 3 }]);
  expect(checksMade(tasks, found)).toEqual([]);
});
