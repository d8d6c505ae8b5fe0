import { expect, type Page, test } from '@playwright/test';
import { emptySheet, SheetHand } from './hand';

/*
 * Keys typed right after a press reach the element that the press opens. No test here waits between the two.
 */

test('the list of commands takes the letters that follow Ctrl K', async ({ page }) => {
  const hand = await emptySheet(page);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('add a sheet');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listbox', { name: 'Parts on Sheet 2: 0' })).toBeAttached();
  expect(await hand.parts()).toEqual([]);
});

test('statements follow one another without a pause, and Escape ends one', async ({ page }) => {
  const hand = await emptySheet(page);
  for (const line of ['sw Key', 'Drive = Key and Bars', 'sheet Two', 'nor']) {
    await page.keyboard.type(line);
    await page.keyboard.press(line === 'nor' ? 'Escape' : 'Enter');
  }
  await expect(page.getByRole('listbox', { name: 'Parts on Two: 0' })).toBeAttached();
  await page.getByRole('navigation', { name: 'Sheets' }).getByRole('button', { name: 'Sheet 1' }).click();
  await expect.poll(async () => (await hand.parts()).length).toBe(4);
});

test('the settings of a part take its name', async ({ page }) => {
  const hand = await emptySheet(page);
  await page.keyboard.type('and');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts()).length).toBe(1);
  await page.reload();
  await hand.ready();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('F2');
  await page.keyboard.type('Turnstile bars');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts())[0]).toContain('Turnstile bars');
});

test('the table to fill in takes its names', async ({ page }) => {
  await emptySheet(page);
  await page.getByRole('button', { name: 'Fill in a table' }).click();
  await page.keyboard.type('Key, Bars, Clear = Drive');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('grid', { name: 'Table to fill in' })).toBeFocused();
  await expect(page.getByRole('columnheader', { name: 'Clear' })).toBeVisible();
});

test('“Hand out” takes the title, a menu its arrow keys', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.keyboard.type('The bars');
  await expect(page.getByRole('dialog').getByLabel('Title')).toHaveValue(/The bars$/);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('menuitemcheckbox').first()).toBeFocused();
});

test('what a statement says of a name holds from then on: a loop is closed, a lamp redefined, one step of undo each', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  const line = page.getByRole('combobox', { name: 'Name of a part' });
  const draw = async (statement: string) => {
    await page.keyboard.type(statement);
    await expect(line).toHaveValue(statement);
    await page.keyboard.press('Enter');
    await expect(line).toHaveCount(0);
  };
  await draw('Q = nor(R, P)');
  await expect.poll(() => hand.parts()).toContain('P, switch, 0, drives NOR 1');
  await draw('P = nor(S, Q)');
  await expect(page.getByText(/P is no longer a switch: the statement drives it\./)).toBeVisible();
  await expect
    .poll(() => hand.parts())
    .toContain('NOR 2, two-input NOR, from S and NOR 1, output 0, drives NOR 1 and P');
  await draw("P = S' Q'");
  await expect(page.getByText(/P is redefined\./)).toBeVisible();
  await expect.poll(async () => (await hand.parts()).filter((p) => p.startsWith('NOR'))).toHaveLength(1);
  for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z');
  await expect.poll(() => hand.parts()).toContain('P, switch, 0, drives NOR 1');
});

test('a statement of two hundred letters arrives whole, however late its line is', async ({ page }) => {
  const hand = await emptySheet(page);
  const statement = `Z = ${Array.from({ length: 32 }, (_, i) => `N${i}`).join(' xor ')}`;
  await hand.point(4, 4);
  await page.keyboard.type(statement);
  await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveValue(statement);
});

test('Tab goes on to the list of parts, however late the tools of the drawing are', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Ticket adder' }).click();
  await page.getByRole('application').click({ position: { x: 20, y: 20 } });
  for (const key of ['Escape', 'Tab', 'ArrowDown', 'Enter']) await page.keyboard.press(key);
  await expect(page.getByRole('dialog').getByRole('textbox')).toBeFocused();
});

