import { expect, test } from '@playwright/test';
import { Counted } from './counted';
import { face, names, planned } from './face-hand';
import { asFile, emptySheet, SheetHand, tabTo, textOf } from './hand';

test('two inputs and two outputs are named, the table filled, the circuit drawn; then a third of each', async ({
  page,
}) => {
  const me = new Counted(page, await emptySheet(page));
  await me.click(page.getByRole('button', { name: 'Fill in a table' }));
  await expect(names(page)).toBeFocused();
  await me.keys('A,B=S,C');
  await me.key('Enter');
  await expect(planned(page)).toBeFocused();
  await me.keys('01100001');
  await me.keys('');
  await me.key('Enter');
  await expect(page.getByText('all agree')).toBeVisible();
  me.done('Two inputs and outputs named, table filled, circuit drawn', 20);

  const more = new Counted(page, new SheetHand(page));
  await tabTo(page, planned(page));
  await more.key('F2');
  await expect(names(page)).toBeFocused();
  await more.keys('A,B,D=S,C,E');
  await more.key('Enter');
  await expect(planned(page)).toBeFocused();
  await more.key('ArrowRight');
  await more.key('ArrowRight');
  await more.keys('00010111');
  await more.keys('');
  await more.key('Enter');
  await expect(page.getByText('all agree')).toBeVisible();
  // The filled-in cells hold for both values of the new input.
  await expect(page.locator('#plan-2-0')).toHaveAccessibleName('S: 1 the circuit does 1');
  await expect(page.locator('#plan-3-0')).toHaveAccessibleName('S: 1 the circuit does 1');
  await expect(page.locator('#plan-7-2')).toHaveAccessibleName('E: 1 the circuit does 1');
  more.done('A third input and output added, filled, drawn anew', 15);

  // A fourth input, its new half left open.
  await tabTo(page, planned(page));
  await page.keyboard.press('F2');
  await expect(names(page)).toBeFocused();
  await page.keyboard.type('A,B,D,G=S,C,E');
  await page.getByLabel('leave open where G is 1').check();
  await page.getByRole('button', { name: 'Change' }).click();
  await expect(page.locator('#plan-4-0')).toHaveAccessibleName('S: 1');
  await expect(page.locator('#plan-5-0')).toHaveAccessibleName('S: open');
});

test('a table filled and drawn, an input and an output more, its formulas copied, and a gate by hand', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const hand = await emptySheet(page);
  const me = new Counted(page, hand);
  await me.click(page.getByRole('button', { name: 'Fill in a table' }));
  await expect(names(page)).toBeFocused();
  await me.keys('A,B=S,C');
  await me.key('Enter');
  await expect(planned(page)).toBeFocused();
  await me.keys('01100001');
  await me.key('Enter');
  await expect(page.getByText('all agree')).toBeVisible();
  await me.key('F2');
  await expect(names(page)).toBeFocused();
  await me.keys('A,B,D=S,C,E');
  await me.key('Enter');
  await expect(planned(page)).toBeFocused();
  await me.key('ArrowRight');
  await me.key('ArrowRight');
  await me.keys('00010111');
  await me.key('Enter');
  await expect(page.getByText('all agree')).toBeVisible();
  await me.click(page.getByRole('button', { name: 'Faces' }));
  await me.click(page.getByRole('menuitemcheckbox', { name: 'Formula' }));
  await me.key('Escape');
  await me.click(page.getByRole('region', { name: 'Formula' }).getByRole('button', { name: 'Copy' }));
  await expect(page.getByText('Copied as LaTeX.')).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toMatch(/^S = .*\nC = .*\nE = /);
  // A gate by hand: pressed on bare paper, typed, and led to two switches by their names.
  await me.press(() => hand.click(10, 44));
  await me.line('F = A nor D');
  await expect(page.getByRole('option', { name: /^F, lamp/ })).toContainText('from');
  me.done('A table filled, drawn, enlarged, copied, a gate by hand', 65);
});

