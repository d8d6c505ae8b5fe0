import { expect, type Page, test } from '@playwright/test';
import { asFile, emptySheet, handIn, SheetHand, textOf } from './hand';

async function handOutDialog(page: Page) {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  return page.getByRole('dialog');
}

test('an expected table can be typed in; what was filled in survives a further input', async ({ page }) => {
  const dialog = await handOutDialog(page);
  await dialog.getByLabel('A table typed in here').check();
  await dialog.getByLabel('Inputs, with commas').fill('A, B');
  await dialog.getByLabel('Outputs, with commas').fill('Y');
  await dialog.getByRole('button', { name: 'Y in row 3: 0' }).click();
  await dialog.getByLabel('Inputs, with commas').fill('A, B, C');
  await expect(dialog.getByRole('button', { name: 'Y in row 6: 1' })).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Y in row 7: 1' })).toBeVisible();
  await dialog.getByRole('button', { name: 'Y in row 6: 1' }).click();
  await expect(dialog.getByRole('button', { name: 'Y in row 6: x' })).toBeVisible();

  await dialog.getByLabel('Inputs, with commas').fill('A, B, A');
  await expect(dialog.getByRole('alert')).toHaveText('The name A stands twice.');
  await dialog.getByLabel('Inputs, with commas').fill('A,B,C,D,E,F,G,H,I,J,K,L,M');
  await expect(dialog.getByRole('alert')).toHaveText('An expected table has at most 12 inputs.');
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(dialog.getByRole('button', { name: 'Make the exercise' })).toBeVisible();
  await dialog.getByLabel('Inputs, with commas').fill('A, B, C');
  await dialog.getByRole('button', { name: 'NAND only' }).click();
  await dialog.getByLabel('Title').fill('  ');
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(dialog.getByRole('alert')).toHaveText('the exercise has no title.');
  await dialog.getByLabel('Title').fill('Only NAND');
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the exercise file' }).click();
  const file = JSON.parse(await textOf(await saving));
  expect(file).toMatchObject({
    title: 'Only NAND',
    version: 3,
    tasks: [
      {
        kind: 'build',
        asked: { parts: ['nand'] },
        key: { kind: 'table', inputs: ['A', 'B', 'C'], outputs: [{ name: 'Y', rows: '000000x1' }] },
      },
    ],
  });
});

test('a link that would be too long says so and offers the file', async ({ page }) => {
  const dialog = await handOutDialog(page);
  const noise = Array.from({ length: 1200 }, (_, i) => ((i * 7919) % 10007).toString(36)).join(' ');
  await dialog.getByLabel(/^Task/).fill(noise);
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(dialog.getByRole('alert')).toContainText(
    'many mail, chat and learning tools cut links at 2,000',
  );
  await expect(dialog.getByRole('button', { name: 'Save the exercise file' })).toBeVisible();
});

test('a lesson with a clock gives no table of its own, and says why', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Lamp chase' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('This sheet’s truth table')).toBeDisabled();
  await expect(dialog.getByLabel('This sheet’s run')).toBeChecked();
  await dialog.getByLabel('A table typed in here').check();
  await expect(
    dialog.getByText(/This sheet’s truth table cannot be used: this sheet stores state/),
  ).toBeVisible();
});

