import { expect, test } from '@playwright/test';
import { SheetHand } from './hand';
import { crowded } from './room';
import { views } from './views';

test.describe.configure({ mode: 'parallel' });

// A page of 1280 x 800 at 200 %, and smaller screens.
for (const lesson of ['Drive interlock', 'Turnstile total', 'Ticket adder'])
  test(`${lesson} shows one face at a time at 640 x 400, and each has room`, async ({ page }) => {
    await page.setViewportSize({ width: 640, height: 400 });
    await page.goto('/');
    await page.getByRole('link', { name: `Open ${lesson}` }).click();
    await new SheetHand(page).ready();
    const tabs = page.getByRole('tablist', { name: 'Faces' }).getByRole('tab');
    await expect(tabs.first()).toHaveText('Drawing');
    for (const tab of await tabs.all()) {
      await tab.click();
      await expect(tab).toHaveAttribute('aria-selected', 'true');
      expect(await crowded(page)).toEqual([]);
    }
    // What gave way in the bar is behind its button.
    await page.getByRole('button', { name: 'More for the lesson' }).click();
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('tab', { name: 'Formula' })).toHaveAttribute('aria-selected', 'true');
    expect(await crowded(page)).toEqual([]);
  });

test('the shelf, the ring and “Hand out” have room at 640 x 400', async ({ page }) => {
  await page.setViewportSize({ width: 640, height: 400 });
  await views.shelf!(page);
  expect(await crowded(page)).toEqual([]);
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(await crowded(page)).toEqual([]);
});
