import { expect, test } from '@playwright/test';
import { handIn, SheetHand } from './hand';

test.use({ serviceWorkers: 'allow' });

test('a tab that is closed right after an edit loses nothing', async ({ page, context }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const address = page.url();
  await hand.type(4, 2, 'sw Key');
  await hand.saved();
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(address);
  const there = new SheetHand(again);
  await there.ready();
  await expect.poll(() => there.parts()).toEqual(['Key, switch, 0']);
});

test('switches and tried rows are as they were, however soon the page is loaded again', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Next row' }).click();
  await page.reload();
  await new SheetHand(page).ready();
  await expect(page.getByRole('group', { name: 'The moment' })).toContainText('Row 3');
  await expect(page.getByText('3 of 8 tried').first()).toBeVisible();
});

test('a second tab looks on, and can take over', async ({ page, context }) => {
  await page.goto('/lesson?id=demo-drive-interlock');
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByText('This lesson is being edited in another tab.')).toBeVisible();
  const hand = new SheetHand(second);
  await hand.ready();
  await second.keyboard.press('Control+a');
  await second.keyboard.press('Delete');
  await expect(second.getByText('This lesson cannot be changed here.')).toBeVisible();
  await expect.poll(async () => (await hand.parts()).length).toBe(8);
  await second.getByRole('button', { name: 'Edit here instead' }).click();
  await expect(page.getByText('This lesson is being edited in another tab.')).toBeVisible();
  await new SheetHand(second).ready();
  await expect(second.getByText('This lesson is being edited in another tab.')).toHaveCount(0);
});

test('a tab that looks on follows what the other does, and goes on when that is closed', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const second = await context.newPage();
  await second.goto(page.url());
  const there = new SheetHand(second);
  await there.ready();
  await hand.type(4, 2, 'sw Key');
  await expect.poll(() => there.parts()).toEqual(['Key, switch, 0']);
  await page.close();
  await expect(second.getByText('The other tab has left this lesson: it can be edited here.')).toBeVisible();
  await there.type(4, 8, 'sw Bars');
  await expect.poll(() => there.parts()).toEqual(['Key, switch, 0', 'Bars, switch, 0']);
});

test('a lesson that is deleted in another tab says so, and can be brought back', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(4, 2, 'sw Key');
  await hand.saved();
  const shelf = await context.newPage();
  await shelf.goto('/');
  await shelf.getByRole('button', { name: 'More about New lesson' }).click();
  await shelf.getByRole('menuitem', { name: 'Rename' }).click();
  await shelf.keyboard.type('Other');
  await shelf.keyboard.press('Enter');
  await expect(shelf.getByText('This lesson is open in another tab. Rename it there')).toBeVisible();
  await shelf.getByRole('button', { name: 'More about New lesson' }).click();
  await shelf.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByText('This lesson was deleted in another tab.')).toBeVisible();
  await hand.type(4, 8, 'sw Bars');
  await expect(page.getByRole('button', { name: 'Not saved' })).toBeVisible();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByText('This lesson was deleted in another tab.')).toHaveCount(0);
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0', 'Bars, switch, 0']);
});

test('a browser that was here once works with the network cut: every page, every dialog, an exercise @secure', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(7);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForFunction(
    async () => (await caches.keys()).length > 0 && !!(await caches.match('/marking')),
  );
  await context.setOffline(true);
  await page.goto('/marking');
  await page.getByRole('button', { name: 'Try it with three made-up hand-ins' }).click();
  await expect(page.getByRole('row')).toHaveCount(4);
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.reload();
  await hand.ready();
  await hand.type(30, 20, 'sw Bell');
  await expect.poll(() => hand.parts()).toContain('Bell, switch, 0');
  await page.getByRole('button', { name: 'Help: hands and keys' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  for (const face of ['Formula', 'Map', 'Time', 'States', 'Text']) {
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: new RegExp(`^${face}`) }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: face, exact: true })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Fill in' }).click();
  await expect(page.getByRole('button', { name: 'Fill in' })).toHaveCount(0);
  await page.goto('/lesson?id=demo-drive-interlock');
  await hand.ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  const link = await page.getByLabel('Link to the exercise').inputValue();
  await page.goto('about:blank');
  await page.goto(link);
  await hand.ready();
  await page.getByRole('region', { name: 'Task' }).getByRole('button', { name: 'Check' }).click();
  expect(await handIn(page, 'Ada Sample')).toContain('Ada Sample');
  expect(await page.evaluate(() => navigator.onLine)).toBe(false);
});

test('pages carry a strict policy, run under it without complaint, and send nothing anywhere', async ({
  page,
  baseURL,
}) => {
  const complaints: string[] = [];
  const requests: string[] = [];
  // On plain HTTP browsers say that they leave out this header.
  const isUseless = (text: string) =>
    text.startsWith('The Cross-Origin-Opener-Policy header has been ignored');
  page.on('console', (m) => m.type() === 'error' && !isUseless(m.text()) && complaints.push(m.text()));
  page.on('pageerror', (e) => complaints.push(e.message));
  page.on('request', (r) => requests.push(`${r.method()} ${new URL(r.url()).origin}`));
  for (const path of ['/', '/marking', '/exercise', '/lesson?id=demo-lamp-chase']) {
    const answer = (await page.goto(path))!;
    const policy = answer.headers()['content-security-policy']!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic' 'wasm-unsafe-eval'/);
    expect(policy).not.toContain("'unsafe-eval'");
    expect(policy).not.toMatch(/script-src[^;]*'unsafe-inline'/);
    await page.waitForLoadState('networkidle');
  }
  expect(complaints).toEqual([]);
  expect(new Set(requests.filter((r) => !r.startsWith('GET blob')))).toEqual(
    new Set([`GET ${new URL(baseURL!).origin}`]),
  );
});
