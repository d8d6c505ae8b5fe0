import { expect, test } from '@playwright/test';
import { emptySheet, tabTo } from './hand';
import { slider, time } from './time-hand';

test('a sheet becomes a block, is placed by its name, gone into, and followed when it changes', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(12, 12, 'sw Key, Bars');
  await hand.type(24, 14, 'and');
  await hand.type(36, 14, 'lamp Go');
  await hand.drag([14, 12], [21, 13]);
  await hand.drag([14, 17], [21, 15]);
  await hand.drag([27, 14], [34, 14]);
  await expect(page.getByText('all wired')).toBeVisible();

  const tab = page.getByRole('button', { name: /^Sheet 1/ });
  await tab.click();
  await page.getByRole('menuitem', { name: 'Make it usable as a block' }).click();
  await expect(page.getByText(/can now be placed as a block/)).toBeVisible();
  await expect.poll(async () => (await hand.parts())[0]).toMatch(/^Key, port into the sheet/);
  await tab.click();
  await page.getByRole('menuitem', { name: 'Add a sheet' }).click();

  // By its name, and in the ring among the blocks.
  await hand.ready();
  await hand.type(24, 14, 'sheet 1');
  await expect
    .poll(async () => (await hand.parts()).join())
    .toMatch(/block Sheet 1 with 2 inputs and 1 output/);
  await hand.point(40, 30);
  await page.keyboard.press('Space');
  await expect(page.getByRole('menu', { name: 'Parts to place' })).toContainText('Blocks');
  await page.keyboard.press('Escape');

  // A double click leads into it; a port renamed there has the new name outside.
  await page.mouse.dblclick(...(await hand.pixel(24, 14)));
  await expect(page.getByRole('listbox', { name: /Parts on Sheet 1/ })).toBeAttached();
  const way = page.getByRole('navigation', { name: 'Inside' });
  await expect(way).toHaveText('Sheet 2›Sheet 1');
  await way.getByRole('button', { name: 'Sheet 2' }).click();
  await expect(page.getByRole('listbox', { name: /Parts on Sheet 2/ })).toBeAttached();
});

test('what is selected becomes a block, and one step takes it back', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('article').filter({ hasText: 'Drive interlock' }).getByRole('link').first().click();
  const sheet = page.getByRole('application');
  await sheet.waitFor();
  const parts = page.getByRole('listbox', { name: /^Parts on/ });
  await tabTo(page, parts);
  // In reading order: three switches, the inverter, the large gate, the small one.
  for (let i = 0; i < 6; i++) await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-part="and2"]')).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('button', { name: /^Drive interlock/ }).click();
  await page.getByRole('menuitem', { name: 'Make a block of the selection' }).click();
  await expect(page.getByText(/“Block 1” has a sheet of its own now/)).toBeVisible();
  await expect(
    parts.getByRole('option', { name: /block Block 1 with 2 inputs and 1 output/ }),
  ).toBeAttached();
  const warn = async (row: number) =>
    (await page.locator(`[data-row="${row}"]`).getByRole('gridcell').allTextContents()).at(-1);
  await expect.poll(() => warn(4)).toBe('1');
  await expect.poll(() => warn(6)).toBe('0');
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(parts.getByRole('option', { name: /block/ })).toHaveCount(0);
});

test('the parts of a block that is gone into are told at once, however fast its sheet runs', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(12, 12, 'Go = Key and Bars');
  await page.keyboard.press('Escape');
  const tab = page.getByRole('button', { name: /^Sheet 1/ });
  await tab.click();
  await page.getByRole('menuitem', { name: 'Make it usable as a block' }).click();
  await tab.click();
  await page.getByRole('menuitem', { name: 'Add a sheet' }).click();
  await hand.ready();
  await hand.type(24, 14, 'sheet 1');
  await hand.type(40, 30, 'clock 1 kHz Beat');
  await expect.poll(async () => (await hand.parts()).length).toBe(2);
  await time(page).getByRole('textbox', { name: 'Run to a time' }).fill('10 h');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.mouse.dblclick(...(await hand.pixel(24, 14)));
  await expect(page.getByRole('listbox', { name: /Parts on Sheet 1/ })).toBeAttached();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(slider(page)).not.toHaveAttribute('aria-valuetext', '10 h');
});