test.describe('with scripts that come late', () => {
  /** @returns lets the scripts come that are asked for from now on. */
  async function scriptsComeLate(page: Page): Promise<() => void> {
    let come = () => {};
    const late = new Promise<void>((resolve) => {
      come = resolve;
    });
    await page.route('**/_next/static/**', async (route) => {
      await late;
      await route.continue();
    });
    return come;
  }

  /** A fresh sheet on which a statement was typed; the scripts that draw it come when `come` is called. */
  async function typedTooEarly(page: Page) {
    const hand = await emptySheet(page);
    const come = await scriptsComeLate(page);
    await page.keyboard.type('Drive = Key and Bars');
    await page.keyboard.press('Enter');
    return { hand, come };
  }

  test('a button that is pressed before what was typed has arrived is pressed after it', async ({ page }) => {
    const { hand, come } = await typedTooEarly(page);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Faces' }).click();
    come();
    await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
    await expect(page.getByRole('region', { name: 'Formula' })).toContainText('Drive = ');
    expect((await hand.parts()).length).toBe(4);
  });

  test('a button that is held down until what was typed has arrived is pressed', async ({ page }) => {
    const { hand, come } = await typedTooEarly(page);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Faces' }).hover();
    await page.mouse.down();
    come();
    await expect.poll(async () => (await hand.parts()).length).toBe(4);
    await page.mouse.up();
    await expect(page.getByRole('menuitemcheckbox', { name: 'Formula' })).toBeVisible();
  });

  /** Faces is pressed on a fresh sheet and left with Escape, before its menu has come. */
  async function facesLeftTooEarly(page: Page) {
    const hand = await emptySheet(page);
    const come = await scriptsComeLate(page);
    const faces = page.getByRole('button', { name: 'Faces' });
    await faces.click();
    await page.keyboard.press('Escape');
    return { hand, come, faces };
  }

  test('a menu that comes late leaves alone what is typed on the sheet meanwhile', async ({ page }) => {
    const { hand, come, faces } = await facesLeftTooEarly(page);
    await page.getByRole('application').click({ position: { x: 200, y: 200 } });
    await page.keyboard.type('Drive = Key and Bars');
    for (const key of ['Enter', 'Escape']) await page.keyboard.press(key);
    await faces.click();
    come();
    await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
    expect((await hand.parts()).length).toBe(4);
  });

  test('a menu is opened that has come while it was pressed once more', async ({ page }) => {
    const { hand, come, faces } = await facesLeftTooEarly(page);
    await page.keyboard.type('Drive = Key');
    await page.keyboard.press('Enter');
    await faces.click();
    come();
    await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
    expect((await hand.parts()).length).toBe(2);
  });

  test('a dialog that comes late is no longer wanted after a press on the sheet', async ({ page }) => {
    const hand = await emptySheet(page);
    const come = await scriptsComeLate(page);
    await page.getByRole('button', { name: 'Hand out' }).click();
    await page.getByRole('application').click({ position: { x: 200, y: 200 } });
    await page.keyboard.type('Drive = Key and Bars');
    await page.keyboard.press('Enter');
    come();
    await expect.poll(async () => (await hand.parts()).length).toBe(4);
    await expect(page.getByRole('dialog')).toHaveCount(0);
  });

  test('a dialog that could not be fetched opens once it was fetched again', async ({ page }) => {
    await emptySheet(page);
    await page.route('**/_next/static/**', (route) => route.abort());
    await page.getByRole('button', { name: 'Hand out' }).click();
    const alert = page.getByRole('alert').filter({ hasText: 'Hand out' });
    await expect(alert).toBeVisible();
    await page.unroute('**/_next/static/**');
    await alert.getByRole('button', { name: 'Try again' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
  });

  test('a link that is pressed before what was typed has arrived is followed after it', async ({ page }) => {
    const { come } = await typedTooEarly(page);
    await page.getByRole('link', { name: 'All lessons' }).click();
    come();
    await page.getByRole('link', { name: /^Open New lesson/ }).click();
    const hand = new SheetHand(page);
    await hand.ready();
    await expect.poll(async () => (await hand.parts()).length).toBe(4);
  });
});
