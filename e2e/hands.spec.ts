import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { emptySheet, SheetHand, tabTo } from './hand';

const count = (hand: SheetHand) => expect.poll(async () => (await hand.parts()).length);
const says = (hand: SheetHand, part: string) =>
  expect.poll(async () => (await hand.parts()).find((p) => p.startsWith(part)) ?? '');

test('a wire let go over paper offers what fits, and a part put onto a wire goes into it', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await hand.drag([6, 4], [24, 4]);
  const line = page.getByRole('combobox', { name: 'Name of a part' });
  await expect(line).toBeVisible();
  await expect(page.getByText('what fits this wire')).toBeVisible();
  await page.keyboard.type('lamp Drive');
  await page.keyboard.press('Enter');
  await says(hand, 'Key').toBe('Key, switch, 0, drives Drive');
  await hand.type(14, 4, 'not');
  await says(hand, 'Drive').toBe('Drive, lamp, from NOT 1, on');
  // Taken out again with Shift, its wires are one.
  await page.keyboard.press('Shift+Delete');
  await says(hand, 'Drive').toBe('Drive, lamp, from Key, shows 0');
});

test('right after placing, Enter places another and Tab sets its first parameter', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(12, 8, 'nand 3');
  await expect(page.getByText('Enter: another · Tab: inputs')).toBeVisible();
  await page.keyboard.press('Enter');
  await count(hand).toBe(2);
  await page.keyboard.press('Tab');
  const settings = page.getByRole('dialog', { name: /Settings of/ });
  await expect(settings.getByLabel('Inputs')).toBeFocused();
  await page.keyboard.type('4');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => (await hand.parts()).sort())
    .toEqual([expect.stringContaining('NAND 1, three-input'), expect.stringContaining('NAND 2, four-input')]);
  // A digit changes the number of inputs of all gates that are selected.
  await page.keyboard.press('Control+a');
  await page.keyboard.press('2');
  await says(hand, 'NAND 1').toContain('two-input');
  await says(hand, 'NAND 2').toContain('two-input');
});

test('problems are stepped through, and solved by a button', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(20, 10, 'and');
  await hand.type(34, 10, 'lamp');
  await hand.drag([23, 10], [32, 10]);
  await page.keyboard.press('F8');
  const panel = page.getByRole('dialog', { name: 'Open input' });
  await expect(panel).toContainText('Input A of AND 1 is open');
  await page.keyboard.press('F8');
  await expect(panel).toContainText('Input B of AND 1 is open');
  await panel.getByRole('button', { name: 'Make it 1' }).click();
  await page.keyboard.press('F8');
  await panel.getByRole('button', { name: 'Put a switch there' }).click();
  await expect(page.getByText('all wired')).toBeVisible();
  await says(hand, 'L1').toBe('L1, lamp, from AND 1, shows 0');
  await page.keyboard.press('F8');
  await expect(page.getByText('Every input is wired, and nothing is wrong.')).toBeVisible();
});

test('a wire let go over paper lists all that fits, what was placed last under the pointer', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw A');
  await hand.type(20, 6, 'nand');
  await hand.drag([6, 4], [14, 14]);
  const list = page.getByRole('listbox', { name: 'Parts', exact: true });
  await expect(list.getByRole('option').first()).toContainText('NAND');
  for (const name of ['XOR', 'Lamp'])
    await expect(list.getByRole('option', { name: new RegExp(`^${name} `) })).toHaveCount(1);
  // The wheel scrolls the list, not the sheet.
  const last = list.getByRole('option').last();
  await expect(last).not.toBeInViewport();
  const [x, y] = await hand.pixel(14, 14);
  await page.mouse.move(x, y + 40);
  await page.mouse.wheel(0, 5000);
  await expect(last).toBeInViewport();
  await page.mouse.wheel(0, -5000);
  await expect(list.getByRole('option').first()).toBeInViewport();
  // A press where the wire was let go takes the first, low on the sheet as well.
  await page.keyboard.press('Escape');
  await hand.drag([6, 4], [14, 38]);
  await expect(list.getByRole('option').first()).toBeInViewport();
  await page.mouse.click(...(await hand.pixel(14, 38)));
  await expect.poll(async () => (await hand.parts()).join()).toMatch(/NAND 2, two-input NAND, from A/);
});

