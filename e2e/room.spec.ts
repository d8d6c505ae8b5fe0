import { expect, test } from '@playwright/test';
import { SheetHand } from './hand';
import { crowded } from './room';
import { views } from './views';

test.describe.configure({ mode: 'parallel' });

// A page of 1280 x 800 at 200 % and at 400 %, and a telephone.
for (const [lesson, width, height] of [
  ['Drive interlock', 640, 400],
  ['Turnstile total', 640, 400],
  ['Ticket adder', 640, 400],
  ['Drive interlock', 390, 844],
  ['Turnstile total', 390, 844],
  ['Ticket adder', 320, 200],
] as const)
  test(`${lesson} shows one face at a time at ${width} x ${height}, and each has room`, async ({ page }) => {
    await page.setViewportSize({ width, height });
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

test('on a page that stands upright the faces lie below the drawing, and go beside it when it is turned', async ({
  page,
}) => {
  await page.setViewportSize({ width: 768, height: 1024 });
  await views['lesson, time']!(page);
  const box = async (name: string) => (await page.getByRole('region', { name, exact: true }).boundingBox())!;
  const drawing = async () => (await page.getByRole('application').boundingBox())!;
  expect((await box('Time')).y).toBeGreaterThan((await drawing()).y + (await drawing()).height);
  expect(await crowded(page)).toEqual([]);
  await page.setViewportSize({ width: 1024, height: 768 });
  await expect.poll(async () => (await box('Time')).x).toBeGreaterThan((await drawing()).x + 300);
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
