import { expect, test } from '@playwright/test';
import { SheetHand } from './hand';

test('the list of commands finds parts, commands, sheets and faces by their words, and runs them', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const find = async (words: string) => {
    await page.keyboard.press('Control+k');
    const box = page.getByRole('combobox', { name: 'Commands' });
    await expect(box).toBeFocused();
    await page.keyboard.type(words);
  };
  const first = page.getByRole('option').first();

  await find('nand');
  await expect(first).toContainText('NAND');
  await page.keyboard.press('Enter');
  await expect.poll(() => hand.parts()).toHaveLength(1);

  await find('rotate');
  await expect(first).toContainText('Turn');
  await expect(first).toContainText('[');
  await page.keyboard.press('Enter');
  // The tooltip of the button tells the step.
  await page.getByRole('button', { name: 'Undo' }).hover();
  await expect(page.getByRole('tooltip')).toHaveText(/^Undo: turn/);

  await find('undo');
  await expect(first).toContainText('Undo: turn');
  await page.keyboard.press('Enter');
  await page.mouse.move(2, 400);
  await expect(page.getByRole('tooltip')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).hover();
  await expect(page.getByRole('tooltip')).toHaveText(/^Undo: place/);

  await find('align left');
  await expect(first).toContainText('select two or more parts first');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Commands' })).toBeVisible();
  await page.keyboard.press('Escape');

  await find('no such thing');
  await expect(page.getByText('Nothing is called')).toBeVisible();
  await page.keyboard.press('Escape');

  await find('face map');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Map' })).toBeVisible();

  await find('add sheet');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Sheet 2' })).toBeVisible();
  await find('open sheet 1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listbox', { name: /Parts on Sheet 1: 1/ })).toBeAttached();
});

test('a menu entry that does not apply says why, and shows the keys of those that do', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: /^Sheet 1/ }).click();
  const remove = page.getByRole('menuitem', { name: 'Remove' });
  await expect(remove).toBeDisabled();
  await expect(remove).toContainText('a lesson keeps at least one sheet');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Faces' }).click();
  await expect(page.getByRole('menuitemcheckbox', { name: 'Large, for a projector F9' })).toBeVisible();
});
