import { expect, test } from '@playwright/test';
import { emptySheet, SheetHand } from './hand';

const count = (hand: SheetHand) => expect.poll(async () => (await hand.parts()).length);

test('the ring works by a flick of the right button, by clicks and by the arrow keys', async ({ page }) => {
  const hand = await emptySheet(page);
  const ring = page.getByRole('menu', { name: 'Parts to place' });
  // A flick: press, move out to the right of the top, let go.
  const [x, y] = await hand.pixel(18, 22);
  await page.mouse.move(x, y);
  await page.mouse.down({ button: 'right' });
  await expect(ring).toBeVisible();
  await page.mouse.move(x, y - 150, { steps: 4 });
  await page.mouse.up({ button: 'right' });
  await count(hand).toBe(1);
  await expect.poll(() => hand.parts()).toEqual(['AND 1, two-input AND, output X, not wired completely']);
  // Clicks: first a family, then its part.
  await hand.point(40, 22);
  await page.keyboard.press('Space');
  await expect(ring).toBeVisible();
  const [cx, cy] = await hand.pixel(40, 22);
  const inputs = ring.getByRole('menuitem', { name: 'Inputs' });
  await inputs.hover();
  await page.mouse.move(cx, cy);
  await inputs.hover();
  await ring.getByRole('menuitem', { name: 'Switch', exact: true }).click();
  await count(hand).toBe(2);
  // The label is at hand: it is typed, or one goes on.
  await page.keyboard.type('Key');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts())[0]).toBe('Key, switch, 0');
  // Arrow keys: down to the outputs, Enter.
  await hand.point(14, 30);
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await count(hand).toBe(3);
  await expect.poll(async () => (await hand.parts()).at(-1)).toContain('L1, lamp');
  await expect(page.getByRole('dialog', { name: 'Label of L1' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(ring).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(ring).toHaveCount(0);
});

test('a press with the right button that has not moved opens the ring and nothing else, near any edge', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  const ring = page.getByRole('menu', { name: 'Parts to place' });
  const box = (await hand.sheet.boundingBox())!;
  for (const [x, y] of [
    [40, box.height / 2],
    [box.width / 2, 20],
    [box.width - 12, box.height - 12],
  ] as const) {
    await page.mouse.click(box.x + x, box.y + y, { button: 'right' });
    await expect(ring).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(ring).toHaveCount(0);
  }
  // A stroke straight up near the edge means the same there: the first family, and its first part.
  await page.mouse.move(box.x + 40, box.y + box.height - 40);
  await page.mouse.down({ button: 'right' });
  // In few moves: each waits for the page, and a hand that rests for long on its way looks at the ring.
  await page.mouse.move(box.x + 40, box.y + box.height - 190, { steps: 2 });
  await page.mouse.up({ button: 'right' });
  await expect.poll(async () => (await hand.parts()).join()).toContain('two-input AND');
  expect(await hand.parts()).toHaveLength(1);
});

test('what is typed is understood, completed, or answered in words', async ({ page }) => {
  const hand = await emptySheet(page);
  const line = page.getByRole('combobox', { name: 'Name of a part' });
  await hand.point(10, 8);
  await page.keyboard.type('xn');
  await expect(page.getByRole('option', { name: /XNOR/ })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(line).toHaveValue('xnor ');
  await page.keyboard.type('19');
  await page.keyboard.press('Enter');
  await expect(page.getByText('XNOR does not understand “19”: inputs from 2 to 16.')).toBeVisible();
  await line.fill('xnor 3');
  await page.keyboard.press('Enter');
  await count(hand).toBe(1);
  await expect.poll(async () => (await hand.parts())[0]).toContain('three-input XNOR');
  await page.keyboard.type('A and B');
  await expect(page.getByText('A formula needs a name: Y = A and B?')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(line).toHaveValue('Y = A and B');
  await page.keyboard.press('Enter');
  await count(hand).toBe(5);
  await page.keyboard.press('Escape');
  await page.keyboard.type('3 input nor');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts()).join()).toContain('three-input NOR');
  await page.keyboard.press('Escape');
  await page.keyboard.type('jk flip flop');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts()).join()).toContain('JK flip-flop');
  await page.keyboard.press('Escape');
  await page.keyboard.type('zzz');
  await expect(page.getByText('No part is called “zzz”.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(line).toHaveCount(0);
});

