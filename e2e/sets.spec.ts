import { expect, test } from '@playwright/test';
import { asFile, handIn, pasted, SheetHand, textOf } from './hand';
import { check, handedOut } from './task-hand';

test('a set is made of sheets, worded, tried as a student, handed out, and mended in a second edition', async ({
  page,
}) => {
  await page.goto('/');
  await page.locator('a[href="/lesson?id=demo-ticket-adder"]').click();
  const hand = new SheetHand(page);
  await hand.ready();
  await page.getByRole('button', { name: 'Half adder' }).first().click();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Add to a set' }).click();
  await page.getByRole('menuitem', { name: 'A new set' }).click();
  await expect(page.getByText('“Half adder” is begun.', { exact: false })).toBeVisible();

  await page.goto('/');
  await page.getByRole('link', { name: 'Tasks of Half adder' }).click();
  await page.getByLabel('Title of the exercise').fill('Tickets');
  await page.getByRole('button', { name: 'Add tasks' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel(/^Lesson/).selectOption({ label: 'Ticket adder' });
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(dialog.getByRole('alert')).toHaveText('Choose a sheet first.');
  await dialog.getByLabel('Full adder').check();
  await dialog.getByRole('button', { name: 'Add', exact: true }).click();
  // The full adder of the lesson is made of half adders: what the student built may be used.
  await expect(
    page.getByRole('group', { name: /Blocks that may be used/ }).getByLabel('Half adder'),
  ).toBeChecked();
  await page.getByLabel(/^Points/).fill('3');
  await page.getByLabel(/^Students do them/).selectOption('in order');
  await page.getByRole('button', { name: 'As a student' }).click();
  await hand.ready();
  const task = page.getByRole('region', { name: 'Task' });
  await expect(task.getByRole('button', { name: /^Task 2/ })).toBeDisabled();
  await page.getByRole('button', { name: 'Back to the tasks' }).click();
  await page.getByRole('button', { name: 'Hand out' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the exercise file' }).click();
  const first = JSON.parse(await textOf(await saving));
  expect(first).toMatchObject({ title: 'Tickets', edition: 1, order: 'in order' });
  expect(first.tasks.map((t: { title: string; points: number }) => [t.title, t.points])).toEqual([
    ['Half adder', 1],
    ['Full adder', 3],
  ]);
  await page.getByRole('button', { name: 'Done' }).click();
  await page.reload();
  await expect(page.getByLabel('Title of the exercise')).toHaveValue('Tickets');
  await page.getByRole('textbox', { name: /^Task/ }).fill('Add two bits.');
  await page.getByRole('button', { name: 'Hand out' }).click();
  const again = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the exercise file' }).click();
  const second = JSON.parse(await textOf(await again));
  expect(second).toMatchObject({ id: first.id, edition: 2 });
  expect(second.tasks[0].words).toBe('Add two bits.');
  await page.getByRole('button', { name: 'Done' }).click();
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Tasks of Tickets' })).toContainText('2 tasks · handed out');
});

test('a ready set is taken, tried as a student, and its ladder goes on with what was built', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Tickets/ }).click();
  await expect(page.getByLabel('Title of the exercise')).toHaveValue('Tickets');
  await page.getByRole('button', { name: 'Hand out' }).click();
  const link = await page.getByLabel('Link to the exercise').inputValue();
  await page.goto('about:blank');
  await page.goto(link);
  const hand = new SheetHand(page);
  await hand.ready();
  const task = page.getByRole('region', { name: 'Task' });
  await expect(task.getByText('0 of 7 solved')).toBeVisible();
  await hand.type(4, 4, 'Sum = A xor B');
  await hand.type(4, 14, 'Carry = A and B');
  await check(task);
  await expect(task.getByText('All rows right.')).toBeVisible();
  await expect(task.getByText('1 of 7 solved')).toBeVisible();
  // The half adder is a part of the full adder: two of one’s own blocks and an OR.
  await task.getByRole('button', { name: /^Task 2/ }).click();
  await expect(task.getByText('As blocks:')).toBeVisible();
  await hand.type(4, 4, 'S, C = half adder(A, B)');
  await hand.type(4, 14, 'Sum, D = half adder(S, In)');
  await hand.type(4, 24, 'Carry = C or D');
  await check(task);
  await expect(task.getByText('2 of 7 solved')).toBeVisible();
  await hand.saved();
  await page.reload();
  await hand.ready();
  await expect(task.getByRole('heading', { name: 'Full adder' })).toBeVisible();
  // A row of full adders, each carry led on to the next.
  await task.getByRole('button', { name: /^Task 3/ }).click();
  await hand.type(4, 4, 'P, Q, S, D, C = full adder(A[3:0], B[3:0], C = 0)');
  await hand.type(4, 24, 'Sum = {C, S[3:0]}');
  await check(task);
  await expect(task.getByText('3 of 7 solved')).toBeVisible();
  await task.getByRole('button', { name: /^Task 4/ }).click();
  await hand.type(4, 4, 'P, Q, Tickets, D, C = full adder(Children[15:0], Adults[15:0], C = 0)');
  await check(task);
  await expect(task.getByText('4 of 7 solved')).toBeVisible();
  // One more than a number: half adders in a row, begun with a carry.
  await task.getByRole('button', { name: /^Task 5/ }).click();
  await hand.type(4, 4, 'Next, C = half adder(Riders[3:0], C = 0)');
  await check(task);
  await expect(task.getByText('0 of 16 rows right')).toBeVisible();
  await page.keyboard.press('Control+z');
  await hand.type(4, 4, 'Next, C = half adder(Riders[3:0], C = 1)');
  await check(task);
  await expect(task.getByText('5 of 7 solved')).toBeVisible();
  // To subtract: each bit turned over, and one.
  await task.getByRole('button', { name: /^Task 6/ }).click();
  await hand.type(4, 4, 'n = not Riders[3:0]');
  await hand.type(4, 14, 'P, Q, Free, D, C = full adder(Places[3:0], n[3:0], C = 1)');
  await check(task);
  await expect(task.getByText('6 of 7 solved')).toBeVisible();
  // All of it, chosen by two bits.
  await task.getByRole('button', { name: /^Task 7/ }).click();
  await task.getByRole('button', { name: 'Place the inputs and outputs' }).click();
  for (const line of [
    'm = {Does[0], Does[0], Does[0]}',
    'k = {Does[1], Does[1], Does[1]}',
    'b = B xor m',
    'p, q, s, d, c = full adder(A, b, c = Does[0])',
    'a = A and B',
    'o = A or B',
    'l = (a and not m) or (o and m)',
    'Y = (s and not k) or (l and k)',
  ])
    await hand.type(4, 60, line);
  await check(task);
  await expect(task.getByText('7 of 7 solved')).toBeVisible();
  const given = await handIn(page, 'Ada Sample');
  await page.goto('/marking?exercise=ready-tickets');
  await page.getByLabel('Hand-in files').setInputFiles(asFile('a.handin.json', given));
  const row = page.getByRole('row', { name: /Ada Sample/ });
  await expect(row).toContainText('17 of 17');
});

test('who does not get a rung right goes on with the given one', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Tickets/ }).click();
  await page.getByRole('button', { name: 'As a student' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const task = page.getByRole('region', { name: 'Task' });
  await hand.type(4, 4, 'Sum = A or B');
  await hand.type(4, 14, 'Carry = A and B');
  await check(task);
  await expect(task.getByText('3 of 4 rows right')).toBeVisible();
  await task.getByRole('button', { name: /^Task 5/ }).click();
  await hand.type(4, 4, 'Next, C = half adder(Riders[3:0], C = 1)');
  await check(task);
  await expect(task.getByText('All rows right.')).toHaveCount(0);
  await task.getByRole('button', { name: 'Take the given “Half adder”' }).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Delete');
  await hand.type(4, 4, 'Next, C = given half adder(Riders[3:0], C = 1)');
  await check(task);
  await expect(task.getByText('1 of 7 solved')).toBeVisible();
});

