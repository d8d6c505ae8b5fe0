import { type Browser, expect, type Page, test } from '@playwright/test';
import { drop, pasted, SheetHand, tabTo, textOf } from './hand';

/** The whole job of a teacher, from an empty sheet to a marked hand-in, with mouse and keyboard alone. */
test('from an empty sheet to a marked hand-in', async ({ page, browser }) => {
  await shelf(page);
  await draw(page);
  await tryIt(page);
  await keep(page);
  const { link, exerciseFile } = await handOut(page);
  const handIns = await doAndHandIn(browser, link);
  await mark(page, exerciseFile, handIns);
});

async function shelf(page: Page): Promise<void> {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Drive interlock' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Lamp chase' })).toBeVisible();
  await page.getByRole('button', { name: /New lesson/ }).click();
}

async function draw(page: Page): Promise<void> {
  const hand = new SheetHand(page);
  await hand.ready();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  await hand.type(4, 2, 'sw Key, Bars, Clear');
  // The ring: open at the pointer, three inputs, AND is straight up.
  await hand.point(18, 8);
  await page.keyboard.press('Space');
  await expect(page.getByRole('menu', { name: 'Parts to place' })).toBeVisible();
  await page.keyboard.press('3');
  const [x, y] = await hand.pixel(18, 8);
  await page.mouse.click(x, y - 100);
  await hand.type(16, 20, 'not');
  await hand.type(24, 19, 'and');
  await hand.type(34, 8, 'lamp Drive');
  await hand.type(34, 19, 'light Warn');
  await hand.drag([6, 2], [15, 6]);
  await hand.drag([6, 7], [15, 8]);
  await hand.drag([6, 12], [15, 10]);
  await hand.drag([21, 8], [32, 8]);
  // Branches from the middle of wires.
  await hand.drag([8, 2], [21, 18]);
  await hand.drag([8, 7], [14, 20]);
  await hand.drag([18, 20], [21, 20]);
  // A wire by two clicks.
  await hand.click(27, 19);
  await hand.click(32, 19);
  await expect
    .poll(() => hand.parts())
    .toEqual([
      'Key, switch, 0, drives AND 1 and AND 2',
      'Bars, switch, 0, drives AND 1 and NOT 1',
      'Clear, switch, 0, drives AND 1',
      'NOT 1, NOT, from Bars, output 1, drives AND 2',
      'AND 1, three-input AND, from Key, Bars and Clear, output 0, drives Drive',
      'AND 2, two-input AND, from Key and NOT 1, output 0, drives Warn',
      'Drive, lamp, from AND 1, shows 0',
      'Warn, lamp, from AND 2, shows 0',
    ]);
  await expect(page.getByText('all wired')).toBeVisible();

  // Moving keeps the wires; a copy is made, deleted, and undone.
  await hand.drag([24, 19], [24, 22]);
  await expect
    .poll(async () => (await hand.parts())[5])
    .toContain('from Key and NOT 1, output 0, drives Warn');
  await page.keyboard.press('Control+d');
  await expect.poll(async () => (await hand.parts()).length).toBe(9);
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await hand.parts()).length).toBe(8);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.parts()).length).toBe(9);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.parts()).length).toBe(8);
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => (await hand.parts()).length).toBe(9);
  await page.keyboard.press('Control+z');

  // A loose input is reported in words, at its place and in the list.
  await hand.type(10, 32, 'or');
  await expect(page.getByRole('button', { name: '2 open inputs' })).toBeVisible();
  await hand.point(7, 31);
  await expect(page.getByText('Input A of OR 1 is open.')).toBeVisible();
  // Two outputs tied together.
  await hand.drag([6, 12], [13, 32]);
  await expect(page.getByRole('button', { name: '1 problem · 2 open inputs' })).toBeVisible();
  await page.getByRole('button', { name: '1 problem · 2 open inputs' }).click();
  await expect(
    page.getByRole('button', { name: /The outputs of Clear and OR 1 are tied together/ }),
  ).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('all wired')).toBeVisible();
}

