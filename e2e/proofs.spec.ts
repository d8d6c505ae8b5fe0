import { expect, type Page, test } from '@playwright/test';
import { parityOf, product } from '../src/core/testing/verilog-circuits';
import { asFile, SheetHand } from './hand';

/**
 * Multipliers as modules side by side: of the rows of one number or of the other, of plain gates or of NAND only; and two that tell only
 * whether the product has an odd number of ones, which takes long to prove.
 */
const MULTIPLIERS = [
  product(14, 'a').replace('module mul', 'module rows_of_a'),
  product(14, 'b').replace('module mul', 'module rows_of_b'),
  product(14, 'a', 'nand').replace('module mul', 'module nands'),
  parityOf(product(14, 'a'), 'p', 28).replace('module mul', 'module odd_by_a'),
  parityOf(product(14, 'b'), 'p', 28).replace('module mul', 'module odd_by_b'),
].join('\n');

async function openMultipliers(page: Page): Promise<void> {
  await page.goto('/');
  await page
    .getByLabel('Lesson, exercise or Verilog files')
    .setInputFiles(asFile('multipliers.v', MULTIPLIERS));
  await page.getByRole('link', { name: 'Open multipliers' }).click({ timeout: 30_000 });
  await new SheetHand(page).ready();
}

async function compareWith(page: Page, first: RegExp, sheet: string) {
  await page.getByRole('navigation', { name: 'Sheets' }).getByRole('button', { name: first }).click();
  await page.getByRole('menuitem', { name: 'Compare with a sheet or formula' }).click();
  const dialog = page.getByRole('dialog', { name: 'The same, or not' });
  await dialog.getByRole('combobox').first().selectOption({ label: sheet });
  await dialog.getByRole('button', { name: 'Compare' }).click();
  return dialog;
}

test('two multipliers of 28 inputs are proved the same; what takes long can be stopped', async ({ page }) => {
  test.slow();
  await openMultipliers(page);
  await expect(page.getByRole('navigation', { name: 'Sheets' })).toContainText('rows_of_b');
  const dialog = await compareWith(page, /^rows_of_a/, 'nands');
  await expect(dialog.getByRole('status')).toContainText('The same. Proved by algebraic rewriting', {
    timeout: 30_000,
  });
  await page.keyboard.press('Escape');
  // A press shows another sheet; the next one opens its menu.
  await page.getByRole('button', { name: /^odd_by_a/ }).click();
  const other = await compareWith(page, /^odd_by_a/, 'odd_by_b');
  await expect(other.getByRole('progressbar')).toBeVisible();
  await other.getByRole('button', { name: 'Stop' }).click();
  await expect(other.getByRole('progressbar')).toHaveCount(0);
  await expect(other.getByRole('button', { name: 'Compare' })).toBeEnabled();
});