test('a part that is typed while a wire is selected goes into the wire', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 8, 'sw A');
  await hand.type(30, 8, 'lamp Y');
  await hand.drag([6, 8], [28, 8]);
  await says(hand, 'Y').toContain('from A');
  await hand.click(12, 8);
  await hand.type(20, 24, 'not');
  await says(hand, 'Y').toBe('Y, lamp, from NOT 1, on');
  await says(hand, 'NOT 1').toBe('NOT 1, NOT, from A, output 1, drives Y');
});

test('a gate becomes one of another kind by words, with its label and its wires', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(16, 8, 'nand G1');
  await hand.type(32, 8, 'lamp Y');
  await hand.drag([19, 8], [30, 8]);
  await hand.click(16, 8);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Commands' }).fill('change into');
  await page.keyboard.press('Enter');
  await page.keyboard.type('nor');
  await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveValue('nor');
  await page.keyboard.press('Enter');
  await says(hand, 'G1').toBe('G1, two-input NOR, output X, drives Y, not wired completely');
  await page.keyboard.press('Control+z');
  await says(hand, 'G1').toContain('two-input NAND');
});

test('several parts are selected by the mouse alone', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(6, 4, 'sw A, B');
  await hand.type(20, 6, 'and');
  const select = page.getByRole('button', { name: 'Select several' });
  await select.click();
  await expect(page.getByText('Drag a box round parts')).toBeVisible();
  await hand.drag([0, 0], [10, 14]);
  await expect(page.getByText('Drag a box round parts')).toHaveCount(0);
  await page.keyboard.press('Delete');
  await expect(page.getByText('Removed 2 parts.')).toBeVisible();
  await select.click();
  await page.keyboard.press('Escape');
  await expect(select).toHaveAttribute('aria-pressed', 'false');
});

test('unequal widths explain themselves, and a number is typed into a bank of switches', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(6, 8, 'sw 4 Count');
  await hand.type(30, 8, 'lamp Third');
  await hand.drag([8, 8], [28, 8]);
  const dialog = page.getByRole('dialog', { name: 'Unequal widths' });
  await expect(dialog).toContainText('This wire has 4 bits, the pin takes 1 bit.');
  await dialog.getByRole('button', { name: 'Take bit 2' }).click();
  await says(hand, 'Slice 1').toContain('slice of 4 bits, bit 2');
  await page.mouse.move(...(await hand.pixel(6, 30)));
  await page.keyboard.press('Escape');
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  const value = page.getByRole('dialog', { name: 'Value of Count' });
  await value.getByRole('textbox').fill('99');
  await expect(value).toContainText('4 bits: from -8 to 15');
  await value.getByRole('textbox').fill('0x6');
  await expect(value).toContainText('0110 = 6 = hex 6');
  await page.keyboard.press('Enter');
  await says(hand, 'Count').toContain('Count, bank of 4 switches, 6');
  await says(hand, 'Third').toContain('on');
});

test('a list at the right button has all that can be done, for parts and for wires', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(6, 6, 'sw Key');
  await hand.type(24, 6, 'lamp Drive');
  await hand.drag([8, 6], [22, 6]);
  const menu = page.getByRole('menu', { name: 'What can be done' });
  await page.mouse.click(...(await hand.pixel(6, 6)), { button: 'right' });
  await menu.getByRole('menuitem', { name: /Repeat/ }).click();
  const repeat = page.getByRole('dialog', { name: 'Repeat' });
  await repeat.getByLabel('Copies').fill('500');
  await expect(repeat).toContainText('a whole number from 1 to 200');
  await repeat.getByLabel('Copies').fill('3');
  await repeat.getByRole('button', { name: 'Repeat' }).click();
  await count(hand).toBe(5);
  await page.mouse.click(...(await hand.pixel(15, 6)), { button: 'right' });
  await menu.getByRole('menuitem', { name: 'Pin a probe here' }).click();
  await says(hand, 'P1').toBe('P1, probe, from Key, shows 0');
  await expect(page.getByRole('columnheader', { name: 'P1' })).toBeVisible();
  await page.mouse.click(...(await hand.pixel(12, 6)), { button: 'right' });
  await menu.getByRole('menuitem', { name: 'teal' }).click();
  await expect(menu).toHaveCount(0);
  // Pointing at a wire tells its value.
  await hand.point(18, 6);
  await expect(page.getByText('Key: 0', { exact: true })).toBeVisible();
});

