import { expect, test } from '@playwright/test';
import {
  bench,
  board,
  dragNext,
  hole,
  layAll,
  layNext,
  onBench,
  press,
  said,
  typeForBoard,
} from './bench-hand';
import { face } from './face-hand';
import { emptySheet, tabTo, textOf } from './hand';

test('the interlock is wired by hand stage by stage, with a wrong wire told and mended', async ({ page }) => {
  await onBench(page, 'Drive interlock');
  await expect(said(page)).toHaveText(/^Next: plus to U1 pin 14/);
  await layNext(page);
  await expect(bench(page).getByText('1 of 31 wires')).toBeVisible();
  await press(page, 'Lay the supply');
  await expect(said(page)).toHaveText(/^Next: Key to U\d pin/);
  // A wire that misses its pin by a column is named, and removed by the button beside the message.
  await layNext(page, 1);
  await expect(said(page)).toHaveText(/one column off|hangs on/);
  await press(page, 'Take it away');
  await expect(said(page)).toHaveText(/^Next: Key to U\d pin/);
  await dragNext(page);
  await expect(said(page)).not.toHaveText(/^Next: Key/);
  await layAll(page);
  await expect(said(page)).toHaveText('Everything is wired as the drawing has it.');
  await press(page, /^Test stage \d/);
  await expect(said(page)).toHaveText(/^Stage \d is right in \d+ rows\.$/);
  // Its switches are those of the drawing.
  const key = board(page).locator('text', { hasText: /^Key$/ });
  const at = (await key.boundingBox())!;
  await page.mouse.click(at.x + at.width / 2, at.y - 24);
  await expect(page.getByText('Row 4 of 8')).toBeVisible();
  // Undo takes the last wire away.
  await page.keyboard.press('Control+z');
  await expect(said(page)).toHaveText(/^Next: /);
});

for (const [lesson, off] of [
  ['Queue selector', 2],
  ['Ticket adder', 2],
  ['Ride timer', -2],
] as const)
  test(`the board of the ${lesson} is laid by the guide, wire by wire`, async ({ page }) => {
    test.slow();
    await onBench(page, lesson);
    await expect(said(page)).toHaveText(/^Next: plus to U1 pin/);
    await press(page, 'Lay the supply');
    await expect(said(page)).toHaveText(/^Next: /);
    const first = (await said(page).textContent())!;
    // The second hole is missed by two columns.
    await layNext(page, off);
    await expect(said(page)).not.toHaveText(first);
    await expect(said(page)).toHaveText(/off|hangs on|does nothing|is taken/);
    await page.keyboard.press('Control+z');
    await expect(said(page)).toHaveText(first);
    await layAll(page);
    await expect(said(page)).toHaveText('Everything is wired as the drawing has it.');
    await press(page, /^Test stage \d/);
    await expect(said(page)).toHaveText(/is right in \d+ rows?\.$/);
  });

test('lines are typed for the board, and what is not understood is said', async ({ page }) => {
  await emptySheet(page);
  await face(page, 'Bench');
  await press(page, 'Begin with an empty board');
  await tabTo(page, board(page));
  await page.keyboard.type('7408');
  await page.keyboard.press('Enter');
  await expect(board(page).getByText('U1 74HC08')).toBeVisible();
  const line = bench(page).getByLabel('Type for the board');
  await typeForBoard(
    page,
    'wire U1.14 +',
    'wire gnd U1.7',
    'wire X1.1 U1.1',
    'wire U1.1 U1.2',
    'lamp Glow U1.3',
  );
  await expect(board(page).getByText('Glow')).toBeVisible();
  await line.fill('wire U1.99 U1.1');
  await line.press('Enter');
  await expect(said(page)).toHaveText('U1 has no pin 99.');
  await expect(line).toHaveValue('wire U1.99 U1.1');
  // By keys alone: to a hole, Enter, to another hole, Enter.
  await tabTo(page, board(page));
  for (const key of 'Right Up Up Up'
    .split(' ')
    .map((way) => `Arrow${way}`)
    .concat('Enter', 'ArrowRight', 'ArrowRight', 'Enter'))
    await page.keyboard.press(key);
  await expect(bench(page).getByText('6 wires')).toBeVisible();
  // A hole that is taken is refused, and said.
  const [from, to] = [await hole(page, 'h9'), await hole(page, 'h20')];
  await page.mouse.click(from.x, from.y);
  await page.mouse.click(to.x, to.y);
  await expect(bench(page).getByText('7 wires')).toBeVisible();
  await page.mouse.click(to.x, to.y);
  await page.keyboard.press('Delete');
  await expect(bench(page).getByText('6 wires')).toBeVisible();
});

