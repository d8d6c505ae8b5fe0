import { readFile } from 'node:fs/promises';
import { gunzipSync, gzipSync } from 'node:zlib';
import { expect, type Page, test } from '@playwright/test';
import { asFile, emptySheet, SheetHand } from './hand';

/*
 * Lessons as files of this computer. The browser's own dialog for a file cannot be seen by a script: a file in the origin's
 * private file system stands in for the one that would be chosen there.
 */
async function withChosenFile(page: Page, name: string): Promise<void> {
  await page.addInitScript((file) => {
    (window as unknown as { showSaveFilePicker: unknown }).showSaveFilePicker = async () =>
      (await navigator.storage.getDirectory()).getFileHandle(file, { create: true });
  }, name);
}

const fileText = (page: Page, name: string): Promise<string> =>
  page.evaluate(async (file) => {
    const handle = await (await navigator.storage.getDirectory()).getFileHandle(file);
    return (await handle.getFile()).text();
  }, name);

const command = async (page: Page, words: string) => {
  await page.keyboard.press('Control+k');
  await page.keyboard.type(words);
  await page.keyboard.press('Enter');
};

test('a lesson without a file is saved as a download, by its button and by Ctrl S', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  for (const save of [
    () => page.getByRole('button', { name: 'Save file' }).click(),
    () => page.keyboard.press('Control+s'),
  ]) {
    const saving = page.waitForEvent('download');
    await save();
    const download = await saving;
    expect(download.suggestedFilename()).toBe('new-lesson.manege.json');
    expect(await readFile((await download.path())!, 'utf8')).toContain('"Key"');
  }
});

test('once a file is chosen, a lesson is saved to it again, in another visit too', async ({ page }) => {
  await withChosenFile(page, 'interlock.manege.json');
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await command(page, 'choose the file');
  await expect(page.getByText('Saved to interlock.manege.json.')).toBeVisible();
  expect(await fileText(page, 'interlock.manege.json')).toContain('"Key"');
  await hand.type(4, 10, 'sw Bars');
  await hand.saved();
  await page.reload();
  await hand.ready();
  await page.getByRole('button', { name: 'Save file' }).click();
  await expect(page.getByText('Saved to interlock.manege.json.')).toBeVisible();
  await expect.poll(() => fileText(page, 'interlock.manege.json')).toContain('"Bars"');
  // What something else wrote meanwhile is not written over.
  await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    const writing = await (await root.getFileHandle('interlock.manege.json')).createWritable();
    await writing.write('of another program');
    await writing.close();
  });
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save file' }).click();
  expect(await readFile((await (await saving).path())!, 'utf8')).toContain('"Bars"');
  await expect(page.getByText('was changed by something else')).toBeVisible();
  expect(await fileText(page, 'interlock.manege.json')).toBe('of another program');
});

test('a card is dragged out of the shelf as the file of its lesson', async ({ page }) => {
  await page.goto('/');
  const card = page.getByRole('link', { name: 'Open Drive interlock' });
  await expect(card).toBeVisible();
  await page.evaluate(() => {
    window.addEventListener('dragstart', (event) => {
      document.body.dataset.dragged = event.dataTransfer?.getData('DownloadURL') ?? '';
    });
  });
  const box = (await card.boundingBox())!;
  await page.mouse.move(box.x + 60, box.y + 40);
  await page.mouse.down();
  await page.mouse.move(box.x + 160, box.y + 140, { steps: 5 });
  await expect(page.locator('body')).toHaveAttribute(
    'data-dragged',
    /^application\/json:drive-interlock\.manege\.json:blob:/,
  );
  // What a file manager would take from there.
  const saving = page.waitForEvent('download');
  await page.evaluate(() => {
    const link = document.createElement('a');
    link.href = document.body.dataset.dragged!.replace(/^.*?(blob:.*)$/, '$1');
    link.download = 'dragged';
    link.click();
  });
  const text = await readFile((await (await saving).path())!, 'utf8');
  expect(text).toContain('"Drive"');
  await page.mouse.up();
  // It was no press: the shelf stays.
  await expect(page.getByRole('link', { name: 'Open Queue selector' })).toBeVisible();
});

