import { expect, test } from '@playwright/test';
import { SheetHand } from './hand';

/*
 * A server in a school's network, over plain HTTP by its name: browsers leave out what they keep for secure contexts.
 */

test('what is copied reaches the clipboard, and what is pasted comes from it @school', async ({ page }) => {
  await page.goto('/');
  expect(await page.evaluate(() => [isSecureContext, 'clipboard' in navigator])).toEqual([false, false]);
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(4, 2, 'sw Key');
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: /^Text/ }).click();
  await page.keyboard.press('Escape');
  const text = page.getByRole('region', { name: 'Text' });
  await text.getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText(/lines are on the clipboard/)).toBeVisible();
  await hand.click(30, 20);
  await page.keyboard.press('Control+v');
  await expect(page.getByText('The clipboard holds no circuit of Manege')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await expect.poll(() => hand.parts()).toHaveLength(2);
});

test('the list of commands says how to paste where it cannot @school', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('paste');
  await page.keyboard.press('Enter');
  await expect(page.getByText('press Ctrl V instead')).toBeVisible();
});

test('where a browser takes no pictures on its clipboard, it says so @school', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('figure for');
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').getByRole('button', { name: 'Copy' }).click();
  await expect(page.getByText('save it instead')).toBeVisible();
});