test('a table of eight rows is pasted, and its NAND circuit tried in all rows', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const me = new Counted(page, await emptySheet(page));
  const rows = ['North', 'Turn', 'South', 'Platform'].join('\t');
  const text = [
    rows,
    ...[0, 0, 0, 1, 1, 1, 0, 1].map((y, r) => [r >> 2, (r >> 1) & 1, r & 1, y].join('\t')),
  ].join('\n');
  await page.evaluate((t) => navigator.clipboard.writeText(t), text);
  await me.click(page.getByRole('button', { name: 'Fill in a table' }));
  await expect(names(page)).toBeFocused();
  await me.keys('');
  await me.key('Control+v');
  await expect(planned(page)).toBeVisible();
  await me.click(page.getByLabel('Form of the circuit'));
  await page.keyboard.press('Escape');
  await tabTo(page, page.getByLabel('Form of the circuit'));
  await me.key('n');
  await expect(page.getByLabel('Form of the circuit')).toHaveValue('nand');
  await me.click(page.getByRole('button', { name: 'Draw it' }));
  await expect(page.getByText('all agree')).toBeVisible();
  await me.click(page.getByRole('button', { name: 'Try all' }));
  await expect(page.getByText('8 of 8 tried')).toBeVisible();
  me.waited(8 * 0.7);
  const kinds = (await new SheetHand(page).parts()).filter((p) => !/switch|lamp/.test(p));
  expect(kinds.every((p) => p.startsWith('NAND'))).toBe(true);
  me.done('A table pasted, its NAND circuit tried in all rows', 25);
});

test('a prediction is compared with what was tried, and leads to the row that differs', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Fill in' }).click();
  await expect(names(page)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(planned(page)).toBeFocused();
  await page.getByRole('button', { name: 'Predict' }).click();
  await tabTo(page, planned(page));
  await page.keyboard.type('00000011');
  await expect(page.locator('#plan-6-0')).toHaveAccessibleName('Drive: 1');
  await page.getByRole('button', { name: 'Try all' }).click();
  await page.getByRole('combobox', { name: 'Pace of the walk' }).selectOption('0.2 s a row');
  await expect(page.getByRole('button', { name: '1 row differs' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Try all' })).toBeVisible();
  await page.getByRole('button', { name: '1 row differs' }).click();
  await expect(planned(page).locator('[data-row="6"]')).toHaveAttribute('data-live', 'true');
  // A column by a formula; an error is reported at its place.
  await page.getByRole('button', { name: 'Fill Drive by a formula' }).click();
  await page.keyboard.type('Key (Bars');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'never closed' })).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('Key Bars Clear');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /differ/ })).toHaveCount(0);
  // Bad names are answered, and nothing is lost.
  await page.getByRole('button', { name: 'Names' }).click();
  for (const [line, said] of [
    ['Key, Key = Drive', 'The name Key stands twice.'],
    ['Key, , Bars = Drive', 'Between two commas the name of an input is missing.'],
    [
      `${Array.from({ length: 27 }, (_, i) => `N${i}`).join()}=Y`,
      'A table that is filled in has at most 16 inputs.',
    ],
  ]) {
    await names(page).fill(line!);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: said! })).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await expect(page.locator('#plan-6-0')).toHaveAccessibleName('Drive: 0 seen 0 the circuit does 0');
  // Ways to build it side by side: an AND of three is the least there is.
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  const costs = page.getByRole('table', { name: 'What each form of the circuit takes' });
  await expect(costs.getByRole('row', { name: /AND, then OR/ })).toContainText('11 ns');
});

test('a formula is typed on its face: the table fills, and the circuit of it is drawn', async ({ page }) => {
  const hand = await emptySheet(page);
  await face(page, 'Formula');
  const formula = page.getByRole('region', { name: 'Formula' });
  const field = formula.getByRole('textbox', { name: 'Formula of another output' });
  // How it is read is said where only precedence decides it.
  await field.fill('Drive = Key and Bars or Clear xor Key');
  await expect(formula.getByRole('status')).toContainText('AND before OR, XOR before OR');
  await field.fill('Drive = Key Bars (Clear');
  await page.keyboard.press('Enter');
  await expect(formula.getByRole('alert')).toHaveText('At “(Clear”: this parenthesis is never closed.');
  // The character of the error is selected.
  expect(await page.evaluate(() => String(getSelection()))).toBe('(');
  await field.fill('Drive = Key Bars Clear');
  await page.keyboard.press('Enter');
  await expect(planned(page).getByRole('columnheader', { name: /Drive/ })).toBeVisible();
  await field.fill('Warn = \\mathit{Key} \\overline{\\mathit{Bars}}');
  await page.keyboard.press('Enter');
  await expect(page.locator('#plan-4-1')).toHaveAccessibleName('Warn: 1');
  await formula.getByRole('button', { name: 'Draw it' }).click();
  await expect(formula.getByText('as the circuit does it')).toBeVisible();
  expect((await hand.parts()).filter((p) => p.startsWith('AND'))).toHaveLength(2);
  // An existing one is changed, in code.
  await page.getByLabel('Notation').selectOption('c');
  await formula.getByRole('button', { name: 'Change' }).last().click();
  await expect(formula.getByRole('textbox', { name: 'Formula of Warn' })).toHaveValue('Key && !Bars');
  await page.keyboard.type('Key && (Bars != Clear)');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: '2 rows differ' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('all agree')).toBeVisible();
});