test('a file that the system opens with Manege is one lesson, however often it is opened', async ({
  page,
}) => {
  // The queue of an installed application, with a file of the private file system in it.
  await page.addInitScript(() => {
    const queue = { consumer: null as ((launch: unknown) => void) | null };
    Object.defineProperty(window, 'launchQueue', {
      value: {
        setConsumer: async (consumer: (launch: unknown) => void) => {
          queue.consumer = consumer;
          const root = await navigator.storage.getDirectory();
          const handle = await root.getFileHandle('chase.manege.json').catch(() => null);
          if (handle) consumer({ files: [handle] });
        },
      },
    });
  });
  await page.goto('/');
  await page.getByRole('button', { name: 'More about Lamp chase' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Export as a file' }).click();
  const text = await readFile((await (await saving).path())!, 'utf8');
  await page.evaluate(async (lesson) => {
    const root = await navigator.storage.getDirectory();
    const writing = await (await root.getFileHandle('chase.manege.json', { create: true })).createWritable();
    await writing.write(lesson);
    await writing.close();
  }, text);
  for (const _ of [1, 2]) {
    await page.goto('/');
    await new SheetHand(page).ready();
  }
  await page.getByRole('button', { name: 'Save file' }).click();
  await expect(page.getByText('Saved to chase.manege.json.')).toBeVisible();
  await page.evaluate(async () => (await navigator.storage.getDirectory()).removeEntry('chase.manege.json'));
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Lamp chase' })).toHaveCount(2);
  await expect(page.getByText(/· chase\.manege\.json$/)).toBeVisible();
});

test('a file that a lesson was saved to is opened again from the shelf, or it says why not', async ({
  page,
}) => {
  await withChosenFile(page, 'gate.manege.json');
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Open Drive interlock' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Recent files' })).toHaveCount(0);
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await command(page, 'choose the file');
  await expect(page.getByText('Saved to gate.manege.json.')).toBeVisible();
  const address = page.url();
  const again = async () => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Recent files' }).click();
    await page.getByRole('menuitem', { name: /^gate\.manege\.json/ }).click();
  };
  await again();
  await hand.ready();
  expect(page.url()).toBe(address);
  // Written by something else meanwhile, it is a lesson of its own.
  await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    const handle = await root.getFileHandle('gate.manege.json');
    const text = await (await handle.getFile()).text();
    const writing = await handle.createWritable();
    await writing.write(text.replace('"Key"', '"Gate"'));
    await writing.close();
  });
  await again();
  await hand.ready();
  expect(page.url()).not.toBe(address);
  await expect.poll(() => hand.parts()).toEqual(['Gate, switch, 0']);
  await page.evaluate(async () => (await navigator.storage.getDirectory()).removeEntry('gate.manege.json'));
  await again();
  await expect(page.getByText('gate.manege.json is not there any more.')).toBeVisible();
});

test('a large lesson is saved as a packed file, and comes back from it; what is no packed file says so', async ({
  page,
}) => {
  const gates = 8000;
  const lines = Array.from(
    { length: gates },
    (_, i) => `  nand g${i}(n${i + 1}, n${i}, ${i < 2 ? 'clear' : `n${i - 2}`});`,
  );
  const chain = `module chain(input key, clear, output drive);\n  buf b0(n0, key);\n${lines.join('\n')}\n  assign drive = n${gates};\nendmodule\n`;
  const into = page.getByLabel('Lesson, exercise or Verilog files');
  await page.goto('/');
  await into.setInputFiles(asFile('chain.v.gz', gzipSync(chain)));
  await page.getByRole('link', { name: 'Open chain' }).click();
  await new SheetHand(page).ready();
  const saving = page.waitForEvent('download');
  await page.keyboard.press('Control+s');
  const download = await saving;
  expect(download.suggestedFilename()).toBe('chain.manege.json.gz');
  await expect(page.getByText('Saved as chain.manege.json.gz, a packed file')).toBeVisible();
  const bytes = await readFile((await download.path())!);
  expect(JSON.parse(gunzipSync(bytes).toString())).toMatchObject({ format: 'manege-lesson', title: 'chain' });
  expect(bytes.length).toBeLessThan(60 * gates);
  await page.goto('/');
  await page.getByRole('button', { name: 'More about chain' }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('link', { name: 'Open chain' })).toHaveCount(0);
  await into.setInputFiles(asFile('chain.manege.json.gz', bytes));
  await expect(page.getByRole('link', { name: 'Open chain' })).toBeVisible();
  await expect(page.getByText(`${gates + 4} parts`)).toBeVisible();
  await into.setInputFiles(asFile('cut.manege.json.gz', bytes.subarray(0, 1000)));
  await expect(page.getByText(/it is not packed as its name says \(gzip\), or was cut short/)).toBeVisible();
});
