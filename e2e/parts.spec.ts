import { expect, test } from '@playwright/test';
import { emptySheet, SheetHand, tabTo } from './hand';

test('a bank of switches, a ROM with words typed in, and a number work together', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(12, 12, 'sw 2 Seat');
  await hand.type(26, 12, 'rom 2x8');
  // The name stands in front, as with a formula. A number outside the limits is told, and the text stays in the line.
  await hand.point(42, 12);
  await page.keyboard.type('Price = number 99');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Number does not understand “99”: bits from 1 to 32.')).toBeVisible();
  for (let i = 0; i < 2; i++) await page.keyboard.press('Backspace');
  await page.keyboard.type('8');
  await expect(page.getByText(/number.*, Price$/).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await hand.drag([14, 12], [22, 12]);
  await hand.drag([30, 12], [39, 12]);
  await expect(page.getByText('all wired')).toBeVisible();

  // The words of the memory, one of them wrong at first.
  await hand.point(26, 12);
  await page.mouse.dblclick(...(await hand.pixel(26, 12)));
  const words = page.getByLabel('Words');
  await words.fill('0x10 32 many');
  await expect(page.getByRole('alert').filter({ hasText: '“many” is not a whole number' })).toBeVisible();
  await words.fill('0x10 32 0xFE');
  await page.keyboard.press('Escape');

  await expect(page.getByRole('row', { name: /^0/ }).first()).toBeVisible();
  const cells = async (row: number) =>
    (await page.locator(`[data-row="${row}"]`).getByRole('gridcell').allTextContents()).slice(1).join('');
  await expect.poll(() => cells(0)).toBe('016');
  await expect.poll(() => cells(1)).toBe('132');
  await expect.poll(() => cells(2)).toBe('2254');
  // The upper lever of the bank is its highest bit.
  await page.mouse.click(...(await hand.pixel(12, 11)));
  await expect(page.locator('[data-row="2"][data-live]')).toBeVisible();
  await expect(page.getByRole('option', { name: /^Price, number .* shows FE$/ })).toBeAttached();
});

test('what is between the faces is moved by the pointer and by the arrow keys', async ({ page }) => {
  await emptySheet(page);
  const divider = page.getByRole('separator', { name: 'Resize' });
  const table = page.getByRole('region', { name: 'Truth table' });
  const width = async () => (await table.boundingBox())!.width;
  const before = await width();
  const box = (await divider.boundingBox())!;
  await page.mouse.move(box.x + 2, box.y + 200);
  await page.mouse.down();
  await page.mouse.move(box.x - 118, box.y + 200, { steps: 4 });
  await page.mouse.up();
  await expect.poll(width).toBeGreaterThan(before + 100);
  await tabTo(page, divider);
  const wide = await width();
  await page.keyboard.press('ArrowRight');
  await expect.poll(width).toBeLessThan(wide - 20);
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowRight');
  await expect.poll(() => width()).toBeGreaterThan(120);
  const narrow = Math.round(await width());
  await expect(divider).toHaveAttribute('aria-valuenow', '85');
  // The sizes stay for the next visit.
  await new SheetHand(page).saved();
  await page.reload();
  await expect.poll(async () => Math.round(await width())).toBe(narrow);
});

test('packages are typed by number, one after the other; a number that is none stays in the line', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(4, 8, '7400');
  await hand.type(30, 8, '4013.a');
  const parts = page.getByRole('listbox', { name: /^Parts on/ }).getByRole('option');
  await expect(parts).toHaveCount(2);
  await expect(parts.filter({ hasText: '74HC00: four NAND gates' })).toHaveCount(1);
  await expect(parts.filter({ hasText: 'unit a of 4013' })).toHaveCount(1);
  await hand.point(44, 24);
  await page.keyboard.type('7499');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveValue('7499');
  await expect(parts).toHaveCount(2);
});
