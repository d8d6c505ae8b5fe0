import { expect, type Locator, test } from '@playwright/test';
import { Counted } from './counted';
import { face, names, planned } from './face-hand';
import { emptySheet, SheetHand, tabTo } from './hand';
import { crowded } from './room';

test('a drawn circuit gets its table and its formula onto the sheet', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const me = new Counted(page, hand);
  await me.line('truth');
  await me.line('formula');
  await expect
    .poll(async () => (await hand.parts()).join('\n'))
    .toContain('formulas on the sheet: Drive = Key Bars Clear\nWarn = Key not Bars'.replace('\n', ' '));
  me.done('Table and formula of a drawn circuit onto the sheet', 10);
});

test('a term that is pointed at lights its rows and its loop; a cell of the map is a moment', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Queue selector' }).click();
  await new SheetHand(page).ready();
  await face(page, 'Formula');
  await face(page, 'Map');
  const formula = page.getByRole('region', { name: 'Formula' });
  await expect(formula.getByText('none is smaller')).toBeVisible();
  await page.getByLabel('Notation').selectOption('prime');
  await expect(formula).toContainText("Platform = North Turn' + Turn South");
  await page.getByLabel('Form', { exact: true }).selectOption('nand');
  await page.getByLabel('Notation').selectOption('words');
  await expect(formula).toContainText('not (not (North and not (Turn and Turn)) and not (Turn and South))');
  // The gate that makes a term, pointed at, lights the term.
  await page.getByLabel('Form', { exact: true }).selectOption('sop');
  await page.getByLabel('Notation').selectOption('prime');
  const sheet = (await page.getByRole('application').boundingBox())!;
  const litAt = async (x: number, y: number) => {
    await page.mouse.move(sheet.x + x * sheet.width, sheet.y + y * sheet.height);
    return formula.locator('[data-lit]').allInnerTexts();
  };
  const across = Array.from({ length: 40 }, (_, i) => 0.5 + i / 400);
  const seen = new Set<string>();
  for (const y of [0.53, 0.6]) for (const x of across) for (const term of await litAt(x, y)) seen.add(term);
  expect([...seen].sort()).toEqual(["North Turn'", 'Turn South']);
  const map = page.getByRole('region', { name: 'Map' });
  await map.getByRole('gridcell', { name: 'row 5: 1' }).click();
  await expect(page.getByRole('grid', { name: 'Truth table' }).locator('[data-row="5"]')).toHaveAttribute(
    'data-live',
    'true',
  );
  await expect(map.getByText('changes between rows')).toContainText('when Turn changes between rows 5 and 7');
  // The glitch itself, in the diagram of time.
  await map.getByRole('button', { name: 'Show it in time' }).click();
  await expect(page.getByLabel('Stimulus', { exact: true })).toHaveValue('One input changes');
  await expect(page.getByRole('slider', { name: 'Moment on the timing diagram' })).toHaveAttribute(
    'aria-valuetext',
    '60 ns',
  );
});

test('groups drawn by hand are judged', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Queue selector' }).click();
  await new SheetHand(page).ready();
  await face(page, 'Map');
  const map = page.getByRole('region', { name: 'Map' });
  await map.getByLabel('Loops').selectOption('own');
  const cell = (row: number) => map.getByRole('gridcell', { name: `row ${row}:` });
  await cell(3).click();
  await cell(2).click();
  await map.getByRole('button', { name: 'Loop these 2 cells' }).click();
  await expect(map.getByRole('alert')).toHaveText('There is a 0 in it, in row 2.');
  await cell(2).click();
  await map.getByRole('button', { name: 'Loop this cell' }).click();
  await map.getByRole('button', { name: 'Check' }).click();
  await expect(map.getByText('It can be larger: 2 cells.')).toBeVisible();
  await expect(map.getByRole('status')).toHaveText('Not in any group yet: rows 4, 5, 7.');
  await map.getByRole('button', { name: 'Start over' }).click();
  for (const pair of [
    [4, 5],
    [3, 7],
  ]) {
    for (const row of pair) await cell(row).click();
    await map.getByRole('button', { name: 'Loop these 2 cells' }).click();
  }
  await map.getByRole('button', { name: 'Check' }).click();
  await expect(map.getByRole('status')).toContainText('Right: every 1 is in a group');
});