test('copies go over the clipboard, and are cut and pasted with their wires', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw In');
  await hand.type(16, 4, 'lamp Out');
  await hand.drag([6, 4], [14, 4]);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Control+v');
  await count(hand).toBe(4);
  await expect
    .poll(() => hand.parts())
    .toEqual([
      'In, switch, 0, drives Out',
      'In 2, switch, 0, drives Out 2',
      'Out, lamp, from In, shows 0',
      'Out 2, lamp, from In 2, shows 0',
    ]);
  await page.keyboard.press('Control+x');
  await count(hand).toBe(2);
  await page.evaluate(() => navigator.clipboard.writeText('nothing of ours'));
  await page.keyboard.press('Control+v');
  await expect(page.getByText('The clipboard holds no circuit of Manege')).toBeVisible();
  await count(hand).toBe(2);
});

test('label and number of inputs are set beside the part, and bad values are answered there', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(12, 8, 'nand');
  const [x, y] = await hand.pixel(12, 8);
  await page.mouse.dblclick(x, y);
  const settings = page.getByRole('dialog', { name: /Settings of/ });
  await settings.getByLabel('Label').fill('Gate of the ring');
  await settings.getByLabel('Inputs').fill('40');
  await expect(settings.getByRole('alert')).toHaveText('Inputs: from 2 to 16');
  await settings.getByLabel('Inputs').fill('4');
  await page.keyboard.press('Enter');
  await expect(settings).toHaveCount(0);
  await expect.poll(async () => (await hand.parts())[0]).toContain('Gate of the ring, four-input NAND');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.parts())[0]).toContain('NAND 1, two-input NAND');
  await hand.type(30, 8, 'clock');
  await page.keyboard.press('F2');
  await settings.getByLabel('Frequency').fill('0');
  await expect(settings.getByRole('alert')).toHaveText(
    'Frequency: from 0.00001 to 1000000000 Hz, as 4, 2 kHz or 20 ms',
  );
});

test('the wheel zooms to the pointer, dragging paper pans, and everything can be shown', async ({ page }) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Here');
  const flips = async (x: number, y: number) => {
    const before = (await hand.parts())[0]!;
    await page.mouse.click(x, y);
    await expect.poll(async () => (await hand.parts())[0]).not.toBe(before);
  };
  const [x, y] = await hand.pixel(4, 4);
  await page.mouse.move(x, y);
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -200);
  await hand.painted();
  await flips(x, y);
  // Larger now: a place that was paper belongs to the switch.
  await flips(x + 40, y + 10);
  await page.mouse.move(x + 300, y + 300);
  await page.mouse.down();
  await page.mouse.move(x + 400, y + 350, { steps: 5 });
  await page.mouse.up();
  await flips(x + 100, y + 50);
  await page.getByRole('button', { name: 'Show everything' }).click();
  await hand.painted();
  const box = (await hand.sheet.boundingBox())!;
  // Its label stands to the left of it, its value below.
  await flips(box.x + box.width / 2 + 26, box.y + box.height / 2 - 14);
});

test('sheets are added, named, opened, removed with a way back, each with its own circuit', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'sw Key');
  await page.getByRole('button', { name: 'Sheet 1' }).click();
  await page.getByRole('menuitem', { name: 'Add a sheet' }).click();
  await expect(page.getByText('An empty sheet')).toBeVisible();
  await page.getByRole('button', { name: 'Sheet 2' }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name of the sheet' }).fill('Second try');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Sheet 1' }).click();
  await count(hand).toBe(1);
  await page.getByRole('button', { name: 'Second try' }).click();
  await count(hand).toBe(0);
  await page.getByRole('button', { name: 'Second try' }).click();
  await page.getByRole('menuitem', { name: 'Remove' }).click();
  await expect(page.getByRole('button', { name: 'Second try' })).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Second try' })).toBeVisible();
});

test('faces are opened and closed, and gates drawn by either standard', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await new SheetHand(page).ready();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Time' }).click();
  await expect(page.getByRole('slider', { name: 'Moment on the timing diagram' })).toBeVisible();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Truth table' }).click();
  await expect(page.getByRole('grid')).toHaveCount(0);
  const before = await page.getByRole('application').screenshot();
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemradio', { name: /Rectangular/ }).click();
  await expect
    .poll(async () => (await page.getByRole('application').screenshot()).equals(before))
    .toBe(false);
  await page.getByRole('button', { name: 'Help: hands and keys' }).click();
  await expect(page.getByRole('dialog', { name: 'Hands and keys' })).toBeVisible();
});