test('words have tables and pictures of circuits, and HTML in them is text', async ({ page }) => {
  const { task } = await handedOut(page, 'drive-interlock', 'Answer in words', async (dialog) => {
    const words = dialog.getByRole('textbox', { name: /^Task/ });
    await words.fill('| Key | Warn |\n| --- | --- |\n| 1 | ? |\n\n<b>loud</b> [away](http://other.example/)');
    await dialog.getByRole('button', { name: 'Picture' }).click();
    await expect(words).toHaveValue(/!\[Drive interlock\]\(picture\)/);
    await expect(dialog.getByRole('img', { name: 'Drive interlock' })).toBeVisible();
    await dialog.getByLabel('Give the circuit of this sheet to the student').uncheck();
  });
  await expect(task.getByRole('img', { name: 'Drive interlock' })).toBeVisible();
  await expect(task.getByRole('columnheader', { name: 'Warn' })).toBeVisible();
  await expect(task.getByText('<b>loud</b>')).toBeVisible();
  await expect(task.getByRole('link')).toHaveCount(0);
});

test('a saved lesson is taken for a hand-in, and a claim that is not true is told', async ({ page }) => {
  const { file, task } = await handedOut(page, 'drive-interlock', 'Give a number', async (dialog) => {
    await dialog.getByLabel(/^Wanted/).selectOption('gates');
  });
  await task.getByLabel(/^Your answer/).fill('3');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save file' }).click();
  const saved = await textOf(await saving);
  const given = await handIn(page, 'Ben Sample');
  await page.getByRole('button', { name: 'Hand in', exact: true }).click();
  await page.getByLabel('Your name').fill('Cleo Sample');
  await page.getByRole('button', { name: 'Copy as text' }).click();
  await expect(page.getByText(/^Copied, .* characters/)).toBeVisible();
  const text = await pasted(page);
  const forged = given.replace('"text": "3"', '"text": "4"');
  expect(forged).not.toBe(given);
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([
      asFile('t.exercise.json', file),
      asFile('Ada Sample.manege.json', saved),
      asFile('b.handin.json', forged),
    ]);
  await expect(page.getByRole('row', { name: /Ada Sample/ })).toContainText('✓ 1 of 1');
  const row = page.getByRole('row', { name: /Ben Sample/ });
  await expect(row).toContainText('✗ 0 of 1');
  await expect(row).toContainText('The file claims another result.');
  await page.getByRole('button', { name: 'Paste', exact: true }).click();
  await page.getByRole('button', { name: 'Take them' }).click();
  await expect(page.getByRole('alert')).toContainText('There is no hand-in in it');
  await page.getByLabel('Text with hand-ins').fill(`Good evening,\n\n${text}\n\nCleo`);
  await page.getByRole('button', { name: 'Take them' }).click();
  await expect(page.getByRole('row', { name: /Cleo Sample/ })).toContainText('✓ 1 of 1');
});

