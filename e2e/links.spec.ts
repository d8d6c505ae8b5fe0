import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { arrayMultiplier } from '../src/core/testing/benchmark-circuits';
import { asFile, SheetHand } from './hand';

async function opened(page: Page, lesson: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${lesson}` }).click();
  await new SheetHand(page).ready();
}

/** The text that the dialog for links gives for one way of opening. */
async function linkOf(page: Page, way: RegExp, box = 'Link to the lesson'): Promise<string> {
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Give it as a link' }).click();
  await page.getByRole('radio', { name: way }).click();
  const text = await page.getByRole('textbox', { name: box }).inputValue();
  await page.getByRole('button', { name: 'Done' }).click();
  return text;
}

const moment = (page: Page) => page.getByRole('group', { name: 'The moment' });

test.describe('a lesson as a link', () => {
  let elsewhere: BrowserContext;
  test.beforeEach(async ({ browser }) => {
    elsewhere = await browser.newContext();
  });
  test.afterEach(() => elsewhere.close());

  test('that is too large says so, and is given away as a file', async ({ page }) => {
    await page.goto('/');
    await page
      .getByLabel('Lesson, exercise or Verilog files')
      .setInputFiles(asFile('fares.blif', arrayMultiplier(24)));
    await page.getByRole('link', { name: /^Open (fares|mul)/ }).click();
    await new SheetHand(page).ready();
    await page.getByRole('button', { name: 'Hand out' }).click();
    await page.getByRole('button', { name: 'Give it as a link' }).click();
    const said = page.getByRole('alert').filter({ hasText: 'too large for a link' });
    await expect(said).toContainText(/it would have [\d,]+ characters, and 60,000 are the most/);
    await expect(page.getByRole('textbox', { name: 'Link to the lesson' })).toHaveCount(0);
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      said.getByRole('button', { name: 'Save file' }).click(),
    ]);
    expect(file.suggestedFilename()).toMatch(/\.manege\.json$/);
  });

  test('opens elsewhere as a copy, as it was seen, and only once', async ({ page }) => {
    await opened(page, 'Drive interlock');
    await page.getByRole('button', { name: 'Next row' }).click();
    await page.getByRole('button', { name: 'Next row' }).click();
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: 'Map' }).click();
    await page.keyboard.press('Escape');
    const link = await linkOf(page, /A copy to work on/);

    const other = await elsewhere.newPage();
    await other.goto(link);
    await new SheetHand(other).ready();
    await expect(moment(other)).toContainText('Row 2');
    await expect(other.getByRole('region', { name: 'Map' })).toBeVisible();
    // Another tab, and the shelf: one copy.
    const third = await elsewhere.newPage();
    await third.goto(link);
    await new SheetHand(third).ready();
    await third.goto('/');
    // The demo that every shelf has, and the copy.
    await expect(third.getByRole('link', { name: 'Open Drive interlock' })).toHaveCount(2);

    // A copy that was changed is not lost by opening the link again.
    await other.getByRole('textbox', { name: 'Title of the lesson' }).fill('Mine');
    await other.keyboard.press('Enter');
    await new SheetHand(other).saved();
    await third.goto(link);
    await expect(third.getByRole('heading', { name: /have opened “Drive interlock” before/ })).toBeVisible();
    await third.getByRole('button', { name: 'Open the link anew' }).click();
    await new SheetHand(third).ready();
    await expect(third.getByRole('textbox', { name: 'Title of the lesson' })).toHaveValue('Drive interlock');
    await third.goto('/');
    await expect(third.getByRole('link', { name: 'Open Mine' })).toHaveCount(1);
  });

  test('goes on with a run where it stood', async ({ page }) => {
    await opened(page, 'Lamp chase');
    for (let half = 0; half < 5; half++)
      await page.getByRole('button', { name: 'Forward half a period' }).click();
    const time = page.getByRole('group', { name: 'The moment' }).getByText(/^[\d.]+ [nmµ]?s$/);
    const told = (await time.textContent())!;
    expect(told).not.toBe('0 s');
    const link = await linkOf(page, /Only to look at/);
    const other = await elsewhere.newPage();
    await other.goto(link);
    await new SheetHand(other).ready();
    await expect(moment(other)).toContainText(told);
    await expect(other.getByText('To be looked at')).toBeVisible();
    // Nothing of it stays.
    await other.goto('/');
    await expect(other.getByRole('link', { name: 'Open Lamp chase' })).toHaveCount(1);
  });

  test('that is damaged or empty says so', async ({ page }) => {
    await opened(page, 'Drive interlock');
    const link = await linkOf(page, /A copy to work on/);
    await page.goto(link.slice(0, -30));
    await expect(page.getByRole('alert').filter({ hasText: /damaged or was cut short/ })).toBeVisible();
    await page.goto('/open');
    await expect(page.getByRole('alert').filter({ hasText: /holds no lesson/ })).toBeVisible();
  });

  test('runs in a page of another site, and the lesson page does not', async ({ page, baseURL }) => {
    await opened(page, 'Drive interlock');
    const html = await linkOf(page, /In a page of a course/, 'HTML for the page');
    expect(html).toContain('title="Drive interlock"');
    const course = createServer((request, answer) => {
      answer.setHeader('content-type', 'text/html');
      answer.end(
        request.url === '/refused'
          ? `<iframe src="${baseURL}/lesson?id=demo-drive-interlock" width="900" height="500"></iframe>`
          : `<!doctype html><h1>Week 3</h1>${html}`,
      );
    });
    await new Promise<void>((done) => course.listen(0, done));
    try {
      const site = `http://127.0.0.1:${(course.address() as AddressInfo).port}`;
      const other = await elsewhere.newPage();
      await other.goto(site);
      const frame = other.frameLocator('iframe');
      await frame.getByRole('application').waitFor();
      await frame.getByRole('button', { name: 'Next row' }).click();
      await expect(frame.getByRole('group', { name: 'The moment' })).toContainText('Row 1');
      await expect(frame.getByRole('button', { name: 'Hand out' })).toHaveCount(0);
      await expect(frame.getByRole('link', { name: 'Drive interlock' })).toHaveAttribute(
        'href',
        /^\/look#1\./,
      );
      const refused = other.waitForEvent('console', (message) => /frame-ancestors/.test(message.text()));
      await other.goto(`${site}/refused`);
      await refused;
    } finally {
      course.close();
    }
  });
});
