import { expect, type Page, test } from '@playwright/test';
import { face } from './face-hand';
import { emptySheet, SheetHand, tabTo } from './hand';

const undo = (page: Page) => page.getByRole('banner').getByRole('button', { name: 'Undo' });
const notice = (page: Page) =>
  page.getByRole('status').filter({ has: page.getByRole('button', { name: 'Undo' }) });

test('the tooltip of Undo names the step, and typing into one field is one step', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key, Bars');
  await expect(undo(page)).toHaveAccessibleDescription('Undo: place 2 × Switch (Ctrl Z)');
  await hand.type(14, 4, 'and');
  await page.keyboard.press('F2');
  const settings = page.getByRole('dialog', { name: /^Settings of AND 1/ });
  await settings.getByRole('spinbutton', { name: 'Inputs' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('12');
  await page.keyboard.press('Escape');
  await expect.poll(() => hand.parts()).toContainEqual(expect.stringContaining('AND 1, 12-input AND'));
  await undo(page).click();
  await expect.poll(() => hand.parts()).toContainEqual(expect.stringContaining('AND 1, two-input AND'));
  await undo(page).click();
  await expect.poll(() => hand.parts()).toHaveLength(2);
  await expect(page.getByRole('button', { name: 'Redo' })).toHaveAccessibleDescription(/^Redo: place AND/);
});

test('the Undo of a message takes back its own step, and goes with the next', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key, Bars');
  await hand.type(14, 4, 'lamp Drive');
  await page.getByRole('button', { name: 'Sheet 1' }).click();
  await page.getByRole('menuitem', { name: 'Tidy the whole sheet' }).click();
  await expect(notice(page)).toContainText('The sheet is tidied.');
  await undo(page).click();
  // Pressed again by habit, it would have taken the lamp away.
  await expect(notice(page)).toHaveCount(0);
  await expect.poll(() => hand.parts()).toHaveLength(3);
  await page.getByRole('button', { name: 'Sheet 1' }).click();
  await page.getByRole('menuitem', { name: 'Tidy the whole sheet' }).click();
  await notice(page).getByRole('button', { name: 'Undo' }).click();
  await expect(notice(page)).toHaveCount(0);
  await expect.poll(() => hand.parts()).toHaveLength(3);
});

test('what is done while the network is gone waits for it, is told, and is done then', async ({ page }) => {
  await page.goto('/');
  // By keyboard, so that no pointer rests on the sheet and has its tools fetched.
  await tabTo(page, page.getByRole('button', { name: /New lesson/ }));
  await page.keyboard.press('Enter');
  const hand = new SheetHand(page);
  await hand.ready();
  // Parts of the page that have not been fetched by now cannot be fetched.
  await page.route('**/_next/static/**', (route) => route.abort());
  await page.keyboard.type('sw Key');
  await page.keyboard.press('Enter');
  const alert = page.getByRole('alert').filter({ hasText: /Could not fetch .*the tools of the drawing/ });
  await expect(alert).toBeVisible();
  await page.unroute('**/_next/static/**');
  // The pointer on its way to the button comes over the sheet, and may have the tools fetched before it is there.
  const pressed = alert.getByRole('button', { name: 'Try again' }).click();
  await Promise.race([pressed, alert.waitFor({ state: 'detached' })]);
  pressed.catch(() => {});
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
  await expect(alert).toHaveCount(0);
});

test('a page that is too old for its server reloads once, and keeps what was done', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await hand.saved();
  // The server has another build: none of this page's files is there any more.
  await page.route('**/offline-files', (route) => route.fulfill({ json: ['/_next/static/chunks/new.js'] }));
  await page.route('**/_next/static/**', (route) => route.abort());
  const reloaded = page.waitForEvent('framenavigated');
  await page.getByRole('button', { name: 'Help: hands and keys' }).click();
  await reloaded;
  await page.unrouteAll();
  await page.reload();
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
});

test('a page that is too old reloads on the first key as well, and nothing typed meanwhile is lost', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await page.reload();
  await hand.ready();
  let isOld = true;
  await page.route('**/offline-files', (route) => route.fulfill({ json: ['/_next/static/chunks/new.js'] }));
  await page.route('**/_next/static/**', (route) =>
    isOld ? route.fulfill({ status: 404 }) : route.continue(),
  );
  page.on('request', (request) => {
    if (request.isNavigationRequest()) isOld = false;
  });
  await page.keyboard.type('sw Key');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: 'Key, switch, 0' })).toBeAttached();
});

test('background work whose script does not come is told, and is done once it comes', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Y = A B C D E F G');
  // Formulas of so many inputs are found by other work in the background.
  await face(page, 'Formula');
  const formulas = page.getByRole('region', { name: 'Formula' });
  await expect(formulas.getByRole('textbox', { name: 'Formula of another output' })).toBeVisible();
  const table = page.getByRole('region', { name: 'Truth table' });
  await page.route('**/_next/static/**', (route) => route.fulfill({ status: 404 }));
  await hand.type(4, 20, 'Z = Y H I J K L M N O');
  const alert = page.getByRole('alert').filter({ hasText: /Could not fetch .*the background work/ });
  await expect(alert).toBeVisible();
  await page.unrouteAll();
  await alert.getByRole('button', { name: 'Try again' }).click();
  await expect(table.getByText('of 32768 tried')).toBeVisible();
  await expect(table.getByRole('grid', { name: 'Truth table' })).toBeVisible();
  await expect(alert).toHaveCount(0);
});