test('the link has the address that students use, and a QR code', async ({ page }) => {
  await page.goto('/');
  await page.locator('a[href="/lesson?id=demo-drive-interlock"]').click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  const address = page.getByPlaceholder('such as http://room12.school:3000');
  if (/localhost/.test(page.url()))
    await expect(page.getByText('This link works on this computer only.')).toBeVisible();
  else await expect(address).toHaveCount(0);
  test.skip(!/localhost/.test(page.url()), 'a page under another name has its address');
  await address.fill('room12.school');
  await expect(page.getByRole('alert')).toHaveText('An address begins with http:// or https://.');
  await address.fill('http://room12.school:3000/anything');
  await expect(page.getByLabel('Link to the exercise')).toHaveValue(
    /^http:\/\/room12\.school:3000\/exercise#/,
  );
  await page.getByRole('button', { name: 'QR code' }).click();
  await expect(page.getByRole('img', { name: 'QR code of the link' })).toBeVisible();
  await page.getByRole('button', { name: 'Back' }).click();
  await page.getByRole('button', { name: 'Make the exercise' }).click();
  await expect(address).toHaveValue('http://room12.school:3000/anything');
});

test('an answer that is not to be learnt is sealed, and opened on another computer by the key file', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto('/');
  await page.locator('a[href="/lesson?id=demo-drive-interlock"]').click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Give a number', { exact: true }).check();
  await dialog.getByLabel(/^Wanted/).selectOption('gates');
  await dialog.getByLabel(/^A check tells/).selectOption('nothing');
  await dialog.getByRole('button', { name: 'Make the exercise' }).click();
  const link = await dialog.getByLabel('Link to the exercise').inputValue();
  const saving = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the exercise file' }).click();
  const file = await textOf(await saving);
  expect(JSON.parse(file).tasks[0]).toMatchObject({ key: null, sealed: { box: expect.any(String) } });
  await dialog.getByRole('button', { name: 'Save the key' }).click();
  await expect(dialog.getByText('Write a passphrase of eight letters or more first.')).toBeVisible();
  await dialog.getByLabel('Passphrase for the key file').fill('carousel at night');
  const savingKey = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the key' }).click();
  const key = await textOf(await savingKey);

  await page.goto('about:blank');
  await page.goto(link);
  await new SheetHand(page).ready();
  const task = page.getByRole('region', { name: 'Task' });
  await expect(task.getByText('This task is marked after you have handed in.')).toBeVisible();
  await task.getByLabel(/^Your answer/).fill('3');
  const given = await handIn(page, 'Ada Sample');

  // The browser that made it has it open.
  await page.goto('/marking');
  await page
    .getByLabel('Hand-in files')
    .setInputFiles([asFile('t.exercise.json', file), asFile('a.handin.json', given)]);
  await expect(page.getByRole('row', { name: /Ada Sample/ })).toContainText('✓ 1 of 1');

  const elsewhere = await browser.newContext({ baseURL: baseURL! });
  const other = await elsewhere.newPage();
  await other.goto('/marking');
  await other
    .getByLabel('Hand-in files')
    .setInputFiles([asFile('t.exercise.json', file), asFile('a.handin.json', given)]);
  const row = other.getByRole('row', { name: /Ada Sample/ });
  await expect(row).toContainText('? to mark');
  await other.getByLabel('Passphrase of the key file').fill('another night');
  await other.getByLabel('Key file', { exact: true }).setInputFiles(asFile('manege.key.json', key));
  await expect(other.getByText('The passphrase is not the one of this file.')).toBeVisible();
  await other.getByLabel('Passphrase of the key file').fill('carousel at night');
  await other.getByLabel('Key file', { exact: true }).setInputFiles(asFile('manege.key.json', key));
  await expect(row).toContainText('✓ 1 of 1');
  await elsewhere.close();
});

