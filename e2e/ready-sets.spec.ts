import { readFileSync } from 'node:fs';
import { expect, type Locator, type Page, test } from '@playwright/test';
import { handIn, SheetHand, tabTo } from './hand';
import { check, marked } from './task-hand';

/** The wanted answers in the file of a ready set. */
interface Wanted {
  readonly title: string;
  readonly kind: string;
  readonly asked: { readonly columns?: readonly { readonly name: string; readonly cells: unknown }[] };
  readonly key: {
    readonly columns?: readonly string[][];
    readonly lanes?: readonly string[];
    readonly value?: string;
  };
}

const wantedIn = (file: string): readonly Wanted[] =>
  JSON.parse(readFileSync(`demo/sets/${file}.exercise.json`, 'utf8')).tasks;

/** Takes a ready set as a teacher, hands it out by its file, and opens that as a student. */
async function taken(page: Page, title: string): Promise<{ file: string; task: Locator; hand: SheetHand }> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${title}`) }).click();
  await expect(page.getByLabel('Title of the exercise')).toHaveValue(title);
  await page.getByRole('button', { name: 'Hand out' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the exercise file' }).click();
  const path = await (await saving).path();
  const link = await page.getByLabel('Link to the exercise').inputValue();
  await page.goto('about:blank');
  await page.goto(link);
  const hand = new SheetHand(page);
  await hand.ready();
  return { file: readFileSync(path, 'utf8'), task: page.getByRole('region', { name: 'Task' }), hand };
}

/** Opens the task of that number, where there are several. */
const open = (task: Locator, number: number) =>
  task.getByRole('button', { name: new RegExp(`^Task ${number}:`) }).click();

/** Fills a table in, from its first open cell downwards. */
async function fillTable(page: Page, task: Locator, { asked, key }: Wanted): Promise<void> {
  const first = asked.columns!.find(({ cells }) => cells === null)!;
  await task
    .getByRole('grid')
    .getByRole('button', { name: `${first.name} in row 0` })
    .click();
  await page.keyboard.type(key.columns!.flat().join(''));
}

/** Draws the lanes of a diagram, from its first cell on. */
async function drawLanes(page: Page, task: Locator, { key }: Wanted): Promise<void> {
  const cells = task.getByRole('grid', { name: 'Diagram to complete' }).getByRole('gridcell');
  for (const [i, levels] of key.lanes!.entries()) {
    await cells.nth(i * levels.length).click();
    await page.keyboard.type(levels);
  }
}

/** Types each line onto the sheet, below the previous one. */
async function typeLines(hand: SheetHand, lines: readonly string[]): Promise<void> {
  for (const [i, line] of lines.entries()) await hand.type(4, 4 + 8 * i, line);
}

/** Checks a task, which is solved then: so many of all are. */
async function solved(task: Locator, count: number, of: number): Promise<void> {
  await check(task);
  await expect(task.getByText(`${count} of ${of} solved`)).toBeVisible();
}

test('First gates: predicted, observed and described', async ({ page }) => {
  const { file, task } = await taken(page, 'First gates');
  const tasks = wantedIn('first-gates');
  const wrong = await handIn(page, 'Ben Sample');
  for (const [i, wanted] of tasks.slice(0, 3).entries()) {
    await open(task, i + 1);
    await fillTable(page, task, wanted);
    await solved(task, i + 1, 4);
    await task.getByRole('button', { name: 'Observe' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Truth table' })).toBeVisible();
  }
  await open(task, 4);
  await task
    .getByLabel('Your answer')
    .fill('The bell rings when a rider rings at the north or the south gate.');
  const right = await handIn(page, 'Ada Sample');
  await marked(page, file, right, wrong, /^Ada Sample: 3 of 4 tasks solved; .* to be given by you/m);
});

test('Interlock: from the table to three NANDs', async ({ page }) => {
  const { file, task, hand } = await taken(page, 'Interlock');
  const wrong = await handIn(page, 'Ben Sample');
  await fillTable(page, task, wantedIn('interlock')[0]!);
  await solved(task, 1, 5);
  await open(task, 2);
  const map = task.getByRole('grid', { name: 'Map of Warn' });
  for (const rows of [
    [8, 9, 10, 11],
    [8, 9, 12, 13],
    [9, 11, 13, 15],
  ]) {
    for (const row of rows) await map.getByRole('gridcell', { name: `row ${row}:` }).click();
    await task.getByRole('button', { name: 'Loop these 4 cells' }).click();
  }
  await solved(task, 2, 5);
  await open(task, 3);
  await task.getByLabel('Warn =').fill("Key Bars' + Key Clear' + Key Stop");
  await solved(task, 3, 5);
  await open(task, 4);
  await typeLines(hand, ['Drive = Key Bars Clear', "Warn = Key Bars'"]);
  await solved(task, 4, 5);
  await open(task, 5);
  await typeLines(hand, ['n = Bars nand Bars', 'm = Key nand n', 'Warn = m nand m']);
  await solved(task, 5, 5);
  const right = await handIn(page, 'Ada Sample');
  await marked(page, file, right, wrong, /^Ada Sample: 5 of 5 tasks solved/m);
});

test('Find the fault: four are found, and one is repaired', async ({ page }) => {
  const { file, task, hand } = await taken(page, 'Find the fault');
  const wrong = await handIn(page, 'Ben Sample');
  for (const [i, [row, place]] of (
    [
      [7, 'AND 1'],
      [4, 'NOT 1'],
      [3, 'XOR 1'],
      [4, 'the wire from NOT 1 to AND 2'],
    ] as const
  ).entries()) {
    await open(task, i + 1);
    const at = task.getByRole('row').filter({ hasText: `row ${row}` });
    await at.getByRole('button', { name: /^try/ }).click();
    await at.getByRole('button', { name: /shows it/ }).click();
    await task.getByLabel('Selected on the drawing').selectOption({ label: place });
    await task.getByRole('button', { name: `It is ${place}` }).click();
    await solved(task, i + 1, 5);
  }
  await open(task, 5);
  await check(task);
  await expect(task.getByText('5 of 5 solved')).toHaveCount(0);
  await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await typeLines(hand, ['Drive = Key Bars Clear', "Warn = Key Bars'"]);
  await solved(task, 5, 5);
  const right = await handIn(page, 'Ada Sample');
  await marked(page, file, right, wrong, /^Ada Sample: 5 of 5 tasks solved/m);
});

test('Lamp chase: flip-flops, counters and the shortest period', async ({ page }) => {
  const { file, task, hand } = await taken(page, 'Lamp chase');
  const tasks = wantedIn('lamp-chase');
  const wrong = await handIn(page, 'Ben Sample');
  const count = tasks.length;
  const stores = (edges: readonly string[], data: readonly string[]) => [
    'clock Clock',
    'T Q0',
    'T Q1',
    'T Q2',
    'T Q3',
    ...data.map((of, i) => `Q${i}.T = ${of}`),
    ...edges.map((of, i) => `Q${i}.C = ${of}`),
    'Count = {Q3, Q2, Q1, Q0}',
  ];
  const together = ['Clock', 'Clock', 'Clock', 'Clock'];
  const lines: Readonly<Record<string, readonly string[]>> = {
    'Count to sixteen': stores(together, ['1', 'Q0', 'Q0 Q1', 'Q0 Q1 Q2']),
    'One behind the other': stores(['Clock', 'not Q0', 'not Q1', 'not Q2'], ['1', '1', '1', '1']),
    'Cut at ten': stores(together, ['1', "Q0 Q3'", 'Q0 Q1', 'Q0 Q1 Q2 + Q0 Q3']),
  };
  for (const [i, wanted] of tasks.entries()) {
    await open(task, i + 1);
    if (wanted.kind === 'table') await fillTable(page, task, wanted);
    else if (wanted.kind === 'diagram') await drawLanes(page, task, wanted);
    else if (wanted.kind === 'number') await task.getByLabel(/^Your answer/).fill(wanted.key.value!);
    else await typeLines(hand, lines[wanted.title]!);
    await solved(task, i + 1, count);
  }
  const right = await handIn(page, 'Ada Sample');
  await marked(page, file, right, wrong, new RegExp(`^Ada Sample: ${count} of ${count} tasks solved`, 'm'));
});

for (const [title, name] of [
  ['Read the diagram', 'read-the-diagram'],
  ['Numbers', 'numbers'],
] as const)
  test(`${title}: lanes and values`, async ({ page }) => {
    const { file, task } = await taken(page, title);
    const tasks = wantedIn(name);
    const wrong = await handIn(page, 'Ben Sample');
    for (const [i, wanted] of tasks.entries()) {
      await open(task, i + 1);
      if (wanted.kind === 'diagram') await drawLanes(page, task, wanted);
      else await task.getByLabel(/^Your answer/).fill(wanted.key.value!);
      await solved(task, i + 1, tasks.length);
    }
    const right = await handIn(page, 'Ada Sample');
    await marked(
      page,
      file,
      right,
      wrong,
      new RegExp(`^Ada Sample: ${tasks.length} of ${tasks.length} tasks`, 'm'),
    );
  });

test('a phone held sideways: the words are read, a table is filled in by touch, and it is handed in', async ({
  page,
}) => {
  await page.setViewportSize({ width: 844, height: 390 });
  const { task } = await taken(page, 'First gates');
  await open(task, 3);
  await expect(task.getByText('whether a horse may be mounted', { exact: false })).toBeInViewport();
  const grid = task.getByRole('grid');
  // A press turns a cell to 0, another to 1.
  await grid.getByRole('button', { name: 'Free in row 0' }).click();
  await grid.getByRole('button', { name: 'Free in row 0: 0' }).click();
  await grid.getByRole('button', { name: 'Free in row 1' }).click();
  await solved(task, 1, 4);
  await expect(task.getByText('All cells right.')).toBeInViewport();
  const handed = await handIn(page, 'Ada Sample');
  expect(JSON.parse(handed)).toMatchObject({ name: 'Ada Sample', results: { task3: { right: 2, of: 2 } } });
});