test('a run is handed out, held against a circuit reading by reading, and marked', async ({ page }) => {
  const teacher = await emptySheet(page);
  await drawDivider(teacher);
  await page.getByRole('button', { name: 'Hand out' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title').fill('Every other turn');
  await expect(dialog.getByText('Outputs are read just before each active clock edge.')).toBeVisible();
  await dialog.getByLabel('Readings').fill('0');
  await expect(dialog.getByRole('alert')).toContainText('Give a number of readings from 1 to 1000');
  await dialog.getByLabel('Readings').fill('6');
  await dialog.getByRole('button', { name: 'Half in reading 0: 0' }).click();
  await expect(dialog.getByRole('button', { name: 'Half in reading 0: x' })).toBeVisible();
  await dialog.getByRole('button', { name: 'As on this sheet' }).click();
  await dialog.getByRole('checkbox', { name: 'JK flip-flop' }).check();
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  const link = await dialog.getByLabel('Link to the exercise').inputValue();
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the exercise file' }).click();
  const exercise = await textOf(await saving);

  // The student begins with the clock alone, which is low whenever it is read.
  await page.goto('about:blank');
  await page.goto(link);
  const hand = new SheetHand(page);
  await hand.ready();
  const task = page.getByRole('region', { name: 'Task' });
  await hand.type(4, 8, 'clock');
  await hand.type(20, 2, 'lamp Half');
  await hand.drag([6, 8], [18, 2]);
  await task.getByRole('button', { name: 'Check' }).click();
  await expect(task.getByText('3 of 6 readings right')).toBeVisible();
  await task.getByRole('button', { name: /reading 1: wrong/ }).click();
  await expect(page.getByText('1.5 s').first()).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Stimulus' })).toHaveValue('The task’s run');
  await expect(task.getByText('before your last change')).toHaveCount(0);
  // The diagram shows the expected values below the lane, with the readings that differ.
  await page.getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Beside the run' }).click();
  await expect(page.getByText('Not alike')).toBeVisible();
  await page.getByRole('button', { name: '500 ms to 1.5 s' }).click();
  await page.getByRole('button', { name: 'Find out' }).click();
  const wrong = await handIn(page, 'Ben Sample');

  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await drawDivider(hand);
  await task.getByRole('button', { name: 'Check' }).click();
  await expect(task.getByText('All readings right.')).toBeVisible();
  const right = await handIn(page, 'Ada Sample');

  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([
      asFile('exercise.json', exercise),
      asFile('a.handin.json', right),
      asFile('b.handin.json', wrong),
    ]);
  await expect(page.getByRole('row', { name: /Ada Sample/ })).toContainText('✓ 6 of 6');
  const row = page.getByRole('row', { name: /Ben Sample/ });
  await expect(row).toContainText('✗ 3 of 6');
  await expect(row).toContainText('wrong: readings 1, 3, 5');
  await row.getByRole('button', { name: 'Open' }).click();
  await page.getByRole('button', { name: 'Show the first wrong reading' }).click();
  await expect(page.getByText('1.5 s').first()).toBeVisible();
  await expect.poll(async () => (await hand.parts()).join()).toContain('Half, lamp');
});

/** A clock at a flip-flop that turns over at each edge, and a lamp. */
async function drawDivider(hand: SheetHand): Promise<void> {
  await hand.type(4, 8, 'clock');
  await hand.type(4, 4, 'const 1');
  await hand.type(16, 6, 't');
  await hand.type(28, 4, 'lamp Half');
  await hand.drag([6, 8], [12, 8]);
  await hand.drag([6, 4], [12, 4]);
  await hand.drag([20, 4], [26, 4]);
}

test('a part that is not allowed cannot be pasted in, and handing in asks for a name', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(10, 8, 'nor');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.goto('/exercise');
  await page.getByLabel('Exercise file').setInputFiles('demo/exercise/warning-lamp.exercise.json');
  await hand.ready();
  await page.keyboard.press('Control+v');
  await expect(page.getByText('That does not work: this exercise does not allow NOR.')).toBeVisible();
  await expect.poll(() => hand.parts()).toEqual([]);

  const task = page.getByRole('region', { name: 'Task' });
  await task.getByRole('button', { name: 'Check' }).click();
  await expect(task.getByText('0 of 8 rows right')).toBeVisible();
  await expect(task.getByText('The input “Key” is missing.')).toBeVisible();
  await task.getByRole('button', { name: 'Place the inputs and outputs' }).click();
  await expect(task.getByText('before your last change')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByRole('button', { name: 'Save the hand-in file' }).click();
  await expect(page.getByText('Write your name first.')).toBeVisible();
});

test('a hand-in without its exercise is named, and marked once the exercise is there', async ({ page }) => {
  await page.goto('/marking');
  await page.getByLabel('Hand-in files').setInputFiles('demo/exercise/ben.handin.json');
  await expect(page.getByRole('alert').filter({ hasText: 'left out' })).toContainText(
    'ben.handin.json: its exercise, “Warning lamp”, is not here: drop the exercise file as well',
  );
  await page
    .getByLabel('Hand-in files')
    .setInputFiles(['demo/exercise/ben.handin.json', 'demo/exercise/warning-lamp.exercise.json']);
  await expect(page.getByRole('row').nth(1)).toContainText('wrong: row 6');
});

test('in an exercise a formula says what is expected, and draws nothing', async ({ page }) => {
  await page.goto('/exercise');
  await page.getByLabel('Exercise file').setInputFiles('demo/exercise/warning-lamp.exercise.json');
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
  await page.keyboard.press('Escape');
  const formula = page.getByRole('region', { name: 'Formula' });
  await formula.getByRole('textbox', { name: 'Formula of another output' }).fill("Warn = Key Bars'");
  await page.keyboard.press('Enter');
  await expect(formula.getByText('the circuit does not do it yet')).toBeVisible();
  await expect(formula.getByRole('button', { name: 'Draw it' })).toHaveCount(0);
  expect(await hand.parts()).toEqual([]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(formula.getByText('the circuit does not do it yet')).toHaveCount(0);
});
