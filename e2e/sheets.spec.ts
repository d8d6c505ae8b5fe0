import { expect, test } from '@playwright/test';
import { emptySheet, SheetHand } from './hand';

/*
 * What belongs to a sheet stays with it: switches, tried rows, the table that is filled in.
 */

const newSheet = async (hand: SheetHand, name: string) => {
  await hand.page.keyboard.type(`sheet ${name}`);
  await hand.page.keyboard.press('Enter');
  await expect(hand.page.getByRole('listbox', { name: `Parts on ${name}: 0` })).toBeAttached();
};

const draw = async (hand: SheetHand, statement: string) => {
  await hand.page.keyboard.type(statement);
  await hand.page.keyboard.press('Enter');
  await hand.page.keyboard.press('Escape');
};

const goTo = (hand: SheetHand, name: string) =>
  hand.page.getByRole('navigation', { name: 'Sheets' }).getByRole('button', { name, exact: true }).click();

test('switches and tried rows of one sheet are not those of another', async ({ page }) => {
  const hand = await emptySheet(page);
  await draw(hand, 'Drive = Key and Bars');
  await newSheet(hand, 'Two');
  await draw(hand, 'Bell = North or South');
  const table = page.getByRole('grid', { name: 'Truth table' });
  await table.locator('[data-row="2"]').click();
  await expect.poll(async () => (await hand.parts()).join()).toContain('North, switch, 1');
  await expect(page.getByText('1 of 4 tried').first()).toBeVisible();

  await goTo(hand, 'Sheet 1');
  await expect.poll(async () => (await hand.parts()).join()).toContain('Key, switch, 0');
  await expect(page.getByText('0 of 4 tried').first()).toBeVisible();
  await goTo(hand, 'Two');
  await expect.poll(async () => (await hand.parts()).join()).toContain('North, switch, 1');
  await expect(page.getByText('1 of 4 tried').first()).toBeVisible();
});

test('tidying and notes keep tried rows; another circuit says which it opens again', async ({ page }) => {
  const hand = await emptySheet(page);
  await draw(hand, 'Drive = Key and Bars');
  const table = page.getByRole('grid', { name: 'Truth table' });
  await table.locator('[data-row="2"]').click();
  await table.locator('[data-row="3"]').click();
  await draw(hand, 'truth');
  await expect.poll(async () => (await hand.parts()).length).toBe(5);
  await expect(page.getByText('2 of 4 tried').first()).toBeVisible();
  await draw(hand, 'Drive = Key or Bars');
  await expect(page.getByText('2 tried rows are open again')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('2 of 4 tried').first()).toBeVisible();
});

test('“Fill in” is of one sheet, and leaves the keyboard to the next', async ({ page }) => {
  const hand = await emptySheet(page);
  await draw(hand, 'Drive = Key and Bars');
  await expect(page.getByRole('grid', { name: 'Truth table' })).toBeVisible();
  await page.getByRole('button', { name: 'Fill in', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Inputs = outputs' })).toBeFocused();
  await page.getByRole('navigation', { name: 'Sheets' }).getByRole('button', { name: 'Sheet 1' }).click();
  await page.getByRole('menuitem', { name: 'Add a sheet' }).click();
  await expect(page.getByRole('listbox', { name: 'Parts on Sheet 2: 0' })).toBeAttached();
  await page.keyboard.type('sw Key');
  await page.keyboard.press('Enter');
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
});

test('in a filled table a press shows the row; the cell changes by a second press or by typing', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Fill in', exact: true }).click();
  await page.keyboard.press('Enter');
  const cell = page.locator('#plan-5-1');
  await expect(cell).toBeVisible();
  const letter = () => cell.evaluate((e) => e.firstElementChild!.lastChild!.textContent);
  const was = await letter();
  await cell.click();
  await expect(page.locator('[data-row="5"][data-live]')).toBeVisible();
  expect(await letter()).toBe(was);
  await cell.click();
  await expect.poll(letter).not.toBe(was);
  await page.keyboard.press('0');
  await expect.poll(letter).toBe('0');
});
