import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { Counted } from './counted';
import { emptySheet, SheetHand, textOf } from './hand';
import { halves, lane, laneMenu, open, slider, time } from './time-hand';

test('six moments for two inputs, typed; what is out of order is said and nothing is lost', async ({
  page,
}) => {
  const drawn = new Counted(page, await emptySheet(page));
  await drawn.line('Y = A and B');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Time' }).click();
  await page.keyboard.press('Escape');
  const me = new Counted(page, new SheetHand(page));
  await me.click(time(page).getByRole('button', { name: 'Stimulus', exact: true }));
  const panel = page.getByRole('region', { name: 'Stimulus' });
  for (const [name, text] of [
    ['A', '10 1,30 0,50 1'],
    ['B', '20 1,40 0,60 1'],
  ] as const) {
    // The list is opened, and the first letter chooses.
    const how = panel.getByRole('combobox', { name: `How ${name} goes` });
    await me.choose(how, 'levels');
    await me.click(panel.getByRole('textbox', { name: `Data of ${name}` }));
    await me.keys(text);
    await me.key('Enter');
  }
  await expect(panel.getByRole('alert')).toHaveCount(0);
  me.done('A stimulus of six moments for two inputs', 40);
  await panel.getByRole('textbox', { name: 'Data of A' }).fill('30 1, 10 0');
  await page.keyboard.press('Enter');
  await expect(panel.getByRole('alert')).toHaveText(
    '10 ns does not come after 30 ns: give the times in order, each once.',
  );
  await expect(panel.getByRole('textbox', { name: 'Data of A' })).toHaveValue('30 1, 10 0');
  await panel.getByRole('combobox', { name: 'How B goes' }).selectOption('periodic');
  const period = panel.getByRole('textbox', { name: 'Period or frequency of B' });
  await period.fill('0 Hz');
  await period.press('Enter');
  await expect(panel.getByRole('alert').last()).toContainText('A period of 0 is no clock');
  await period.fill('soon');
  await period.press('Enter');
  await expect(page.getByText('“soon” is no time')).toBeVisible();
});

test('an input is drawn on its lane with the pointer, and the diagram is saved as a picture', async ({
  page,
}) => {
  const me = new Counted(page, await emptySheet(page));
  await me.line('Y = not A');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Time' }).click();
  await page.keyboard.press('Escape');
  await time(page).getByRole('button', { name: 'Stimulus', exact: true }).click();
  const box = (await slider(page).boundingBox())!;
  const x = (share: number) => box.x + 112 + share * (box.width - 112);
  await page.mouse.move(x(0.25), box.y + 60);
  await page.mouse.down();
  await page.mouse.move(x(0.5), box.y + 60, { steps: 5 });
  await page.mouse.up();
  // Twelve times 10 ns are shown: a quarter is 30 ns.
  const data = page.getByRole('textbox', { name: 'Data of A' });
  await expect(data).toHaveValue('30 1, 60 0');
  await time(page).getByRole('textbox', { name: 'Run to a time' }).fill('45');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: /^Y, lamp/ })).toContainText('shows 0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(data).toHaveCount(0);
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Readings' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as SVG' }).click();
  expect(await textOf(await saved)).toMatch(/^<svg [\s\S]*<text[^>]*>A<\/text>/);
});

test('a counter is drawn from its numbers, and its lanes are read in decimal', async ({ page }) => {
  await open(page, 'Organ drum');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'States' }).click();
  const states = page.getByRole('region', { name: 'States' });
  await states.getByRole('button', { name: 'Counter from numbers' }).click();
  const dialog = page.getByRole('dialog', { name: 'Counter from numbers' });
  await dialog.getByRole('textbox', { name: 'Numbers in order' }).fill('0 3 0');
  await expect(dialog.getByRole('alert')).toHaveText(/0 stands twice/);
  await dialog.getByRole('textbox', { name: 'Numbers in order' }).fill('0 1 2 4 6');
  await dialog.getByRole('combobox', { name: 'Of' }).selectOption('dff');
  await expect(dialog.getByRole('row').nth(1)).toHaveText('01001');
  await dialog.getByRole('button', { name: 'Draw it' }).click();
  await expect(states).toContainText('0 1 2 4 6, then 0 (5 states)');
  await halves(page, 6);
  const lanes = Number(await slider(page).getAttribute('data-lanes'));
  expect(lanes).toBe(4);
  const counted = new Counted(page, new SheetHand(page));
  await counted.press(() => lane(page, 1));
  await counted.press(() => lane(page, 3, true), 1);
  await counted.keys('g');
  await expect(time(page).getByText(/^N 4/)).toBeVisible();
  counted.done('A counter’s lanes grouped, read in decimal', 10);
});