test('a gate that saves a package is had in the drawing at a press, and the board is placed anew', async ({
  page,
}) => {
  await onBench(page, 'Drive interlock');
  await face(page, 'Bench', false);
  await face(page, 'Chips');
  const chips = page.getByRole('region', { name: 'Chips' });
  await expect(chips.getByRole('figure')).toHaveCount(3);
  await expect(chips.getByText('2 packages if 1 AND is put into a wider AND.')).toBeVisible();
  await chips.getByRole('button', { name: 'Do it in the drawing' }).click();
  await expect(chips.getByRole('figure')).toHaveCount(2);
  await expect(page.getByRole('grid', { name: /Truth table/ }).getByRole('row')).toHaveCount(9);
  await page.keyboard.press('Control+z');
  await expect(chips.getByRole('figure')).toHaveCount(3);
  // The inverter into another unit of its package, by the menu of its unit.
  await chips
    .getByRole('figure', { name: /74HC04/ })
    .getByRole('button', { name: /^Unit/ })
    .click();
  await page.getByRole('menuitem', { name: /unit f$/ }).click();
  await expect(
    chips.getByRole('figure', { name: /74HC04/ }).getByRole('button', { name: /^Unit f/ }),
  ).toBeVisible();
});

test('a package is moved by keys with its wires, a hidden fault is told and mended, and the board is saved', async ({
  page,
}) => {
  await onBench(page, 'Drive interlock');
  await expect(said(page)).toHaveText(/^Next: plus to U1 pin/);
  await press(page, 'Lay all');
  await expect(said(page)).toHaveText('Everything is wired as the drawing has it.');
  await tabTo(page, board(page));
  // To the leg of U3 in column 26, and on to the right.
  for (const key of ['Right', 'Up', 'Up', 'Up', 'Up'].concat(Array(24).fill('Right')))
    await page.keyboard.press(`Arrow${key}`);
  await page.keyboard.press('Enter');
  await expect(bench(page).getByRole('button', { name: 'Turn U3' })).toBeVisible();
  const label = board(page).getByText('U3 74HC08');
  const before = (await label.boundingBox())!.x;
  await page.keyboard.press('ArrowRight');
  await expect(async () => expect((await label.boundingBox())!.x).toBeGreaterThan(before + 10)).toPass();
  await expect(said(page)).toHaveText('Everything is wired as the drawing has it.');
  await page.keyboard.press('Escape');

  await press(page, 'Board');
  await page.getByRole('menuitem', { name: 'Hide a fault' }).click();
  await expect(said(page)).toHaveText('Everything is wired as the drawing has it.');
  await press(page, 'Board');
  await page.getByRole('menuitem', { name: 'Tell and mend the fault' }).click();
  await expect(
    page.getByText(/is dead: its outputs stay at 0|stands the wrong way round|is broken inside/),
  ).toBeVisible();
  await press(page, 'Board');
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save as SVG' }).click();
  const svg = await textOf(await saving);
  expect(svg).toContain('U1 74HC11');
  expect(svg).not.toContain('var(--');
  await press(page, 'Board');
  const picture = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Save as PNG' }).click();
  expect((await picture).suggestedFilename()).toBe('drive-interlock-board.png');
});

test('the ring puts packages and lamps on a board without a drawing, which runs', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  await page.getByRole('application').waitFor();
  await face(page, 'Bench');
  await face(page, 'Truth table', false);
  await bench(page).getByRole('button', { name: 'Begin with an empty board' }).click();
  const names = () => board(page).locator('text').allTextContents();
  const ring = page.getByRole('menu', { name: 'Parts to place' });
  /** Strokes from a hole over a group to what it holds. */
  const stroke = async (from: string, group: string, item: string) => {
    const at = await hole(page, from);
    await page.mouse.move(at.x, at.y);
    await page.mouse.down({ button: 'right' });
    await expect(ring).toBeVisible();
    // A hand goes to where the entry stands once it stands still.
    for (const name of [group, item]) await ring.getByRole('menuitem', { name, exact: true }).hover();
    await page.mouse.up({ button: 'right' });
    await expect(ring).toHaveCount(0);
  };
  await stroke('c12', 'Gates', '74HC08');
  await expect.poll(names).toContain('U1 74HC08');
  await stroke('c21', 'Beside', 'Lamp');
  await expect.poll(names).toContain('X2');
  await typeForBoard(page, 'wire U1.14 +', 'wire U1.7 -', 'wire U1.1 +', 'wire U1.2 X1.1', 'wire U1.3 X2.1');
  const lamp = board(page).locator('[data-device=X2]');
  await expect(lamp).toContainText('0');
  await board(page).locator('[data-device=X1] circle.cursor-pointer').click();
  await expect(lamp).toContainText('1');
  await page.keyboard.press('Control+z');
  await expect(lamp).not.toContainText('1');
});

