import { expect, test } from '@playwright/test';
import { asFile, drop, handIn, SheetHand, tabTo, textOf } from './hand';
import { handedOut } from './task-hand';

test('a class is marked by keys: the same mistake together, one remark for all of them, undone for one', async ({
  page,
  browser,
  baseURL,
}) => {
  const { file, hand } = await handedOut(page, 'drive-interlock', 'Build a circuit', async (dialog) => {
    await dialog.getByLabel('Formulas typed in here').check();
    await dialog.getByLabel('A line for each output').fill('Sum = A ⊕ B\nCarry = A B');
  });
  await hand.type(4, 4, 'Sum = A xor B');
  const less = await handIn(page, 'Dana Sample');
  await hand.type(4, 20, 'Carry = A or B');
  const ben = await handIn(page, 'Ben Sample');
  const cleo = await handIn(page, 'Cleo Sample');
  await page.keyboard.press('Control+z');
  await hand.type(4, 20, 'Carry = A and B');
  const ada = await handIn(page, 'Ada Sample');
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([
      asFile('t.exercise.json', file),
      ...Object.entries({ ada, ben, cleo, less }).map(([name, text]) => asFile(`${name}.handin.json`, text)),
    ]);
  const rows = page.getByRole('row', { name: /Sample/ });
  await expect(rows).toHaveCount(4);
  // What several have wrong stands together.
  const mistake = page.getByRole('list', { name: 'The same mistake' }).getByRole('button');
  await expect(mistake).toHaveText('2 OR for AND in Carry');
  await mistake.click();
  await expect(rows).toHaveCount(2);
  await mistake.click();
  await page.getByRole('searchbox', { name: 'Find a name' }).fill('nobody');
  await expect(page.getByText('None of them is like this.')).toBeVisible();
  await page.getByRole('searchbox', { name: 'Find a name' }).fill('');
  await page.getByRole('button', { name: 'Wrong 3' }).click();
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'All 4' }).click();

  await rows.filter({ hasText: 'Ada' }).getByRole('button', { name: 'Open' }).click();
  const name = page.locator('bdi', { hasText: 'Sample' });
  await expect(name).toHaveText('Ada Sample');
  const given = page.getByRole('region', { name: 'Points and remarks' });
  const points = given.getByLabel('Points', { exact: true }).first();
  await expect(points).toHaveAttribute('placeholder', '1');
  // w goes to the next wrong hand-in, n to the next, p to the previous.
  await page.keyboard.press('w');
  await expect(name).toHaveText('Ben Sample');
  await expect(given.getByText('2 hand-ins have this answer: OR for AND in Carry.')).toBeVisible();
  await expect(given.getByText('2 hand-ins have this very circuit')).toBeVisible();
  await page.keyboard.press('n');
  await expect(name).toHaveText('Cleo Sample');
  await page.keyboard.press('p');
  await expect(name).toHaveText('Ben Sample');
  await given.getByText(/^Rule for this task/).click();
  await given.getByLabel('Points are').selectOption('a share of what is right');
  await expect(points).toHaveAttribute('placeholder', '0.5');
  await given.getByLabel('New remark').fill('Both have to be 1 for a carry.');
  await given.getByLabel('Points', { exact: true }).last().fill('-0.25');
  await given.getByRole('button', { name: 'Add to all 2' }).click();
  await expect(points).toHaveAttribute('placeholder', '0.25');
  await given.getByRole('button', { name: 'Next with this answer' }).click();
  await expect(name).toHaveText('Cleo Sample');
  await expect(given.getByText('Both have to be 1 for a carry.')).toBeVisible();
  // Undone for one; undo brings it back, and points by hand stand in its place.
  await given.getByRole('button', { name: /^Remove the remark/ }).click();
  await expect(points).toHaveAttribute('placeholder', '0.5');
  await page.keyboard.press('Control+z');
  await expect(points).toHaveAttribute('placeholder', '0.25');
  await page.getByRole('button', { name: 'Redo what was given' }).click();
  await points.fill('0.75');
  await expect(given.getByText('of 1, by hand')).toBeVisible();
  await page.getByRole('button', { name: 'Back to marking' }).click();
  await page.reload();
  await expect(rows.filter({ hasText: 'Cleo' })).toContainText('0.75 of 1');
  await expect(rows.filter({ hasText: 'Ben' })).toContainText('0.25 of 1');
  await expect(rows.filter({ hasText: 'Ada' })).toContainText('1 of 1');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = await textOf(await saving);
  expect(csv).toMatch(/^Ben Sample,.*,0\.25,0,.*Both have to be 1 for a carry\./m);
  expect(csv).toMatch(/^Cleo Sample,.*,0\.75,0,/m);
  // The marking goes to another marker as a file, which only the teacher's key opens.
  const handing = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the marking' }).click();
  const marking = await textOf(await handing);
  expect(marking).not.toContain('Both have to be 1');
  await page.getByRole('button', { name: 'Save the key' }).click();
  const keyDialog = page.getByRole('dialog', { name: 'The key of this browser' });
  await keyDialog.getByLabel('Passphrase for the key file').fill('carousel at night');
  const savingKey = page.waitForEvent('download');
  await keyDialog.getByRole('button', { name: 'Save the key' }).click();
  const key = await textOf(await savingKey);
  await keyDialog.getByRole('button', { name: 'Close' }).click();
  // In another browser the marking opens with that key alone.
  const elsewhere = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await elsewhere.newPage();
  await other.goto('/marking');
  await other
    .getByLabel('Hand-in files')
    .setInputFiles([
      asFile('t.exercise.json', file),
      asFile('ben.handin.json', ben),
      asFile('h.marking.json', marking),
    ]);
  await expect(other.getByText('1 marking is sealed to another key.', { exact: false })).toBeVisible();
  const passphrase = other.getByLabel('Passphrase of the key file');
  const keyFile = other.getByLabel('Key file', { exact: true });
  await passphrase.fill('another night');
  await keyFile.setInputFiles(asFile('manege.key.json', key));
  await expect(other.getByText('The passphrase is not the one of this file.')).toBeVisible();
  await passphrase.fill('carousel at night');
  await keyFile.setInputFiles(asFile('manege.key.json', key));
  await expect(other.getByText('1 marking taken in beside what was given here.')).toBeVisible();
  await expect(other.getByRole('row', { name: /Ben Sample/ })).toContainText('0.25 of 1');
  await elsewhere.close();
  await rows.filter({ hasText: 'Ben' }).getByRole('button', { name: 'Open' }).click();
  await given.getByRole('button', { name: 'Remove from all' }).click();
  await expect(given.getByText('Both have to be 1 for a carry.')).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to marking' }).click();
  await page.getByLabel('Hand-in files').setInputFiles([asFile('h.marking.json', marking)]);
  await expect(page.getByText('1 marking taken in beside what was given here.')).toBeVisible();
  await expect(rows.filter({ hasText: 'Ben' })).toContainText('0.25 of 1');
});