test('a run is saved as a dump, and a lane is searched, captioned, hidden and shown', async ({ page }) => {
  await open(page, 'Lamp chase');
  await halves(page, 8);
  // With no lane chosen there is nothing to hide or to group, and nothing to undo.
  for (const key of ['h', 'g']) await page.keyboard.press(key);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await lane(page, 1);
  const menu = await laneMenu(page);
  await page.getByRole('textbox', { name: 'Caption above the lane' }).fill('Lamps');
  await page.keyboard.press('Enter');
  await expect(slider(page)).toHaveAttribute('data-lanes', '10');
  await page.keyboard.press('Escape');
  await lane(page, 9);
  await laneMenu(page);
  await menu.getByRole('button', { name: 'Hide' }).click();
  await expect(slider(page)).toHaveAttribute('data-lanes', '9');
  // A flip-flop has a lane of its own without a lamp, and the hidden one is there again.
  await time(page).getByRole('button', { name: 'Lanes', exact: true }).click();
  const all = page.getByRole('dialog', { name: 'Lanes' });
  await expect(all.getByRole('checkbox', { checked: true })).toHaveCount(8);
  await all.getByRole('button', { name: 'Show all' }).click();
  await expect(all.getByRole('checkbox', { checked: false })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Readings' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as VCD' }).click();
  expect(await textOf(await saved)).toMatch(/\$timescale 1 ps \$end[\s\S]*#250000000000/);
});

test('a run is held against what is expected, and against a dump, with the differences marked', async ({
  page,
}) => {
  const hand = await emptySheet(page);
  await hand.type(4, 4, 'Sum = A xor B');
  await hand.type(4, 14, 'Carry = A and B');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Time' }).click();
  await page.keyboard.press('Escape');
  await time(page).getByRole('button', { name: 'All rows' }).click();
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '40000');
  await time(page).getByRole('button', { name: 'Find out' }).click();
  const found = page.getByRole('region', { name: 'Find out' });
  // The run as a dump, for later, and as rows.
  await page.getByRole('tab', { name: 'Readings' }).click();
  const [rows] = await Promise.all([
    page.waitForEvent('download'),
    found.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  expect(
    readFileSync(await rows.path(), 'utf8')
      .split('\r\n')
      .slice(0, 3),
  ).toEqual(['time,A,B,Sum,Carry', '0 s,0,0,0,0', '10 ns,0,1,1,0']);
  const [dump] = await Promise.all([
    page.waitForEvent('download'),
    found.getByRole('button', { name: 'Save as VCD' }).click(),
  ]);
  const saved = readFileSync(await dump.path(), 'utf8');
  await page.getByRole('tab', { name: 'Beside the run' }).click();
  await found.getByRole('button', { name: 'Keep this run as expected' }).click();
  await expect(found.getByRole('status')).toContainText('The same up to 40 ns. 2 lanes are compared');
  // With delays the sum comes 14 ns later: too late for the rows that follow each other every 10 ns.
  await time(page).getByRole('combobox', { name: 'Delays' }).selectOption('parts');
  await page.getByRole('button', { name: 'Back to power-up' }).click();
  await time(page).getByRole('textbox', { name: 'Run to a time' }).fill('40 ns');
  await page.keyboard.press('Enter');
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '40000');
  await expect(found.getByRole('status')).toContainText('Not alike, first at 10 ns.');
  await found.getByRole('listitem').filter({ hasText: 'Sum' }).getByRole('button').first().click();
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '10000');
  // A dump replaces the expected run; a file that is no dump is refused, and the expected run stays.
  const ask = found.getByLabel('Value change dump to lay beside the run');
  const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
  await ask.setInputFiles(file('half.vcd', saved));
  await expect(found.getByRole('status')).toContainText('4 lanes are compared with the file');
  await ask.setInputFiles(file('cut.vcd', saved.slice(0, 60)));
  await expect(page.getByText(/cut\.vcd was not read: /)).toBeVisible();
  await ask.setInputFiles(file('other.vcd', saved.replaceAll(/(\$var wire \d+ \S+) \S+/g, '$1 Nobody')));
  await expect(page.getByText('other.vcd has no signal with the name of one on this sheet.')).toBeVisible();
  await expect(found.getByRole('status')).toContainText('4 lanes are compared with the file');
  // It stays while the inputs are driven otherwise.
  await time(page).getByRole('combobox', { name: 'Delays' }).selectOption('zero');
  await expect(found.getByRole('status')).toContainText('4 lanes are compared with the file');
  await found.getByRole('button', { name: 'Take the file away' }).click();
  await expect(found.getByRole('status')).toContainText('compared with what is expected');
});

