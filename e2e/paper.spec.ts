import { expect, type Locator, type Page, test } from '@playwright/test';
import { SheetHand } from './hand';
import { handedOut } from './task-hand';

const dialog = (page: Page) => page.getByRole('dialog', { name: 'On paper' });
const preview = (page: Page) => dialog(page).getByRole('region', { name: 'Preview' });

/** Stands for the browser's dialog, which no script can see: it stays open until `printed`. */
async function withPrinter(page: Page): Promise<void> {
  await page.addInitScript(() => {
    window.print = () => {};
  });
}

/** The pages that come out of the printer. */
async function printed(page: Page, button: string): Promise<number> {
  await dialog(page).getByRole('button', { name: button }).click();
  await expect(page.locator('.printed')).toHaveCount(1);
  await page.emulateMedia({ media: 'print' });
  // Nothing else is on paper, and nothing of it is wider than the paper.
  expect(
    await page.evaluate(() =>
      [...document.body.children].filter((e) => e.getClientRects().length > 0).map((e) => e.className),
    ),
  ).toEqual(['printed']);
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1');
  await page.emulateMedia({ media: null });
  await page.evaluate(() => dispatchEvent(new Event('afterprint')));
  await expect(page.locator('.printed')).toHaveCount(0);
  return pdf.match(/\/Type\s*\/Page\b/g)?.length ?? 0;
}

test('a worksheet and its answers are made of a lesson in two presses', async ({ page }) => {
  await withPrinter(page);
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+p');
  await expect(preview(page).getByRole('heading', { name: 'Drive interlock' })).toBeVisible();
  await expect(preview(page).getByRole('img', { name: 'Drive interlock' })).toBeVisible();
  expect(await printed(page, 'Print the worksheet')).toBe(1);
  const table = preview(page).getByRole('table');
  await expect(table.getByRole('row').nth(8)).toHaveText('111');
  await dialog(page).getByRole('radio', { name: 'Answer sheet' }).check();
  await expect(table.getByRole('row').nth(8)).toHaveText('11110');
  expect(await printed(page, 'Print the answer sheet')).toBe(1);
});

test('what stands on a worksheet is chosen; what a sheet cannot have says why', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.keyboard.press('Control+p');
  const piece = (name: string) => dialog(page).getByRole('checkbox', { name });
  await expect(piece('Timing diagram')).toBeDisabled();
  await dialog(page).getByText('Timing diagram').hover();
  await expect(page.getByRole('tooltip')).toContainText('no input changes by itself', { ignoreCase: true });
  await piece('The drawing').uncheck();
  for (const name of ['Karnaugh maps', 'Formulas', 'Lines for words']) await piece(name).check();
  await dialog(page).getByRole('textbox').fill('When does the **carousel** turn?');
  await expect(preview(page).getByText('When does the carousel turn?')).toBeVisible();
  await expect(preview(page).getByRole('img', { name: 'Map of Drive' })).toBeVisible();
  await expect(preview(page).getByRole('heading', { name: /Explain/ })).toHaveText('4.Explain.');
  await dialog(page).getByRole('radio', { name: 'Answer sheet' }).check();
  await expect(preview(page).getByText('Key Bars Clear')).toBeVisible();
  // Nobody writes on an answer sheet.
  await expect(preview(page).getByText('Explain.')).toHaveCount(0);
});

test('an exercise is on paper in two presses, each task whole on a page', async ({ page }) => {
  await withPrinter(page);
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Interlock/ }).click();
  await page.getByRole('button', { name: 'On paper' }).click();
  await expect(preview(page).getByText('____ of 1 point').first()).toBeVisible();
  const worksheet = await printed(page, 'Print the worksheet');
  expect(worksheet).toBeGreaterThan(1);
  expect(worksheet).toBeLessThan(6);
  await dialog(page).getByRole('radio', { name: 'Answer sheet' }).check();
  await expect(preview(page).getByText('What it is to do:').first()).toBeVisible();
  expect(await printed(page, 'Print the answer sheet')).toBeGreaterThan(1);
});

test('a drawing on paper is black, with its signals told by weight', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.keyboard.press('Control+p');
  const drawing = preview(page).getByRole('img', { name: 'Drive interlock' });
  const inks = () =>
    drawing.evaluate((svg) => [
      ...new Set([...svg.querySelectorAll('[stroke]')].map((e) => e.getAttribute('stroke'))),
    ]);
  const widths = () =>
    drawing.evaluate(
      (svg) => new Set([...svg.querySelectorAll('[stroke]')].map((e) => e.getAttribute('stroke-width'))).size,
    );
  const plain = await widths();
  expect(await inks()).toEqual(['#000000']);
  await dialog(page).getByRole('checkbox', { name: 'with its signals' }).check();
  await expect.poll(widths).toBeGreaterThan(plain);
  expect(await inks()).toEqual(['#000000']);
});

test('what is printed has the pictures in the words of its tasks', async ({ page }) => {
  // In place of the browser's dialog: counts the pictures on the paper when it would open.
  const onPaper: number[] = [];
  await page.exposeFunction('printedPictures', (count: number) => onPaper.push(count));
  await page.addInitScript(() => {
    window.print = () =>
      (window as unknown as { printedPictures: (count: number) => void }).printedPictures(
        [...document.querySelectorAll<HTMLImageElement>('.printed img')].filter((one) => one.naturalWidth > 0)
          .length,
      );
  });
  const picture = async (form: Locator) => {
    await form.getByRole('button', { name: 'Picture' }).click();
    await expect(form.getByRole('img', { name: 'Drive interlock' })).toBeVisible();
    await form.getByLabel('Give the circuit of this sheet to the student').uncheck();
  };
  await handedOut(page, 'drive-interlock', 'Answer in words', picture, true);
  await page.goto('/');
  await page.getByRole('link', { name: 'Tasks of Drive interlock' }).click();
  await page.getByRole('button', { name: 'On paper' }).click();
  await dialog(page).getByRole('button', { name: 'Print the worksheet' }).click();
  await expect.poll(() => onPaper).toEqual([1]);
});