test('many parts are set at once, and a key is bound to a switch', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(6, 6, 'sw North, South');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('F2');
  const settings = page.getByRole('dialog', { name: 'Settings of 2 parts' });
  await settings.getByLabel('Labels from').fill('A0');
  await settings.getByLabel('Caption').fill('MSB');
  await page.keyboard.press('Enter');
  await says(hand, 'A0').toBe('A0, switch, 0');
  await says(hand, 'A1').toBe('A1, switch, 0');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('F2');
  await page.getByRole('dialog', { name: 'Settings of A0' }).getByLabel('Key').fill('k');
  await page.keyboard.press('Enter');
  await page.keyboard.press('k');
  await says(hand, 'A0').toBe('A0, switch, 1');
  await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveCount(0);
});

test('cells from a spreadsheet become a table; the truth table stands on the sheet and follows', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(6, 6, 'Drive = Key and Bars');
  await hand.type(6, 30, 'truth');
  await says(hand, 'truth table').toBe('truth table of Key, Bars, Drive on the sheet');
  await page.keyboard.press('Escape');
  await hand.type(30, 30, 'note Turn the key first');
  await says(hand, 'note').toBe('note: Turn the key first');
  await page.evaluate(() => navigator.clipboard.writeText('Day\tTickets\nMon\t12\nTue\t15'));
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+v');
  await says(hand, 'table of').toBe('table of Day, Tickets with 2 rows');
});

test('a half adder is built, wired, arranged and tried with the keyboard alone', async ({ page }) => {
  await page.goto('/');
  await tabTo(page, page.getByRole('button', { name: /New lesson/ }));
  await page.keyboard.press('Enter');
  const hand = new SheetHand(page);
  await hand.ready();
  const type = async (text: string) => {
    const line = page.getByRole('combobox', { name: 'Name of a part' });
    await page.keyboard.type(text);
    await expect(line).toHaveValue(text);
    await page.keyboard.press('Enter');
    await expect(line).toHaveCount(0);
    await page.keyboard.press('Escape');
  };
  await type('sw A, B');
  await page.keyboard.press('Control+a');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowLeft');
  await type('xor');
  await type('and');
  await type('lamp Sum, Carry');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Escape');
  /** Chooses the n-th part of the list and wires it by words. */
  const wire = async (nth: number, to: string) => {
    await page.keyboard.press('Escape');
    await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
    await page.keyboard.press('ArrowDown');
    for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowUp');
    for (let i = 0; i < nth; i++) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('/');
    const line = page.getByRole('combobox', { name: /^Wire .* to/ });
    await expect(line).toBeVisible();
    await page.keyboard.type(to);
    await page.keyboard.press('Enter');
    await expect(line).toHaveCount(0);
  };
  await wire(0, 'xor a');
  await wire(1, 'xor b');
  await wire(0, 'and a');
  await wire(1, 'and b');
  await wire(4, 'xor');
  await wire(5, 'and');
  await expect(page.getByText('all wired')).toBeVisible();
  await says(hand, 'A').toContain('drives XOR 1 and AND 1');
  // The end of a wire is moved to another pin, and back.
  await page.keyboard.press('Escape');
  await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
  await page.keyboard.press('ArrowDown');
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+F10');
  const choice = page.getByRole('menuitem', { name: 'Select its wires' });
  while (!(await choice.evaluate((e) => e === document.activeElement)))
    await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.press('/');
  const ends = page.getByRole('combobox', { name: 'Move an end of a wire to' });
  await expect(ends).toBeFocused();
  await page.keyboard.type('carry sum');
  await page.keyboard.press('Enter');
  await says(hand, 'Sum').toContain('from XOR 1 and AND 1');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Shift+F10');
  await page.getByRole('menu', { name: 'What can be done' }).waitFor();
  await page.keyboard.press('Escape');
  // Room is made, and taken back.
  await page.keyboard.press('Alt+ArrowRight');
  await page.keyboard.press('Control+z');
  // Both rows of a half adder that matter are tried by flipping its switches.
  await page.keyboard.press('Escape');
  await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
  await page.keyboard.press('ArrowDown');
  for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await says(hand, 'Sum').toContain('on');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await says(hand, 'Carry').toContain('on');
  await says(hand, 'Sum').toContain('shows 0');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: /its own table/ }).locator('tr[aria-current]')).toHaveText(
    '110',
  );
});

test('a menu is opened and closed faster than the page answers: the key after it keeps its turn', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(10, 10, 'and');
  await page.keyboard.press('Control+a');
  const keys = await context.newCDPSession(page);
  const presses = [
    { key: 'F10', modifiers: 8, windowsVirtualKeyCode: 121 },
    { key: 'Escape', windowsVirtualKeyCode: 27 },
    { key: 'ArrowRight', modifiers: 1, windowsVirtualKeyCode: 39 },
  ];
  // Sent without waiting for an answer: the hand is ahead of the page.
  await Promise.all(
    presses.flatMap((press) => [
      keys.send('Input.dispatchKeyEvent', { type: 'rawKeyDown', code: press.key, ...press }),
      keys.send('Input.dispatchKeyEvent', { type: 'keyUp', code: press.key, ...press }),
    ]),
  );
  await expect(page.getByRole('button', { name: 'Undo' })).toHaveAccessibleDescription(/^Undo: make room/);
  await expect(page.getByRole('menu')).toHaveCount(0);
});