async function tryIt(page: Page): Promise<void> {
  const hand = new SheetHand(page);
  const table = page.getByRole('grid', { name: 'Truth table' });
  const live = table.locator('[data-live]');
  await hand.click(4, 2);
  await expect(live).toHaveAttribute('data-row', '4');
  await expect.poll(async () => (await hand.parts())[7]).toBe('Warn, lamp, from AND 2, on');
  await table.locator('[data-row="7"]').click();
  await expect.poll(async () => (await hand.parts())[6]).toBe('Drive, lamp, from AND 1, on');
  await table.press('ArrowUp');
  await expect(live).toHaveAttribute('data-row', '6');
  await expect(page.getByText('3 of 8 tried').first()).toBeVisible();
  await expect(table.locator('[data-row="4"]').getByLabel('tried', { exact: true })).toBeVisible();

  // Columns in another order, and back.
  const headings = () => table.getByRole('columnheader').allInnerTexts();
  await table
    .getByRole('columnheader', { name: 'Clear' })
    .dragTo(table.getByRole('columnheader', { name: 'Key' }));
  await expect.poll(headings).toEqual(['row', 'tried', 'Clear', 'Key', 'Bars', 'Drive', 'Warn']);
  await expect(live).toHaveAttribute('data-row', '3');
  await page.keyboard.press('Control+z');
  await expect.poll(headings).toEqual(['row', 'tried', 'Key', 'Bars', 'Clear', 'Drive', 'Warn']);
}

async function keep(page: Page): Promise<void> {
  const hand = new SheetHand(page);
  const title = page.getByRole('textbox', { name: 'Title of the lesson' });
  await title.fill('Interlock of the carousel');
  await title.press('Enter');
  const before = await hand.parts();
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(before);
  await expect(title).toHaveValue('Interlock of the carousel');
  await expect(page.getByRole('grid').locator('[data-live]')).toHaveAttribute('data-row', '6');
}