test('marked work goes back: it opens as the student’s own, with points and remarks at their places', async ({
  page,
  browser,
  baseURL,
}) => {
  const { file, task, hand } = await handedOut(
    page,
    'drive-interlock',
    'Build a circuit',
    async (dialog) => {
      await dialog.getByLabel(/^A check tells/).selectOption('nothing');
    },
    true,
  );
  await expect(task.getByRole('link', { name: 'Your marks' })).toHaveCount(0);
  await hand.type(4, 4, 'Drive = Key or Bars or Clear');
  await hand.type(4, 24, "Warn = Key Bars'");
  const ben = await handIn(page, 'Ben Sample');
  const link = page.url();
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([asFile('t.exercise.json', file), asFile('b.handin.json', ben)]);
  await page
    .getByRole('row', { name: /Ben Sample/ })
    .getByRole('button', { name: 'Open' })
    .click();
  const given = page.getByRole('region', { name: 'Points and remarks' });
  await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await given.getByLabel('New remark').fill('Each of the three has to be 1.');
  await given.getByRole('button', { name: 'Add', exact: true }).click();
  const remark = given.getByRole('list', { name: 'Remarks' }).getByRole('listitem');
  await expect(remark).toContainText(/^(OR|NOT) 1:\s*Each of the three has to be 1\./);
  await given.getByLabel('New remark').fill('Look here first.');
  await given.getByLabel('What the remark is about').selectOption('row 1');
  await given.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(remark.filter({ hasText: 'Look here first.' })).toContainText('row 1:');
  await given.getByLabel('Points', { exact: true }).first().fill('0.5');
  await page.getByRole('button', { name: 'Back to marking' }).click();
  await page.getByRole('button', { name: 'Give back' }).click();
  await page.getByLabel('With the wanted answers').uncheck();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the file' }).click();
  const back = await textOf(await saving);
  expect(JSON.parse(back)).toMatchObject({ format: 'manege-returned', name: 'Ben Sample' });
  // Sealed answers stay sealed.
  expect(back).not.toContain('00000001');

  const theirs = await browser.newContext({ ...(baseURL ? { baseURL } : {}) });
  const other = await theirs.newPage();
  await other.goto('/');
  const handed = [{ name: 'b.handin.json', text: ben }];
  await drop(other, other.getByRole('main'), handed);
  await expect(
    other.getByText('no work of yours at “Drive interlock” is in this browser', { exact: false }),
  ).toBeVisible();
  await other.goto(link);
  await new SheetHand(other).ready();
  await other.goto('/');
  // A hand-in opens again for its student.
  await drop(other, other.getByRole('main'), handed);
  await expect(other.getByText('Handed in by')).toContainText('Ben Sample');
  await expect.poll(() => new SheetHand(other).parts()).toHaveLength(8);
  await other.goto('/');
  await drop(other, other.getByRole('main'), [{ name: 'b.returned.json', text: back }]);
  await expect(other.getByText('Marked work of')).toContainText('Ben Sample');
  const marks = other.getByRole('region', { name: 'Marks' });
  await expect(marks.getByText('0.5 of 1 point').first()).toBeVisible();
  await expect(marks.getByText('Each of the three has to be 1.')).toBeVisible();
  await marks.getByRole('button', { name: /^(OR|NOT) 1:$/ }).click();
  await expect(
    other.getByRole('listbox', { name: /^Parts on/ }).getByRole('option', { selected: true }),
  ).toContainText(/^(OR|NOT) 1/);
  // On paper there are the points and remarks and the circuit, and nothing of the page around them.
  await other.emulateMedia({ media: 'print' });
  const paper = other.locator('.printed');
  await expect(paper).toContainText('Each of the three has to be 1.');
  await expect(paper.getByRole('img', { name: /^The circuit for/ })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Print' })).toBeHidden();
  await other.emulateMedia({ media: 'screen' });
  await expect(paper).toBeHidden();
  // It is there again, from their own work.
  await other.goto(link);
  await other.getByRole('link', { name: 'Your marks' }).click();
  await expect(marks.getByText('Each of the three has to be 1.')).toBeVisible();
  await theirs.close();
});

test('a class list tells who is missing, and joins names only when that is said', async ({ page }) => {
  await page.goto('/marking');
  await page.getByRole('button', { name: 'Try it with three made-up hand-ins' }).click();
  const rows = page.getByRole('row', { name: /Sample/ });
  await expect(rows).toHaveCount(3);
  const list = (text: string) =>
    page
      .getByLabel('Class list')
      .setInputFiles({ name: 'class.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await list('who,mark\nAda,1\n');
  await expect(page.getByText('class.csv: it needs a column called name', { exact: false })).toBeVisible();
  await list('number;name;group\n1;Ada Sample;A\n2;Sample, Ben;A\n3;Clio Sample;B\n4;Dana Sample;B\n');
  const section = page.getByRole('region', { name: 'The class' });
  await expect(section).toContainText('4 students, 2 without a hand-in: Clio Sample and Dana Sample.');
  await section.getByRole('button', { name: 'Yes, join them' }).click();
  await expect(section).toContainText('4 students, 1 without a hand-in: Dana Sample.');
  await page.reload();
  await expect(section).toContainText('1 without a hand-in');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const csv = await textOf(await saving);
  expect(csv).toMatch(/^name,number,group,/);
  expect(csv).toMatch(/^Cleo Sample,3,B,/m);
  await section.getByRole('button', { name: 'Remove the class list' }).click();
  await expect(section).toHaveCount(0);
});

test('how it was drawn is walked through where the student has sent it along', async ({ page }) => {
  const { file, hand } = await handedOut(page, 'drive-interlock', 'Build a circuit', async (dialog) => {
    await dialog.getByLabel('Formulas typed in here').check();
    await dialog.getByLabel('A line for each output').fill('Sum = A ⊕ B\nCarry = A B');
  });
  await hand.type(4, 4, 'Sum = A xor B');
  await hand.type(4, 20, 'Carry = A or B');
  // Nothing is sent along that was not agreed to.
  const without = JSON.parse(await handIn(page, 'Ben Sample'));
  expect(without).not.toHaveProperty('drawn');
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByRole('checkbox', { name: /^Also send how it was drawn/ }).check();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the hand-in file' }).click();
  const ada = JSON.parse(await textOf(await saving));
  expect(ada.drawn.length).toBeLessThan(200_000);
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([asFile('t.exercise.json', file), asFile('a.handin.json', JSON.stringify(ada))]);
  await page.getByRole('button', { name: 'Open' }).click();
  const steps = page.getByRole('region', { name: 'How it was drawn' });
  await expect(steps.getByText('as it was handed in')).toBeVisible();
  const parts = () => new SheetHand(page).parts();
  await expect.poll(async () => (await parts()).filter((p) => /^(XOR|OR) /.test(p)).length).toBe(2);
  await steps.getByRole('button', { name: 'Step before' }).click();
  await expect.poll(async () => (await parts()).filter((p) => /^OR /.test(p)).length).toBe(0);
  const slider = steps.getByRole('slider', { name: 'Step of the drawing' });
  await slider.press('Home');
  await expect(steps.getByText('before all of them')).toBeVisible();
  await slider.press('End');
  await expect(steps.getByText('as it was handed in')).toBeVisible();
  await expect.poll(async () => (await parts()).filter((p) => /^OR /.test(p)).length).toBe(1);
});