test('pointing at a wire of the list lights it on the board, and at a gate its pins and wires', async ({
  page,
}) => {
  await onBench(page, 'Drive interlock');
  await press(page, 'Lay all');
  await expect(said(page)).toContainText('Everything is wired');
  await face(page, 'Truth table', false);
  await face(page, 'Chips');
  const chips = page.getByRole('region', { name: 'Chips' });
  const lit = board(page).locator('[data-wire][data-lit]');
  await expect(lit).toHaveCount(0);
  await chips.getByRole('listitem').filter({ hasText: 'X2.1' }).first().hover();
  await expect(lit).toHaveCount(1);
  // The inverter of the drawing.
  const sheet = page.getByRole('application');
  const box = (await sheet.boundingBox())!;
  await page.mouse.move(box.x + 5, box.y + 5);
  await expect(lit).toHaveCount(0);
  const parts = page.getByRole('listbox', { name: /^Parts on/ });
  await expect(parts.getByRole('option', { name: /^NOT/ })).toHaveCount(1);
  const lines = chips.locator('li[data-lit]');
  for (let x = 0.3; x < 0.7 && (await lines.count()) === 0; x += 0.02)
    for (let y = 0.6; y < 0.85 && (await lines.count()) === 0; y += 0.03)
      await page.mouse.move(box.x + box.width * x, box.y + box.height * y);
  await expect(lines.first()).toBeVisible();
  expect(await lit.count()).toBe(await lines.count());
});

test('the plan is printed: parts, packages with their pins, and wires to be ticked off', async ({ page }) => {
  await onBench(page, 'Drive interlock');
  await face(page, 'Chips');
  const chips = page.getByRole('region', { name: 'Chips' });
  await page.evaluate(() => {
    window.print = () => {
      document.body.dataset.said = document.querySelector('.printed')?.textContent ?? '';
      window.dispatchEvent(new Event('afterprint'));
    };
  });
  const print = chips.getByRole('button', { name: 'Print', exact: true });
  if (!(await print.isVisible())) await chips.getByRole('button', { name: 'More for the chips' }).click();
  await print.click();
  const said = page.locator('body[data-said]');
  await expect(said).toHaveCount(1);
  const paper = (await said.getAttribute('data-said'))!;
  for (const text of ['Drive interlock', '74HC11', 'resistor 1 kΩ', '☐ X2.1 to U1.4', 'test: rows 0'])
    expect(paper).toContain(text);
  await expect(page.locator('.printed')).toHaveCount(0);
});

test('pins are noted on the drawing as the plan has them, in the next visit too, until they are switched off', async ({
  page,
}) => {
  await onBench(page, 'Drive interlock');
  const picture = () => page.getByRole('application').screenshot();
  const switched = async (on: boolean) => {
    const chips = page.getByRole('region', { name: 'Chips' });
    if (!(await chips.isVisible())) await face(page, 'Chips');
    const box = chips.getByRole('checkbox', { name: 'Pins on the drawing' });
    if (!(await box.isVisible())) await chips.getByRole('button', { name: 'More for the chips' }).click();
    await box.setChecked(on);
    // An open face leaves the drawing less room.
    await face(page, 'Chips', false);
  };
  await face(page, 'Bench', false);
  const plain = await picture();
  await switched(true);
  await expect.poll(async () => (await picture()).equals(plain)).toBe(false);
  await page.reload();
  await page.getByRole('application').waitFor();
  await expect.poll(async () => (await picture()).equals(plain)).toBe(false);
  await switched(false);
  await expect.poll(async () => (await picture()).equals(plain)).toBe(true);
});

test.describe('with fingers', () => {
  test.use({ hasTouch: true });

  test('wires are tapped and dragged, two fingers move the board, one that rests opens the ring', async ({
    page,
  }) => {
    await onBench(page, 'Ticket adder');
    await face(page, 'Truth table', false);
    const cdp = await page.context().newCDPSession(page);
    type Spot = { x: number; y: number };
    const touch = (type: string, ...touchPoints: Spot[]) =>
      cdp.send('Input.dispatchTouchEvent', {
        type: type as 'touchStart',
        touchPoints: touchPoints.map((spot, id) => ({ ...spot, id })),
      });
    const wires = board(page).locator('[data-wire]');
    const rings = board(page).locator('[data-next] circle');
    const middleOf = async (of: number): Promise<Spot> => {
      const box = (await rings.nth(of).boundingBox())!;
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    for (const i of [0, 1]) {
      const { x, y } = await middleOf(i);
      await page.touchscreen.tap(x, y);
    }
    await expect(wires).toHaveCount(1);
    const [from, to] = [await middleOf(0), await middleOf(1)];
    await touch('touchStart', from);
    await touch('touchMove', { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
    await touch('touchMove', to);
    await touch('touchEnd');
    await expect(wires).toHaveCount(2);
    const before = (await board(page).boundingBox())!;
    const [a, b] = [await hole(page, 'a20'), await hole(page, 'a16')];
    await touch('touchStart', a);
    await touch('touchStart', a, b);
    for (const by of [40, 80, 120])
      await touch('touchMove', { x: a.x - by, y: a.y }, { x: b.x - by, y: b.y });
    await touch('touchEnd');
    await expect.poll(async () => (await board(page).boundingBox())!.x).toBeLessThan(before.x - 60);
    await expect(wires).toHaveCount(2);
    const rest = await hole(page, 'c24');
    await touch('touchStart', rest);
    await expect(page.getByRole('menu', { name: 'Parts to place' })).toBeVisible();
    await touch('touchEnd');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('menu', { name: 'Parts to place' })).toHaveCount(0);
    await expect(wires).toHaveCount(2);
  });
});