test('a cell of a drawn circuit is changed where it stands, in the table and on the map', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await face(page, 'Map');
  const grid = page.getByRole('grid', { name: 'Truth table' });
  // A probe adds no output to the expected ones.
  await page.getByRole('button', { name: 'Columns and rows' }).click();
  await page.getByRole('checkbox', { name: 'NOT 1' }).check();
  await page.keyboard.press('Escape');
  await grid.locator('[data-row="6"]').getByRole('gridcell').nth(4).dblclick();
  await expect(page.locator('#plan-6-0')).toHaveAccessibleName('Drive: 1 seen 0 the circuit does 0');
  await expect(planned(page).getByRole('columnheader')).toHaveText([
    'row',
    'Key',
    'Bars',
    'Clear',
    /Drive/,
    /Warn/,
  ]);
  const map = page.getByRole('region', { name: 'Map' });
  await tabTo(page, map.getByRole('gridcell', { name: 'row 7:' }));
  await page.keyboard.press('0');
  await expect(page.getByRole('button', { name: '2 rows differ' })).toBeVisible();
  await page.getByRole('button', { name: 'Draw again' }).click();
  await expect(page.getByText('all agree')).toBeVisible();
  for (let n = 0; n < 3; n++) await page.getByRole('button', { name: 'Undo' }).click();
  await expect(grid.locator('[data-row="6"]')).toBeVisible();
});

test('a table comes from a file and leaves as one; what cannot be read is said', async ({ page }) => {
  await emptySheet(page);
  await page.getByRole('button', { name: 'Fill in a table' }).click();
  const file = page.getByLabel('A table in a file');
  await file.setInputFiles(asFile('gate.csv', 'Key,Bars,=,Drive\n0,0,,0\n0,2,,1'));
  await expect(page.getByRole('alert').filter({ hasText: 'gate.csv' })).toHaveText(
    'gate.csv: row 2, Bars: “2” is not 0 or 1.',
  );
  await file.setInputFiles(asFile('gate.csv', 'Key,Bars,=,Drive\r\n0,0,,0\r\n0,1,,\r\n1,0,,0\r\n1,1,,1\r\n'));
  await expect(page.locator('#plan-1-0')).toHaveAccessibleName('Drive: x');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await page.getByRole('button', { name: /^Markdown/ }).click();
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toBe(
      '| Key | Bars | Drive |\n| :-: | :-: | :-: |\n| 0 | 0 | 0 |\n| 0 | 1 | x |\n| 1 | 0 | 0 |\n| 1 | 1 | 1 |',
    );
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: /^Save as a file/ }).click();
  expect(await textOf(await saved)).toBe('Key,Bars,Drive\r\n0,0,0\r\n0,1,x\r\n1,0,0\r\n1,1,1\r\n');
});

test('a table of the wrong size and too many inputs are answered in words, and nothing is lost', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await page.getByRole('button', { name: 'Fill in a table' }).click();
  await names(page).fill(`${Array.from({ length: 30 }, (_, i) => `N${i}`).join()} = Y`);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'at most 16 inputs' })).toBeVisible();
  await names(page).fill('A, B = Y');
  await page.keyboard.press('Enter');
  await expect(planned(page)).toBeFocused();
  await page.keyboard.type('011');
  await page.evaluate(() => navigator.clipboard.writeText('0\n1\n0\n1\n1'));
  await page.keyboard.press('Home');
  await page.keyboard.press('Control+v');
  await expect(
    page.getByText('What was pasted has 5 rows and 1 columns; from here on there are 4 and 1.'),
  ).toBeVisible();
  await expect(page.locator('#plan-1-0')).toHaveAccessibleName('Y: 1');
  await expect(page.locator('#plan-3-0')).toHaveAccessibleName('Y: open');
  await page.getByRole('button', { name: 'Remove' }).click();
  await face(page, 'Formula');
  await face(page, 'Map');
  await hand.type(4, 4, `Z = ${Array.from({ length: 27 }, (_, i) => `N${i}`).join(' xor ')}`);
  const said = '27 inputs give too many rows: 26 are the most.';
  await expect(page.getByRole('region', { name: 'Truth table' })).toContainText(said);
  await expect(page.getByRole('region', { name: 'Formula' })).toContainText(said);
  await expect(page.getByRole('region', { name: 'Map' })).toContainText(said);
});
