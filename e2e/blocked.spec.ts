import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type BrowserContext, chromium, expect, test } from '@playwright/test';
import { handIn, SheetHand, textOf } from './hand';

const BLOCK_SITE_DATA = { profile: { default_content_setting_values: { cookies: 2 } } };

let context: BrowserContext;

/** A browser whose owner has blocked the data of all pages: no store, no memory. */
test.beforeEach(async ({ launchOptions, baseURL }, info) => {
  const profile = info.outputPath('profile');
  mkdirSync(join(profile, 'Default'), { recursive: true });
  writeFileSync(join(profile, 'Default', 'Preferences'), JSON.stringify(BLOCK_SITE_DATA));
  context = await chromium.launchPersistentContext(profile, {
    ...launchOptions,
    baseURL: baseURL!,
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
  });
});
test.afterEach(() => context.close());

test('a browser that keeps no data says so, and one can draw, go about, and save a file', async () => {
  const page = await context.newPage();
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto('/');
  await expect(page.getByText('This browser keeps no data for this page')).toBeVisible();
  await expect(page.getByRole('article')).toHaveCount(7);
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await expect(page.getByText('This browser keeps no data for this page')).toBeVisible();
  await hand.type(4, 2, 'sw Key');
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
  await expect(page.getByText('not kept', { exact: true })).toBeVisible();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save file' }).click();
  expect(await textOf(await saving)).toContain('"Key"');
  await page.getByRole('link', { name: 'All lessons' }).click();
  await page.getByRole('link', { name: 'Open New lesson' }).click();
  await hand.ready();
  await expect.poll(() => hand.parts()).toEqual(['Key, switch, 0']);
  // Leaving for good asks first.
  page.once('dialog', (dialog) => void dialog.accept());
  const asked = page.waitForEvent('dialog');
  await page.goto('/marking');
  expect((await asked).type()).toBe('beforeunload');
  await page.getByRole('button', { name: 'Try it with three made-up hand-ins' }).click();
  await expect(page.getByRole('row')).toHaveCount(4);
  expect(errors).toEqual([]);
});

test('an exercise can be done and handed in where nothing is kept', async () => {
  const page = await context.newPage();
  await page.goto('/lesson?id=demo-drive-interlock');
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  const link = await page.getByLabel('Link to the exercise').inputValue();
  await page.close();
  const students = await context.newPage();
  await students.goto(link);
  const theirs = new SheetHand(students);
  await theirs.ready();
  await expect(students.getByText('This browser keeps no data for this page')).toBeVisible();
  expect(await handIn(students, 'Ada Sample')).toContain('Ada Sample');
});
