import { expect, type Page, test } from '@playwright/test';
import { bench, board, dragNext, layAll, layNext, said, typeForBoard } from './bench-hand';
import { Counted } from './counted';
import { emptySheet, handIn } from './hand';
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
  await typeForBoard(
    page,
    '7432',
    'wire U1.14 +',
    'wire U1.7 -',
    'wire Key U1.1',
    'wire Bars U1.2',
    'wire U1.3 Drive',
  );
  await check(task);
  await expect(task.getByText('74HC32 is on the board, and the drawer has none.')).toBeVisible();
  await expect(
    task.getByText(/U1 pin 4, U1 pin 5, U1 pin 9 and U1 pin 10 and 2 more are open/),
  ).toBeVisible();
});

/** The finished drawing of an alarm of three inputs: it sounds while the ride is armed and the gate or a strap is open. */
async function alarm(page: Page): Promise<void> {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Alarm = Armed (Gate + Strap)');
  await expect(page.getByText('all wired')).toBeVisible();
}

/** The alarm as a task on the board, open before a student. */
async function alarmTask(page: Page, guide: string): Promise<Counted> {
  const { hand } = await handedOut(page, alarm, 'Wire it on the board', async (dialog) => {
    await dialog.getByLabel('The guide').selectOption({ label: guide });
  });
  await expect(bench(page).getByRole('button', { name: /^Place 2 packages/ })).toBeEnabled();
  return new Counted(page, hand);
}

const onBar = (page: Page, name: string) => bench(page).getByRole('button', { name, exact: true });

/** Tests a stage, and sees that it is right. */
async function tested(page: Page, me: Counted, stage: number): Promise<void> {
  await me.click(onBar(page, `Test stage ${stage}`));
  await expect(said(page)).toContainText(`Stage ${stage} is right`);
}

async function handedIn(page: Page, me: Counted): Promise<void> {
  await me.click(page.getByRole('button', { name: 'Check' }));
  await expect(page.getByText('All rows right.')).toBeVisible();
  await me.click(page.getByRole('button', { name: 'Hand in', exact: true }));
  await me.keys('Ada');
  const saving = page.waitForEvent('download');
  await me.click(page.getByRole('button', { name: 'Save the hand-in file' }));
  await saving;
}

test('an alarm is wired by hand, stage by stage, tested and handed in', async ({ page }) => {
  const me = await alarmTask(page, 'shows the next wire, and which is wrong');
  await me.click(bench(page).getByRole('button', { name: /^Place 2 packages/ }));
  for (let stage = 0; ; ) {
    const wire = await said(page).textContent();
    if (!wire?.includes('Next')) break;
    await me.carry(() => dragNext(page));
    await expect(said(page)).not.toHaveText(wire);
    const ready = await bench(page)
      .getByRole('button', { name: /^Test (this )?stage/ })
      .textContent();
    const now = Number(ready?.match(/\d+/)?.[0] ?? 0);
    if (now > stage) await tested(page, me, now);
    stage = now;
  }
  await expect(page.getByText('21 of 21 wires')).toBeVisible();
  await handedIn(page, me);
  me.done('An alarm from its drawing to a tested board, by hand', 150);
});

test('an alarm is wired by the guide, stage by stage, tested and handed in', async ({ page }) => {
  const me = await alarmTask(page, 'shows the next wire and lays it on request');
  await me.click(bench(page).getByRole('button', { name: /^Place 2 packages/ }));
  await me.click(onBar(page, 'Lay the supply'));
  for (const stage of [1, 2]) {
    await me.click(onBar(page, 'Lay this stage'));
    await tested(page, me, stage);
  }
  await handedIn(page, me);
  me.done('An alarm from its drawing to a tested board, by the guide', 30);
});
