import { readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { asFile, drop, SheetHand, textOf } from './hand';

const interlock = readFileSync('demo/drive-interlock.manege.json', 'utf8');

test('lessons are renamed, duplicated, deleted with a way back, and exported', async ({ page }) => {
  await page.goto('/');
  const more = (title: string) => page.getByRole('button', { name: `More about ${title}`, exact: true });
  await more('Drive interlock').click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.keyboard.type('Interlock, first try');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Interlock, first try' })).toBeVisible();

  await more('Interlock, first try').click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('heading', { name: 'Interlock, first try copy' })).toBeVisible();

  await more('Lamp chase').click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('heading', { name: 'Lamp chase' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: 'Lamp chase' })).toBeVisible();

  await more('Interlock, first try').click();
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export as a file' }).click();
  const text = await textOf(await saving);
  expect(text).toBe(interlock.replace('"title": "Drive interlock"', '"title": "Interlock, first try"'));
  await page.reload();
  await expect(page.getByRole('article')).toHaveCount(8);
});

test('lessons come in by the button and by dropping', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(7);
  await page
    .getByLabel('Lesson, exercise or Verilog files')
    .setInputFiles(asFile('a.manege.json', interlock.replace('"Drive interlock",', '"By button",')));
  await expect(page.getByRole('heading', { name: 'By button' })).toBeVisible();
  await drop(page, page.getByRole('main'), [
    { name: 'b.manege.json', text: interlock.replace('"Drive interlock",', '"Dropped",') },
  ]);
  await expect(page.getByRole('heading', { name: 'Dropped' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Drive interlock' })).toBeVisible();
});

test('files that are no lessons are named with the reason, and nothing is lost', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(7);
  const said = page.getByRole('alert').filter({ hasText: 'left out' });
  const bad: [string, string, RegExp][] = [
    ['torn.manege.json', interlock.slice(0, 500), /not JSON, or was cut short/],
    ['foreign.json', '{"hello":"there"}', /not a file of Manege/],
    ['later.manege.json', interlock.replace(/"version": \d+/, '"version": 12'), /version 12/],
    ['deep.manege.json', `${'['.repeat(5000)}${']'.repeat(5000)}`, /nested deeper than 40/],
  ];
  const large = test.info().outputPath('large.manege.json');
  writeFileSync(large, Buffer.alloc(50 * 1024 * 1024, 32));
  await page.getByLabel('Lesson, exercise or Verilog files').setInputFiles(large);
  await expect(said).toContainText(
    'large.manege.json was left out: it has 50.0 MB; files up to 20.0 MB are opened.',
  );
  await said.getByRole('button', { name: 'Close this message' }).click();
  for (const [name, text, reason] of bad) {
    await page.getByLabel('Lesson, exercise or Verilog files').setInputFiles(asFile(name, text));
    await expect(said).toContainText(name);
    await expect(said).toContainText(reason);
    await said.getByRole('button', { name: 'Close this message' }).click();
  }
  await expect(page.getByRole('article')).toHaveCount(7);
  await page.goto('/lesson?id=not-here');
  await expect(page.getByRole('heading', { name: 'This lesson is not in this browser' })).toBeVisible();
});

test('a broken link or exercise file says so, and work that was begun stays', async ({ page }) => {
  await page.goto('/exercise#AAAA-broken');
  await expect(page.getByText(/damaged or was cut short/)).toBeVisible();
  for (const [name, text, reason] of [
    ['lesson.json', interlock, /it is a lesson, and an exercise, a hand-in or marked work is needed/],
    ['torn.exercise.json', '{"format":"manege-exercise"', /not JSON/],
    ['later.exercise.json', '{"format":"manege-exercise","version":9}', /version 9/],
  ] as const) {
    await page.getByLabel('Exercise file').setInputFiles(asFile(name, text));
    await expect(page.getByRole('alert').filter({ hasText: name })).toContainText(reason);
  }
  await page.getByLabel('Exercise file').setInputFiles('demo/exercise/warning-lamp.exercise.json');
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Place the inputs and outputs' }).click();
  await expect.poll(async () => (await hand.parts()).length).toBe(5);
  await page.goto('/');
  await expect(page.getByText('your work at an exercise')).toBeVisible();
});

test('the sample hand-ins are marked: one right, one wrong in a row, one with a forbidden part', async ({
  page,
}) => {
  await page.goto('/marking');
  await page.getByRole('button', { name: 'Try it with three made-up hand-ins' }).click();
  const rows = page.getByRole('row');
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(1)).toContainText('8 of 8');
  await expect(rows.nth(2)).toContainText('7 of 8');
  await expect(rows.nth(3)).toContainText('NOR is not allowed');
  await page.getByRole('button', { name: 'Remove the hand-in of Ben Sample' }).click();
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rows).toHaveCount(4);
});

