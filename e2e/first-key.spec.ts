import { expect, type Page, test } from '@playwright/test';
import { asFile, emptySheet, SheetHand } from './hand';

const ring = (page: Page) => page.getByRole('menu', { name: 'Parts to place' });
const line = (page: Page) => page.getByRole('combobox', { name: 'Name of a part' });

test('the first key on a fresh lesson works: Space opens the ring, letters name a part', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(ring(page)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(ring(page)).toHaveCount(0);
  await page.keyboard.type('nand 3');
  await expect(line(page)).toHaveValue('nand 3');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^NAND 1, three-input NAND/ })).toHaveCount(1);
});

test('the first right press on a fresh lesson may be over before the ring is there', async ({ page }) => {
  const hand = await emptySheet(page);
  await page.mouse.click(...(await hand.pixel(20, 20)), { button: 'right' });
  await expect(ring(page)).toBeVisible();
  await ring(page).getByRole('menuitem', { name: 'Inputs' }).hover();
  await ring(page).getByRole('menuitem', { name: 'Switch', exact: true }).click();
  await expect(page.getByRole('dialog', { name: 'Label of S1' })).toBeVisible();
});

test('what is typed while the lesson is still being opened reaches its sheet', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  await page.keyboard.type('sw Key, Bars');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^Key, switch/ })).toHaveCount(1);
  await expect(page.getByRole('option', { name: /^Bars, switch/ })).toHaveCount(1);
});

test('keys come back to the sheet after something else was pressed', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await hand.type(16, 4, 'lamp Drive');
  await hand.type(10, 10, 'and');
  const back = async () => {
    await page.keyboard.press('Space');
    await expect(ring(page)).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(ring(page)).toHaveCount(0);
  };
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => hand.parts()).toHaveLength(2);
  await back();
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect.poll(() => hand.parts()).toHaveLength(3);
  await back();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
  await expect(page.getByRole('region', { name: 'Formula' })).toBeVisible();
  await back();
  await page.getByRole('button', { name: 'Help: hands and keys' }).click();
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await back();
  // A field keeps the text that is typed into it.
  await page.getByRole('textbox', { name: 'Title of the lesson' }).click();
  await page.keyboard.type(' and more');
  await expect(line(page)).toHaveCount(0);
  await page.keyboard.press('Enter');
  await back();
  // Parts that are selected stay where they are while another face has the focus.
  await page.keyboard.press('Control+a');
  await page.getByRole('grid', { name: 'Truth table' }).locator('[data-row="1"]').click();
  await page.keyboard.press('Delete');
  await page.keyboard.type('or');
  await expect(line(page)).toHaveValue('or');
  await page.keyboard.press('Enter');
  await expect.poll(() => hand.parts()).toHaveLength(4);
});

test('a button that was reached with Tab is pressed by Space', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(6, 6, 'and');
  await page.keyboard.press('Escape');
  const undo = page.getByRole('button', { name: 'Undo' });
  for (let i = 0; i < 60; i++) {
    if (await undo.evaluate((e) => e === document.activeElement)) break;
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Space');
  await expect.poll(() => hand.parts()).toHaveLength(0);
  await expect(ring(page)).toHaveCount(0);
});

test('the first key works in an exercise and on a hand-in as well', async ({ page }) => {
  await page.goto('/exercise');
  await page.getByLabel('Exercise file').setInputFiles(asFile('warn.json', JSON.stringify(EXERCISE)));
  await new SheetHand(page).ready();
  await page.keyboard.press('Space');
  await expect(ring(page)).toBeVisible();
  await page.goto('/marking');
  await page.getByRole('button', { name: /Try it with three made-up/ }).click();
  await page.getByRole('button', { name: 'Open' }).first().click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+a');
  await expect(page.getByRole('option', { selected: true }).first()).toBeAttached();
});

const EXERCISE = {
  format: 'manege-exercise',
  version: 1,
  id: 'first-key-warn',
  title: 'Warn',
  task: 'Warn when the key is in.',
  wanted: { inputs: ['Key'], outputs: [{ name: 'Warn', rows: '01' }] },
  allowed: [],
  made: '2026-11-01T08:00:00.000Z',
};
