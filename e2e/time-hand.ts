import type { Locator, Page } from '@playwright/test';
import { SheetHand, tabTo } from './hand';

/*
 * What stories about clocks and waveforms do on the time face.
 */

export const time = (page: Page) => page.getByRole('region', { name: 'Time' });
export const slider = (page: Page) => page.getByRole('slider', { name: 'Moment on the timing diagram' });

export async function open(page: Page, lesson: string): Promise<SheetHand> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${lesson}` }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  return hand;
}

/** On by half periods from the keyboard. */
export async function halves(page: Page, count: number): Promise<void> {
  await tabTo(page, slider(page));
  for (let i = 0; i < count; i++) await page.keyboard.press('ArrowRight');
}

/** Presses a lane's name; the first lane is number 0. */
export async function lane(page: Page, nth: number, more = false): Promise<void> {
  const box = (await slider(page).boundingBox())!;
  const lanes = Number(await slider(page).getAttribute('data-lanes'));
  const height = Math.min(72, Math.max(18, (box.height - 34 - 8) / lanes));
  if (more) await page.keyboard.down('Shift');
  await page.mouse.click(box.x + 60, box.y + 34 + height * (nth + 0.5));
  if (more) await page.keyboard.up('Shift');
}

/** Opens the menu at the lane that was chosen last. */
export async function laneMenu(page: Page): Promise<Locator> {
  await time(page)
    .getByRole('button', { name: /^What can be done with/ })
    .click();
  return page.getByRole('dialog').filter({ has: page.getByRole('button', { name: 'Hide' }) });
}
