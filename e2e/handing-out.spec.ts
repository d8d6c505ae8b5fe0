import { expect, type Page, test } from '@playwright/test';
import { Counted } from './counted';
import { emptySheet, SheetHand } from './hand';

/** A half adder that is drawn already. */
async function halfAdder(page: Page): Promise<Counted> {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Sum = A xor B');
  await hand.type(4, 14, 'Carry = A and B');
  await hand.saved();
  return new Counted(page, hand);
}

const handOut = (page: Page) => page.getByRole('button', { name: 'Hand out' });
const copy = (page: Page) => page.getByRole('button', { name: 'Copy the link' });
const make = (page: Page) => page.getByRole('button', { name: 'Make the exercise' });

test('a drawn half adder becomes an exercise', async ({ page }) => {
  const me = await halfAdder(page);
  await me.click(handOut(page));
  await expect(page.getByRole('dialog').getByLabel('Title')).toBeFocused();
  await me.keys('Half adder');
  await me.click(make(page));
  await me.click(copy(page));
  await expect(page.getByText('“Half adder” is ready')).toBeVisible();
  me.done('A drawn half adder handed out, the link copied', 25);
});

test('a table of it is predicted', async ({ page }) => {
  const me = await halfAdder(page);
  await me.click(handOut(page));
  await me.click(page.getByLabel('Fill in a table', { exact: true }));
  await me.click(make(page));
  await me.click(copy(page));
  await expect(page.getByText('is ready')).toBeVisible();
  me.done('Its table to be predicted, the link copied', 20);
});

test('a fault is put into it', async ({ page }) => {
  const me = await halfAdder(page);
  await me.click(handOut(page));
  await me.click(page.getByLabel('Find the fault', { exact: true }));
  await expect(page.getByText('The drawing looks sound.', { exact: false })).toBeVisible();
  await me.click(make(page));
  await me.click(copy(page));
  await expect(page.getByText('is ready')).toBeVisible();
  me.done('A fault put into it, the link copied', 30);
});

test('six tasks are gathered from the sheets of three lessons', async ({ page }) => {
  await page.goto('/');
  await page.locator('a[href="/lesson?id=demo-ticket-adder"]').click();
  const hand = new SheetHand(page);
  await hand.ready();
  const me = new Counted(page, hand);
  await me.click(page.getByRole('button', { name: 'Half adder' }).first());
  await me.click(handOut(page));
  await me.click(page.getByRole('button', { name: 'Add to a set' }));
  await me.click(page.getByRole('menuitem', { name: 'A new set' }));
  await me.click(page.getByRole('link', { name: 'All lessons' }));
  await me.click(page.getByRole('link', { name: 'Tasks of Half adder' }));
  const dialog = page.getByRole('dialog');
  const add = async (lesson: string, kind: string | null, sheets: readonly string[]) => {
    await me.click(page.getByRole('button', { name: 'Add tasks' }));
    await me.choose(dialog.getByLabel(/^Lesson/), lesson);
    if (kind) await me.choose(dialog.getByLabel(/^What students do/), kind);
    for (const sheet of sheets) await me.click(dialog.getByLabel(sheet, { exact: true }));
    await me.click(dialog.getByRole('button', { name: 'Add', exact: true }));
    await expect(dialog).toHaveCount(0);
  };
  await add('Ticket adder', null, ['Full adder', 'Four bits']);
  await add('Drive interlock', 'table', ['Drive interlock']);
  await add('Drive interlock', 'map', ['Drive interlock']);
  await add('Queue selector', 'fault', ['Queue selector']);
  await expect(page.getByText('6 tasks, 6 points')).toBeVisible();
  await me.click(handOut(page));
  await me.click(copy(page));
  await expect(page.getByText('is ready')).toBeVisible();
  me.done('Six tasks gathered from three lessons, the link copied', 120);
});