test('the address of a demo lesson opens it in a browser that has never seen the shelf', async ({ page }) => {
  await page.goto('/lesson?id=demo-drive-interlock');
  const hand = new SheetHand(page);
  await hand.ready();
  await expect.poll(async () => (await hand.parts()).length).toBe(8);
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Drive interlock' })).toBeVisible();
  await page.goto('/lesson?id=nowhere');
  await expect(page.getByText('This lesson is not in this browser')).toBeVisible();
});

test('a hand-in that is dropped twice is one row; a second one of a student stands in the same row', async ({
  page,
}) => {
  await page.goto('/marking');
  const read = (name: string) => readFileSync(`demo/${name}`, 'utf8');
  const exercise = asFile('exercise.json', read('exercise/warning-lamp.exercise.json'));
  const ada = asFile('ada.json', read('exercise/ada.handin.json'));
  const files = page.getByLabel('Hand-in files');
  await files.setInputFiles([exercise, ada]);
  const rows = page.getByRole('row');
  await expect(rows).toHaveCount(2);
  await files.setInputFiles([ada]);
  await expect(page.getByText('1 hand-in was here already.')).toBeVisible();
  await expect(rows).toHaveCount(2);
  const later = JSON.parse(read('exercise/ada.handin.json'));
  later.handedIn = '2030-01-01T10:00:00.000Z';
  await files.setInputFiles([asFile('again.json', JSON.stringify(later))]);
  await expect(page.getByText('1 hand-in taken in.')).toBeVisible();
  await expect(rows).toHaveCount(2);
  const earlier = page.getByRole('list', { name: 'Earlier hand-ins of Ada Sample' });
  await expect(earlier.getByRole('button', { name: /^before: ✓ 8 of 8/ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove the hand-in of Ada Sample' }).click();
  await expect(rows).toHaveCount(0);
});

test('everything is saved as one file, and brought back into a fresh browser', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto('/');
  await expect(page.getByRole('article')).toHaveCount(7);
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(4, 2, 'sw Key');
  await hand.saved();
  await page.getByRole('link', { name: 'All lessons' }).click();
  await expect(page.getByRole('article')).toHaveCount(8);
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save everything' }).click();
  const file = await (await saving).path();
  const other = await (await browser.newContext({ baseURL: baseURL!, serviceWorkers: 'block' })).newPage();
  await other.goto('/');
  await expect(other.getByRole('article')).toHaveCount(7);
  const bytes = readFileSync(file);
  await other.getByLabel('Lesson, exercise or Verilog files').setInputFiles({
    name: 'manege.zip',
    mimeType: 'application/zip',
    buffer: bytes,
  });
  await expect(
    other.getByText('1 lesson, 0 exercises and 0 hand-ins brought back; 7 were here already.'),
  ).toBeVisible();
  await other.getByRole('link', { name: 'Open New lesson' }).click();
  await expect.poll(() => new SheetHand(other).parts()).toEqual(['Key, switch, 0']);
  await other.goto('/');
  await other.getByLabel('Lesson, exercise or Verilog files').setInputFiles({
    name: 'broken.zip',
    mimeType: 'application/zip',
    buffer: bytes.subarray(0, 400),
  });
  await expect(other.getByText('it is no zip archive, or was cut short')).toBeVisible();
  await other.context().close();
});

test('a name of any length or direction leaves the marks as they are', async ({ page }) => {
  await page.goto('/marking');
  await page.getByRole('button', { name: 'Try it with three made-up hand-ins' }).click();
  await expect(page.getByRole('row')).toHaveCount(4);
  const right = async () =>
    Promise.all(
      (await page.getByRole('button', { name: 'Open', exact: true }).all()).map(
        async (b) => (await b.boundingBox())!.x,
      ),
    );
  const file = JSON.parse(readFileSync('demo/exercise/ada.handin.json', 'utf8')) as { name: string };
  for (const [i, name] of ['W'.repeat(120), 'א ב ג \u202e(3) 1 of 8', 'Ada\nSample'].entries())
    await page.getByLabel('Hand-in files').setInputFiles({
      name: `${i}.handin.json`,
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify({ ...file, name })),
    });
  await expect(page.getByRole('row')).toHaveCount(7);
  for (const x of await right()) expect(x).toBeLessThan(1200);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
  for (const row of await page.getByRole('row').all())
    expect((await row.boundingBox())!.height).toBeLessThan(110);
});