test('large for a projector and back; a sheet is saved as PNG and printed by itself', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Queue selector' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  const before = await hand.sheet.boundingBox();
  await page.keyboard.press('F9');
  await expect(page.locator('html[data-projector="1"]')).toHaveCount(1);
  await page.keyboard.press('F9');
  await page.keyboard.press('F9');
  await expect.poll(() => hand.sheet.boundingBox()).toEqual(before);
  const tab = page.getByRole('button', { name: /^Queue selector/ });
  await tab.click();
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save as a picture (PNG)' }).click();
  const png = readFileSync((await (await saving).path())!);
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBeGreaterThan(1500);
  await page.evaluate(() => {
    window.print = () => {
      document.body.dataset.said = document.querySelector('.printed p')?.textContent ?? '';
      window.dispatchEvent(new Event('afterprint'));
    };
  });
  await tab.click();
  await page.getByRole('menuitem', { name: 'Print' }).click();
  await expect(page.locator('body')).toHaveAttribute('data-said', 'Queue selector · Queue selector');
  await expect(page.locator('.printed')).toHaveCount(0);
});

test.describe('fingers', () => {
  test.use({ hasTouch: true });

  /** Fingers at points of the page, moved together step by step. */
  async function fingers(page: Page, ways: [number, number][][]): Promise<void> {
    const cdp = await page.context().newCDPSession(page);
    const at = (step: number) => ways.map((way, id) => ({ x: way[step]![0], y: way[step]![1], id }));
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) });
    for (let step = 1; step < ways[0]!.length; step++)
      await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(step) });
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  }

  test('place, wire, flip, pan and pinch', async ({ page }) => {
    const hand = await emptySheet(page);
    const pixel = (x: number, y: number) => hand.pixel(x, y);
    await page.touchscreen.tap(...(await pixel(8, 8)));
    // A finger that rests on paper opens the ring.
    const cdp = await page.context().newCDPSession(page);
    const [x, y] = await pixel(22, 22);
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ x, y, id: 0 }] });
    const ring = page.getByRole('menu', { name: 'Parts to place' });
    await expect(ring).toBeVisible();
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    // A tap on the middle is one input more.
    await expect(ring.getByText('2 in')).toBeVisible();
    await page.touchscreen.tap(x, y);
    await expect(ring.getByText('3 in')).toBeVisible();
    await page.touchscreen.tap(x, y - 140);
    await count(hand).toBe(1);
    await expect(page.getByText('3 open inputs')).toBeVisible();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Delete');
    await hand.type(6, 6, 'sw Key');
    await hand.type(24, 6, 'lamp Drive');
    const [from, to] = [await pixel(8.3, 6.3), await pixel(21.8, 5.8)];
    const way = Array.from({ length: 6 }, (_, i): [number, number] => [
      from[0] + ((to[0] - from[0]) * i) / 5,
      from[1] + ((to[1] - from[1]) * i) / 5,
    ]);
    await fingers(page, [way]);
    await says(hand, 'Key').toBe('Key, switch, 0, drives Drive');
    await page.touchscreen.tap(...(await pixel(6, 6)));
    await says(hand, 'Drive').toContain('on');
    // Two fingers apart: twice as large around the point between them.
    const [a, b] = [await pixel(5, 6), await pixel(7, 6)];
    await fingers(page, [
      [a, [a[0] - 14, a[1]], [a[0] - 28, a[1]]],
      [b, [b[0] + 14, b[1]], [b[0] + 28, b[1]]],
    ]);
    // Its edge is now where there was paper.
    const [cx, cy] = await pixel(6, 6);
    await hand.painted();
    await page.touchscreen.tap(cx, cy + 26);
    await says(hand, 'Drive').toContain('shows 0');
    // One finger on paper moves the sheet.
    await fingers(page, [
      [
        [cx + 150, cy + 200],
        [cx + 180, cy + 200],
        [cx + 250, cy + 200],
      ],
    ]);
    await page.touchscreen.tap(cx + 100, cy);
    await says(hand, 'Drive').toContain('on');
  });
});