test('a bus is drawn on its lane as a number; a driven clock is told as it is driven', async ({ page }) => {
  const hand = await emptySheet(page);
  for (const line of ['clock 1Hz Clk', 'sw 4bit Level', 'd Q', 'Q.C = Clk']) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
  }
  await expect.poll(async () => (await hand.parts()).join()).toContain('from Clk');
  await time(page).getByRole('button', { name: 'Stimulus', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Stimulus' });
  const how = panel.getByRole('combobox', { name: 'How Clk goes' });
  await expect(how).toHaveText(/by its clock/);
  await how.selectOption({ label: 'up and down' });
  // It begins low, as the clock does, and with its period.
  await expect(panel.getByLabel('Period or frequency of Clk')).toHaveValue('1 s');
  await expect(panel.getByLabel('Beginning of Clk')).toHaveValue('1 s');
  await panel.getByLabel('Period or frequency of Clk').fill('2 kHz');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts()).join()).toContain('driven by the stimulus, 2 kHz');

  const box = (await slider(page).boundingBox())!;
  const lanes = Number(await slider(page).getAttribute('data-lanes'));
  expect(lanes).toBe(2);
  const y = box.y + 34 + (box.height - 34) * 0.3;
  await page.mouse.move(box.x + 180, Math.min(y, box.y + 130));
  await page.mouse.down();
  await page.mouse.move(box.x + 260, Math.min(y, box.y + 130), { steps: 4 });
  await page.mouse.up();
  const field = page.getByRole('textbox', { name: /^Value of Level from/ });
  await expect(field).toBeFocused();
  await page.keyboard.type('99');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“99” is no number that fits 4 bits.')).toBeVisible();
  await field.fill('12');
  await page.keyboard.press('Enter');
  await expect(panel.getByLabel('Data of Level')).toHaveValue(/ 12, .* 0$/);
  await panel.getByRole('combobox', { name: 'How Level goes' }).selectOption({ label: 'a value a step' });
  await panel.getByRole('checkbox', { name: 'then 0' }).check();
});

test('a run that was asked for is shown whole, with ticks that read apart', async ({ page }) => {
  const hand = await emptySheet(page);
  for (const line of ['counter 14 clear Bell', 'clock 1Hz Clk', 'Bell.C = Clk', 'Bell.CLR = Reset']) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
  }
  await expect.poll(async () => (await hand.parts()).join()).toContain('from Clk and Reset');
  await time(page).getByRole('textbox', { name: 'Run to a time' }).fill('9 h 10 min');
  await page.keyboard.press('Enter');
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '9 h 10 min', { timeout: 20_000 });
  // 33,000 periods, counted to 16,384; words do not follow a run at full speed, and come after it.
  await expect.poll(async () => (await hand.parts()).join()).toContain('Q is 232');
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Division' }).click();
  const rows = page.getByRole('region', { name: 'Find out' }).getByRole('row');
  await expect(rows).toHaveCount(15);
  const last = await rows.nth(14).getByRole('cell').allInnerTexts();
  expect(last.slice(2)).toEqual([
    '4 h 33 min 4 s',
    '4 h 33 min 4 s',
    '2 h 16 min 31.5 s',
    '2 h 16 min 31.5 s',
  ]);
});

test('choosing a lane moves nothing; lanes shrink, what is out of sight is counted, and a chosen one stays in sight', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1024, height: 700 });
  await open(page, 'Lamp chase');
  const before = (await slider(page).boundingBox())!;
  await lane(page, 3);
  await expect(time(page).getByRole('button', { name: /^What can be done with/ })).toBeVisible();
  await expect(time(page).getByText(/^L2/)).toBeVisible();
  expect((await slider(page).boundingBox())!).toEqual(before);
  await time(page).getByRole('button', { name: 'More for the time' }).click();
  await time(page).getByRole('button', { name: 'Lanes', exact: true }).click();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.keyboard.press('Escape');
  await expect(slider(page)).toHaveAttribute('data-lanes', '13');
  // With less room the lanes have their least height, and the panel beneath scrolls.
  await lane(page, 12);
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await expect(page.getByRole('tab', { name: 'Clock period' })).toBeVisible();
  await expect(time(page).getByText(/out of sight/)).toHaveCount(0);
  const found = page.getByRole('region', { name: 'Find out' });
  const menu = time(page).getByRole('button', { name: /^What can be done with/ });
  await expect
    .poll(async () => {
      const [above, beneath] = [await menu.boundingBox(), await found.boundingBox()];
      return above!.y + above!.height < beneath!.y;
    })
    .toBe(true);
  // In a window half as high some are out of sight, and that is said; the chosen one is brought into sight.
  await page.setViewportSize({ width: 1024, height: 460 });
  await expect(time(page).getByText(/lanes? (is|are) out of sight/)).toBeVisible();
  await expect(time(page).getByRole('button', { name: /^What can be done with/ })).toBeInViewport();
});