test('two sheets are compared: the same is proved, a difference is shown on the sheet', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Y = A xor B');
  await hand.type(4, 4, 'sheet Other');
  await hand.type(4, 4, "Y = A'B + AB'");
  const compare = async () => {
    await page
      .getByRole('navigation', { name: 'Sheets' })
      .getByRole('button', { name: /^Other/ })
      .click();
    await page.getByRole('menuitem', { name: 'Compare with a sheet or formula' }).click();
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
  };
  await compare();
  await expect(page.getByText('Proved by all rows.')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await hand.ready();
  await hand.type(4, 4, "Y = A'B + AB' + AB");
  await compare();
  await expect(page.getByText('in this row:')).toBeVisible();
  await page.getByRole('button', { name: 'Show it on Other' }).click();
  await expect(page.getByRole('grid', { name: 'Truth table' }).locator('[data-row="3"]')).toHaveAttribute(
    'data-live',
    'true',
  );
  // Against formulas: a name that is another one there is paired by hand.
  await page
    .getByRole('navigation', { name: 'Sheets' })
    .getByRole('button', { name: /^Other/ })
    .click();
  await page.getByRole('menuitem', { name: 'Compare with a sheet or formula' }).click();
  await page.getByRole('dialog').getByRole('combobox').selectOption('formulas that I type');
  const typed = page.getByRole('textbox', { name: 'Formulas, a line for each output' });
  await typed.fill('Z = A + (B');
  await expect(page.getByRole('dialog').getByRole('status')).toContainText('character');
  await typed.fill('Z = A + B');
  await page.getByRole('combobox', { name: 'output Y' }).selectOption('Z');
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await expect(page.getByText('Proved by all rows.')).toBeVisible();
});

test('a circuit is compared with a sheet of another lesson', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Drive = Key Bars Clear');
  await hand.type(4, 14, "Warn = (Key' + Bars)'");
  await page.getByRole('navigation', { name: 'Sheets' }).getByRole('button').first().click();
  await page.getByRole('menuitem', { name: 'Compare with a sheet or formula' }).click();
  const dialog = page.getByRole('dialog', { name: 'The same, or not' });
  await dialog.getByRole('combobox').first().selectOption('Drive interlock');
  await dialog.getByRole('button', { name: 'Compare' }).click();
  await expect(dialog.getByText('Proved by all rows.')).toBeVisible();
  // A lesson with several sheets asks for one; outputs with other names are paired by hand.
  await dialog.getByRole('combobox').first().selectOption('Ride timer');
  await dialog.getByRole('combobox', { name: 'its sheet' }).selectOption('Fourteen stages');
  await expect(dialog.getByText('The names differ')).toBeVisible();
});

test('rows are shown where it matters, and copied for a spreadsheet', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Columns and rows' }).click();
  await page.getByRole('combobox', { name: 'Rows that are shown' }).selectOption('1');
  await page.getByRole('combobox', { name: 'Column' }).selectOption('Warn');
  await expect(page.getByText('2 of 8 rows').first()).toBeVisible();
  await page.getByRole('button', { name: /^For a spreadsheet/ }).click();
  await expect(page.getByText('2 rows are on the clipboard.')).toBeVisible();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toBe('Key\tBars\tClear\tDrive\tWarn\n1\t0\t0\t0\t1\n1\t0\t1\t0\t1');
  await page.getByRole('combobox', { name: 'Rows that are shown' }).selectOption('differ');
  await page.getByRole('combobox', { name: 'Column', exact: true }).selectOption('Drive');
  await page.getByRole('combobox', { name: 'Other column' }).selectOption('Key');
  await page.keyboard.press('Escape');
  const grid = page.getByRole('grid', { name: 'Truth table' });
  await tabTo(page, grid);
  await page.keyboard.press('End');
  await expect(grid.locator('[data-live]')).toHaveAttribute('data-row', '6');
});