test('what is typed on the page of a set is kept, however soon the page is closed', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Interlock/ }).click();
  const words =
    'The drive may run only while the lap bars are locked and nobody stands on the platform. '.repeat(3);
  for (const round of [1, 2]) {
    await page.getByRole('textbox', { name: /^Before all tasks/ }).click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type(`${round}. ${words}`);
    const next = await context.newPage();
    const address = page.url();
    await page.close();
    page = next;
    await page.goto(address);
    await expect(page.getByRole('textbox', { name: /^Before all tasks/ })).toHaveValue(`${round}. ${words}`);
  }
});

test('what a task asks is changed on the page of its set, step by step, and undone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Interlock/ }).click();
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toBeDisabled();
  await page.getByRole('textbox', { name: /^Before all tasks/ }).fill('Mind the **platform**.');
  const tasks = page.getByRole('list', { name: 'Tasks' });
  const open = (title: string) => tasks.getByRole('button', { name: new RegExp(title) }).click();
  // A column more is given, of the table; the last one that is open stays.
  await open('The table');
  await page.getByRole('checkbox', { name: 'Warn' }).uncheck();
  await page.getByRole('checkbox', { name: 'Drive' }).click();
  await expect(page.getByRole('checkbox', { name: 'Drive' })).toBeChecked();
  await open('The smallest sum');
  await page.getByLabel('Most literals').fill('8');
  await expect(page.getByText('6 are enough')).toBeVisible();
  await page.getByLabel(/^Form/).selectOption('product of sums');
  await open('The circuit');
  await page.getByLabel('Most gates').fill('4');
  await page.getByRole('button', { name: 'Remove this task' }).click();
  await expect(tasks.getByRole('listitem')).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(tasks.getByRole('listitem')).toHaveCount(5);
  for (let i = 0; i < 3; i++) await undo.click();
  await open('The smallest sum');
  await expect(page.getByLabel('Most literals')).toHaveValue('6');
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.getByLabel('Most literals')).toHaveValue('8');
  await page.reload();
  await expect(page.getByRole('textbox', { name: /^Before all tasks/ })).toHaveValue(
    'Mind the **platform**.',
  );
  await page.getByRole('button', { name: 'As a student' }).click();
  await new SheetHand(page).ready();
  const task = page.getByRole('region', { name: 'Task' });
  await expect(task.getByText('platform', { exact: true })).toBeVisible();
  await expect(task.getByRole('gridcell', { name: /^Warn/ })).toHaveCount(0);
  await expect(task.getByRole('button', { name: /^Drive in row/ })).toHaveCount(8);
  await page.getByRole('button', { name: 'Back to the tasks' }).click();

  await page.goto('/');
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Lamp chase/ }).click();
  await open('The chase');
  await page.getByRole('checkbox', { name: 'L2' }).uncheck();
  await open('The shortest period');
  await page.getByRole('textbox', { name: 'Value' }).fill('20');
  const unreadable = page.getByText('Write a time with its unit, such as 12.5 ns.');
  await expect(unreadable).toBeVisible();
  await page.getByRole('textbox', { name: 'Value' }).fill('20 ns');
  await expect(unreadable).toHaveCount(0);
  await page.getByLabel(/^May be off by/).fill('5');
  await page.reload();
  await open('The shortest period');
  await expect(page.getByRole('textbox', { name: 'Value' })).toHaveValue('20 ns');
  await expect(page.getByLabel(/^May be off by/)).toHaveValue('5');
});
