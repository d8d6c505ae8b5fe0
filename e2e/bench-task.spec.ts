import { expect, test } from '@playwright/test';
import { bench, board, dragNext, layAll, layNext, said } from './bench-hand';
import { handIn } from './hand';
import { check, handedOut, marked } from './task-hand';

test('a drawing is wired on the board, a wrong wire is told and mended, and it is marked', async ({
  page,
}) => {
  const { file, task } = await handedOut(page, 'drive-interlock', 'Wire it on the board', async (dialog) => {
    await dialog
      .getByLabel('The student begins with')
      .selectOption({ label: 'the packages of this board, without its wires' });
    await dialog.getByLabel('Most packages').fill('4');
  });
  await expect(bench(page)).toBeVisible();
  await expect(task.getByText('Wire the drawing on the board.', { exact: false })).toBeVisible();
  // The guide shows wires and lays none.
  await expect(bench(page).getByRole('button', { name: 'Lay all' })).toHaveCount(0);
  await check(task);
  await expect(task.getByText(/has no supply/).first()).toBeVisible();
  await layNext(page, 1);
  await expect(said(page)).toContainText('one column off');
  const wrong = await handIn(page, 'Ben Sample');
  await bench(page).getByRole('button', { name: 'Take it away' }).click();
  await dragNext(page);
  await layAll(page);
  await expect(said(page)).toContainText('Everything is wired as the drawing has it.');
  await check(task);
  await expect(task.getByText('All rows right.')).toBeVisible();
  const right = await handIn(page, 'Ada Sample');
  await marked(page, file, right, wrong);
  await page
    .getByRole('row', { name: /Ada Sample/ })
    .getByRole('button', { name: 'Open' })
    .click();
  await expect(board(page)).toBeVisible();
});

test('a function is built on the board from what the drawer has, without a drawing', async ({ page }) => {
  const { task } = await handedOut(page, 'drive-interlock', 'Wire it on the board', async (dialog) => {
    await dialog.getByLabel('The student gets the function, without the drawing').check();
    await dialog.getByLabel('A table typed in here').check();
    await dialog.getByLabel('Inputs, with commas').fill('Key, Bars');
    await dialog.getByLabel('Outputs, with commas').fill('Drive');
    await dialog.getByRole('button', { name: /Drive in row 3/ }).click();
    await dialog.getByLabel('Drawer').fill('1 x 7408');
    await dialog.getByLabel('The guide').selectOption({ label: 'stays away' });
  });
  await expect(task.getByText('1 × 7408')).toBeVisible();
  const line = bench(page).getByLabel('Type for the board');
  for (const text of [
    '7432',
    'wire U1.14 +',
    'wire U1.7 -',
    'wire Key U1.1',
    'wire Bars U1.2',
    'wire U1.3 Drive',
  ]) {
    await line.click();
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await expect(line).toHaveValue('');
  }
  await check(task);
  await expect(task.getByText('74HC32 is on the board, and the drawer has none.')).toBeVisible();
  await expect(
    task.getByText(/U1 pin 4, U1 pin 5, U1 pin 9 and U1 pin 10 and 2 more are open/),
  ).toBeVisible();
});