test('a gate half-way becomes a column of the table, and goes again', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Columns and rows' }).click();
  await page.getByRole('checkbox', { name: 'NOT 1' }).check();
  const grid = page.getByRole('grid', { name: 'Truth table' });
  await expect(grid.getByRole('columnheader', { name: 'NOT 1' })).toBeVisible();
  await expect.poll(async () => (await hand.parts()).at(-1)).toContain('NOT 1, probe');
  await page.getByRole('checkbox', { name: 'NOT 1' }).uncheck();
  await expect(grid.getByRole('columnheader', { name: 'NOT 1' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(grid.getByRole('columnheader', { name: 'NOT 1' })).toBeVisible();
});

test('a map is filled like the table, and the way to the smallest sum is shown law by law', async ({
  page,
}) => {
  await emptySheet(page);
  await page.getByRole('button', { name: 'Fill in a table' }).click();
  await expect(names(page)).toBeFocused();
  await page.keyboard.type('A,B=Y');
  await page.keyboard.press('Enter');
  await expect(planned(page)).toBeFocused();
  await face(page, 'Map');
  await face(page, 'Formula');
  const map = page.getByRole('region', { name: 'Map' });
  await tabTo(page, map.getByRole('gridcell', { name: 'row 1:' }));
  await page.keyboard.press('1');
  // Over the edge, as neighbours are on a map.
  await page.keyboard.press('ArrowRight');
  await expect(map.getByRole('gridcell', { name: 'row 0:' })).toBeFocused();
  await page.keyboard.press('0');
  for (const row of [2, 3]) {
    await tabTo(page, map.getByRole('gridcell', { name: `row ${row}:` }));
    await page.keyboard.press('1');
  }
  await expect(page.locator('#plan-3-0')).toHaveAccessibleName('Y: 1');
  const formula = page.getByRole('region', { name: 'Formula' });
  await page.getByLabel('Notation').selectOption('prime');
  await expect(formula).toContainText('Y = A + B');
  await formula.getByRole('button', { name: 'Why?' }).click();
  await expect(formula).toContainText('From the minterms');
  await expect(formula.getByText("A B + A B' = A").first()).toBeVisible();
  // To gates of one kind as well.
  await page.getByLabel('Form', { exact: true }).selectOption('nand');
  await expect(formula.getByText("De Morgan: (A + B)' = A' B'").first()).toBeVisible();
  await page.getByLabel('Form', { exact: true }).selectOption('sop');
  await page.getByLabel('Notation').selectOption('python');
  await formula.getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText('The formulas are on the clipboard.')).toBeVisible();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toContain('def Y(A, B):\n    return A or B');
});

test('a counter has a state table, and formulas of its next state', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Organ drum' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Truth table' }).click();
  const grid = page.getByRole('grid', { name: 'State table' });
  await expect(grid.getByRole('columnheader')).toHaveText([
    /Q0/,
    /Q1/,
    /Q2/,
    'Forward',
    /Q0\+/,
    /Q1\+/,
    /Q2\+/,
    'Stop[2]',
    'Stop[1]',
    'Stop[0]',
  ]);
  await expect(grid.locator('[data-row="0"]')).toHaveAttribute('data-live', 'true');
  await grid.locator('[data-row="1"]').click();
  await expect(grid.locator('[data-row="1"]')).toHaveAttribute('data-live', 'true');
  // Forwards: from 0 the next state is 1.
  await page.getByRole('button', { name: 'Forward half a period' }).click();
  await expect(grid.locator('[data-row="9"]')).toHaveAttribute('data-live', 'true');
  await face(page, 'Formula');
  await page.getByLabel('Notation').selectOption('sign');
  await expect(page.getByRole('region', { name: 'Formula' })).toContainText('+ = ¬Q_0');
});

test('all rows of a circuit are walked through at a pace', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Queue selector' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Try all' }).click();
  await page.getByRole('combobox', { name: 'Pace of the walk' }).selectOption('0.2 s a row');
  await expect(page.getByText('8 of 8 tried').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Try all' })).toBeVisible();
});