async function handOut(page: Page): Promise<{ link: string; exerciseFile: string }> {
  await page.getByRole('button', { name: 'Hand out' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title').fill('Warning lamp');
  await dialog
    .getByLabel(/^Task/)
    .fill('Drive with **key**, bars and a clear platform.\n\n<img src=x onerror=alert(1)>');
  await expect(dialog.locator('strong')).toHaveText('key');
  await expect(dialog.locator('img')).toHaveCount(0);
  await dialog.getByLabel('NAND').uncheck();
  await dialog.getByLabel('XOR', { exact: true }).uncheck();
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the exercise file' }).click();
  const download = await saving;
  expect(download.suggestedFilename()).toBe('warning-lamp.exercise.json');
  const exerciseFile = await textOf(download);
  await dialog.getByRole('button', { name: 'Copy the link' }).click();
  await expect(dialog.getByText('Copied.')).toBeVisible();
  const link = await pasted(page);
  expect(link).toContain('/exercise#');
  expect(link.length).toBeLessThan(2000);
  await dialog.getByRole('button', { name: 'Done' }).click();
  return { link, exerciseFile };
}

async function doAndHandIn(browser: Browser, link: string): Promise<{ name: string; text: string }[]> {
  const profile = await browser.newContext({ serviceWorkers: 'allow' });
  const page = await profile.newPage();
  await page.goto(link);
  const task = page.getByRole('region', { name: 'Task' });
  await expect(task.getByText('bars and a clear platform.')).toBeVisible();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  const hand = new SheetHand(page);
  await hand.ready();

  // Only the allowed parts are there.
  await hand.point(20, 10);
  await page.keyboard.type('nan');
  await expect(page.getByText('No part is called “nan”.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Space');
  await expect(page.getByRole('menuitem', { name: 'AND', exact: true })).toBeAttached();
  await expect(page.getByRole('menuitem', { name: 'NAND' })).toHaveCount(0);
  await page.keyboard.press('Escape');

  await hand.type(4, 2, 'sw Key, Bars, Clear');
  await hand.type(14, 7, 'and 3');
  await hand.type(26, 7, 'lamp Drive');
  await hand.type(26, 16, 'lamp Warn');
  await hand.drag([6, 2], [11, 5]);
  await hand.drag([6, 7], [11, 7]);
  await hand.drag([6, 12], [11, 9]);
  await hand.drag([17, 7], [24, 7]);
  // Wrong on purpose: Warn is the key alone.
  await hand.drag([8, 2], [24, 16]);
  await task.getByRole('button', { name: 'Check' }).click();
  await expect(task.getByText('6 of 8 rows right')).toBeVisible();
  const first = await saveHandIn(page, 'Ben Sample');
  // A wrong row stands on the live circuit at one press.
  await task.getByRole('button', { name: /row 7: wrong/ }).click();
  await expect
    .poll(async () => (await hand.parts()).slice(0, 3).map((p) => p.split(', ')[2]))
    .toEqual(['1', '1', '1']);
  await expect.poll(async () => (await hand.parts()).at(-1)).toBe('Warn, lamp, from Key, on');

  // Work in progress survives.
  const before = await hand.parts();
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(before);

  // So it does when the tab was closed and the link is opened again. Then it is put right.
  await page.goto('about:blank');
  await page.goto(link);
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(before);
  await remedyAndCheck(page, hand);
  const second = await saveHandIn(page, 'Ada Sample');
  await profile.close();
  return [first, second];
}

/** Begins again: everything is removed from the keyboard, and the right circuit drawn. */
async function remedyAndCheck(page: Page, hand: SheetHand): Promise<void> {
  const parts = page.getByRole('listbox', { name: /^Parts on/ });
  await tabTo(page, parts);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await hand.parts()).length).toBe(0);
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  await hand.type(4, 2, 'sw Key, Bars, Clear');
  await hand.type(14, 7, 'and 3');
  await hand.type(12, 18, 'not');
  await hand.type(19, 17, 'and');
  await hand.type(28, 7, 'lamp Drive');
  await hand.type(28, 17, 'lamp Warn');
  await hand.drag([6, 2], [11, 5]);
  await hand.drag([6, 7], [11, 7]);
  await hand.drag([6, 12], [11, 9]);
  await hand.drag([17, 7], [26, 7]);
  await hand.drag([7, 2], [16, 16]);
  await hand.drag([8, 7], [10, 18]);
  await hand.drag([14, 18], [16, 18]);
  await hand.drag([22, 17], [26, 17]);
  await page.getByRole('region', { name: 'Task' }).getByRole('button', { name: 'Check' }).click();
  await expect(page.getByText('All rows right.')).toBeVisible();
}

async function saveHandIn(page: Page, name: string): Promise<{ name: string; text: string }> {
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Your name').fill(name);
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the hand-in file' }).click();
  const download = await saving;
  await dialog.getByRole('button', { name: 'Close' }).click();
  return { name: download.suggestedFilename(), text: await textOf(download) };
}

async function mark(
  page: Page,
  exerciseFile: string,
  handIns: { name: string; text: string }[],
): Promise<void> {
  await page.goto('/marking');
  await expect(page.getByText('No hand-ins for “Warning lamp” yet')).toBeVisible();
  const other = handIns[0]!.text.replace(JSON.parse(exerciseFile).id, 'some-other-exercise');
  await drop(page, page.getByRole('main'), [
    ...handIns,
    { name: 'torn.handin.json', text: handIns[0]!.text.slice(0, 300) },
    { name: 'other.handin.json', text: other },
  ]);
  const rows = page.getByRole('row');
  await expect(rows).toHaveCount(3);
  await expect(rows.nth(1)).toContainText('Ada Sample');
  await expect(rows.nth(1)).toContainText('8 of 8');
  await expect(rows.nth(1)).toContainText('2 AND, 1 NOT');
  await expect(rows.nth(2)).toContainText('Ben Sample');
  await expect(rows.nth(2)).toContainText('6 of 8');
  const leftOut = page.getByRole('alert').filter({ hasText: 'left out' });
  await expect(leftOut).toContainText('2 files were left out');
  await expect(leftOut).toContainText('torn.handin.json: it is not JSON, or was cut short');
  await expect(leftOut).toContainText(/other\.handin\.json: its exercise, .* is not here/);

  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = await textOf(await saving);
  expect(csv.split('\r\n')[1]).toMatch(/^Ada Sample,8,8,"2 AND, 1 NOT",1,0,,/);
  expect(csv.split('\r\n')[2]).toMatch(/^Ben Sample,6,8,1 AND,0,0,,/);

  // Any of them opens as a live circuit, at the row that is wrong.
  await rows.nth(2).getByRole('button', { name: 'Open' }).click();
  await page.getByRole('button', { name: 'Show the first wrong row' }).click();
  await expect(page.getByRole('grid').locator('[data-live]')).toHaveAttribute('data-row', '6');
  await page.getByRole('button', { name: 'Back to marking' }).click();
  await page.reload();
  await expect(page.getByRole('row')).toHaveCount(3);
}