test('large for a projector: values, names and formulas grow in two steps, and nothing is cut', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await face(page, 'Formula');
  const size = (what: Locator) => what.evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
  const read = [
    page.locator('[data-row="3"] [role="gridcell"]').nth(4),
    page.getByRole('columnheader', { name: 'Drive' }),
    page.getByRole('region', { name: 'Formula' }).getByText('Key Bars Clear'),
    page.getByRole('button', { name: 'Fill in' }),
    page.getByText('all wired'),
  ];
  let before = await Promise.all(read.map(size));
  for (const step of [1, 2]) {
    await page.keyboard.press('F9');
    await expect(page.locator(`html[data-projector="${step}"]`)).toHaveCount(1);
    const now = await Promise.all(read.map(size));
    for (const [i, was] of before.entries()) expect(now[i]).toBeGreaterThan(1.14 * was);
    before = now;
    await expect.poll(() => crowded(page)).toEqual([]);
  }
  // From within a field as well.
  await page.keyboard.type('nan');
  await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveValue('nan');
  await page.keyboard.press('F9');
  await expect(page.locator('html[data-projector]')).toHaveCount(0);
});

test('a table of 2^20 rows: the last one is wholly seen, and rows go on from there', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(
    4,
    4,
    `Y = ${Array.from({ length: 20 }, (_, i) => String.fromCharCode(65 + i)).join(' xor ')}`,
  );
  const grid = page.getByRole('grid', { name: 'Truth table' });
  await expect(grid).toBeVisible({ timeout: 30_000 });
  await tabTo(page, grid);
  await page.keyboard.press('End');
  const last = grid.locator('[data-row="1048575"]');
  await expect(last).toHaveAttribute('data-live', 'true');
  const inside = async () => {
    const [row, pane] = [(await last.boundingBox())!, (await grid.boundingBox())!];
    return row.y >= pane.y && row.y + row.height <= pane.y + pane.height + 1;
  };
  await expect.poll(inside).toBe(true);
  await expect(last).toContainText('11111111111111111111');
  await page.keyboard.press('ArrowUp');
  await expect(grid.locator('[data-row="1048574"]')).toHaveAttribute('data-live', 'true');
  // The list of rows that matter is as quick.
  await page.getByRole('button', { name: 'Columns and rows' }).click();
  await page.getByRole('combobox', { name: 'Rows that are shown' }).selectOption('1');
  await expect(page.getByText('524288 of 1048576 rows').first()).toBeVisible();
});

test('the axes of a map change places by a drag, and each cell keeps its row', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Queue selector' }).click();
  await new SheetHand(page).ready();
  await face(page, 'Map');
  const map = page.getByRole('region', { name: 'Map' });
  const order = () =>
    map.getByRole('gridcell').evaluateAll((all) => all.map((e) => e.getAttribute('data-cell')));
  expect(await order()).toEqual(['0', '1', '3', '2', '4', '5', '7', '6']);
  await map
    .getByText('North', { exact: true })
    .first()
    .dragTo(map.getByText('South', { exact: true }).first());
  await expect.poll(order).toEqual(['0', '4', '6', '2', '1', '5', '7', '3']);
  await expect(map.getByRole('gridcell', { name: 'row 3:' })).toContainText('1');
});

test('long names stay whole: a product on its line, a subscript in its heading', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await emptySheet(page);
  await page.keyboard.type(
    "Drive = Turnstile Bars_locked Key + Gate_closed Bars_locked' Key + Gate_closed' Turnstile'",
  );
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await face(page, 'Formula');
  const formula = page.getByRole('region', { name: 'Formula' });
  await expect(formula.getByText('3 terms')).toBeVisible();
  await page.getByLabel('Notation').selectOption('prime');
  const text = formula.getByRole('listitem').first().locator('p').first();
  const line = await text.evaluate((of) => Number.parseFloat(getComputedStyle(of).lineHeight));
  expect((await text.boundingBox())!.height).toBeGreaterThan(1.5 * line);
  for (const product of [
    'Turnstile Bars_locked Key',
    "Bars_locked' Key Gate_closed",
    "Turnstile' Gate_closed'",
  ]) {
    const box = (await formula.getByText(product, { exact: true }).boundingBox())!;
    expect(box.height, product).toBeLessThan(1.2 * line);
  }
  const heading = page.getByRole('columnheader', { name: 'Barslocked' });
  const [outer, low] = [(await heading.boundingBox())!, (await heading.locator('sub').boundingBox())!];
  expect(low.height).toBeGreaterThan(6);
  expect(low.y + low.height).toBeLessThan(outer.y + outer.height + 2);
});
