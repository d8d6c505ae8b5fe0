import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { Counted } from './counted';
import { emptySheet, SheetHand, tabTo, textOf } from './hand';

const time = (page: Page) => page.getByRole('region', { name: 'Time' });
const slider = (page: Page) => page.getByRole('slider', { name: 'Moment on the timing diagram' });

async function open(page: Page, lesson: string): Promise<SheetHand> {
  await page.goto('/');
  await page.getByRole('link', { name: `Open ${lesson}` }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  return hand;
}

/** On by half periods from the keyboard. */
async function halves(page: Page, count: number): Promise<void> {
  await tabTo(page, slider(page));
  for (let i = 0; i < count; i++) await page.keyboard.press('ArrowRight');
}

/** Presses a lane's name; the first lane is number 0. */
async function lane(page: Page, nth: number, more = false): Promise<void> {
  const box = (await slider(page).boundingBox())!;
  const lanes = Number(await slider(page).getAttribute('data-lanes'));
  const height = Math.min(72, Math.max(26, (box.height - 34 - 8) / lanes));
  if (more) await page.keyboard.down('Shift');
  await page.mouse.click(box.x + 60, box.y + 34 + height * (nth + 0.5));
  if (more) await page.keyboard.up('Shift');
}

test('the eleventh state of the ripple counter is found, lives for 23 ns, and says why it ends', async ({
  page,
}) => {
  await open(page, 'Ride timer');
  await halves(page, 26);
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '2.6 µs');
  // Clock, then Ripple 0 to 3: grouped, they are read as one number.
  await lane(page, 1);
  await lane(page, 4, true);
  await time(page).getByRole('button', { name: 'Group as one number' }).click();
  await expect(time(page).getByRole('combobox', { name: 'Radix of the lane' })).toHaveValue('unsigned');
  await tabTo(page, slider(page));
  await page.keyboard.press('Home');
  await time(page).getByRole('combobox', { name: 'What is looked for' }).selectOption('value');
  await time(page).getByRole('textbox', { name: 'Value that is looked for' }).fill('10');
  await time(page).getByRole('button', { name: 'Find the next one' }).click();
  // After the tenth falling edge at 2 us: stages 0 and 1 take 15 ns each.
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '2.03 µs');
  await time(page).getByRole('button', { name: 'Mark', exact: true }).click();
  await time(page).getByRole('combobox', { name: 'What is looked for' }).selectOption('change');
  await time(page).getByRole('button', { name: 'Find the next one' }).click();
  await expect(time(page).getByText('23 ns from the mark')).toBeVisible();
  await time(page).getByRole('button', { name: 'Why?' }).click();
  const why = time(page).getByRole('list', { name: 'Why it changed' });
  await expect(why.getByRole('listitem').first()).toContainText(
    /fell at 2\.053 µs because the output of NAND/,
  );
  // Short pulses are counted by lane.
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Short pulses' }).click();
  await page.getByRole('spinbutton', { name: 'Shorter than, in ns' }).fill('30');
  await expect(page.getByRole('button', { name: '23 ns at 2.03 µs' })).toBeVisible();
});

test('the drum is read forwards and backwards off its states', async ({ page }) => {
  await open(page, 'Organ drum');
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'States' }).click();
  const states = page.getByRole('region', { name: 'States' });
  await expect(states).toContainText('Forward = 1: 0 1 2 3 4 5 6 7, then 0 (8 states, forwards)');
  await expect(states).toContainText('Forward = 0: 0 7 6 5 4 3 2 1, then 0 (8 states, backwards)');
  await halves(page, 2);
  await expect(states.getByRole('img', { name: 'State diagram: 8 states, now in 7' })).toBeVisible();
  // A state gets a name, which the order uses.
  await states.getByRole('textbox', { name: 'Name of the present state' }).fill('Last');
  await page.keyboard.press('Enter');
  await expect(states).toContainText('0 1 2 3 4 5 6 Last, then 0');
  await page.keyboard.press('Control+z');
  await expect(states).not.toContainText('Last');
});

test('the turnstile is right at the period that is worked out, and wrong at half of it, where it is marked', async ({
  page,
}) => {
  await open(page, 'Turnstile total');
  await time(page).getByRole('button', { name: 'Find out' }).click();
  const findings = page.getByRole('region', { name: 'Find out' });
  const shortest = await findings.locator('b').first().textContent();
  const ns = Number(/^(\d+) ns$/.exec(shortest!)![1]);
  await expect(findings).toContainText(`= ${ns} ns`);
  await expect(findings).toContainText('to spare');
  /** A custom stimulus for the clock: a period, and the total after six clocks. */
  const totalAt = async (period: number) => {
    await time(page).getByRole('button', { name: 'Stimulus', exact: true }).click();
    const panel = page.getByRole('region', { name: 'Stimulus' });
    const how = panel.getByRole('combobox', { name: 'How Clock goes' });
    if ((await how.inputValue()) !== 'periodic') await how.selectOption('periodic');
    const field = panel.getByRole('textbox', { name: 'Period or frequency of Clock' });
    await field.fill(`${period} ns`);
    await field.press('Enter');
    await expect(field).toHaveValue(`${period} ns`);
    const step = panel.getByRole('textbox', { name: 'Step of Visitors' });
    await step.fill(`${period} ns`);
    await step.press('Enter');
    await panel.getByRole('button', { name: 'Close' }).click();
    await tabTo(page, slider(page));
    await page.keyboard.press('Home');
    await time(page)
      .getByRole('textbox', { name: 'Run to a time' })
      .fill(`${9 * period} ns`);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('button', { name: 'Run', exact: true })).toBeVisible();
    await time(page).getByRole('button', { name: 'Find out' }).click();
    await findings.getByRole('tab', { name: 'Readings' }).click();
    await expect(findings.getByRole('row').nth(7)).toBeVisible();
    const totals: string[] = [];
    for (let n = 1; n < 8; n++)
      totals.push((await findings.getByRole('row').nth(n).getByRole('cell').allInnerTexts()).at(-1)!);
    return totals;
  };
  // The values inside just before each clock.
  const right = await totalAt(ns);
  expect(right).toEqual(['0', '1', '128', '131', '159', '0', '1']);
  await findings.getByRole('tab', { name: 'Clock period' }).click();
  await expect(findings).not.toContainText('Taken too early');
  const wrong = await totalAt(ns / 2);
  expect(wrong).not.toEqual(right);
  await findings.getByRole('tab', { name: 'Clock period' }).click();
  await expect(findings).toContainText('Taken too early');
});

test('a half adder under all combinations is its truth table laid in time', async ({ page }) => {
  const me = new Counted(page, await emptySheet(page));
  await me.line('Sum = A xor B');
  await me.line('Carry = A and B');
  await page.keyboard.press('Escape');
  const begun = new Counted(page, new SheetHand(page));
  await begun.click(page.getByRole('button', { name: 'Faces' }));
  await begun.click(page.getByRole('menuitemcheckbox', { name: 'Time' }));
  await page.keyboard.press('Escape');
  await begun.click(time(page).getByRole('button', { name: 'All rows' }));
  await expect(slider(page)).toHaveAttribute('aria-valuenow', '40000');
  begun.done('Half adder under all combinations, with its diagram', 10);
  // Row r of the table stands in [10 r, 10 r + 10) ns.
  await tabTo(page, slider(page));
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Readings' }).click();
  const rows = page.getByRole('region', { name: 'Find out' }).getByRole('row');
  const read = async (n: number) => (await rows.nth(n).getByRole('cell').allInnerTexts()).join(' ');
  await expect.poll(() => read(1)).toBe('0 s 0 0 0 0');
  expect([await read(2), await read(3), await read(4)]).toEqual([
    '10 ns 0 1 1 0',
    '20 ns 1 0 1 0',
    '30 ns 1 1 0 1',
  ]);
  await rows.nth(4).click();
  const table = page.getByRole('grid', { name: 'Truth table' });
  await expect(table.locator('[data-row="3"]')).toHaveAttribute('data-live', 'true');
});

test('a bit-serial adder is fed the least significant bit first, and read off a row a clock', async ({
  page,
}) => {
  const me = new Counted(page, await emptySheet(page));
  for (const text of [
    'd Carry',
    'clock Clk',
    'Sum = A xor B xor Carry',
    'Carry.D = AB + A Carry + B Carry',
    'Carry.C = Clk',
  ])
    await me.line(text);
  await page.keyboard.press('Escape');
  await time(page).getByRole('button', { name: 'Stimulus', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Stimulus' });
  for (const [name, bits] of [
    ['A', '0110'],
    ['B', '0011'],
  ] as const) {
    await panel.getByRole('combobox', { name: `How ${name} goes` }).selectOption('bits');
    const data = panel.getByRole('textbox', { name: `Data of ${name}` });
    await data.fill(bits);
    await data.press('Enter');
    await panel.getByRole('combobox', { name: `Which bit of ${name} comes first` }).selectOption('least');
    const step = panel.getByRole('textbox', { name: `Step of ${name}` });
    await step.fill('1 s');
    await step.press('Enter');
    await expect(step).toHaveValue('1 s');
  }
  await halves(page, 8);
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Readings' }).click();
  const rows = page.getByRole('region', { name: 'Find out' }).getByRole('row');
  await expect(rows).toHaveCount(5);
  const heading = await rows.first().getByRole('columnheader').allInnerTexts();
  const sum = heading.indexOf('Sum');
  const bits: string[] = [];
  for (let n = 1; n < 5; n++) bits.push((await rows.nth(n).getByRole('cell').allInnerTexts())[sum]!);
  // 6 + 3 are 9, the least significant bit first.
  expect(bits.join('')).toBe('1001');
});

test('fourteen stages divide the clock, as computed and as measured', async ({ page }) => {
  await open(page, 'Ride timer');
  await page
    .getByRole('navigation', { name: 'Sheets' })
    .getByRole('button', { name: 'Fourteen stages' })
    .click();
  await time(page).getByRole('textbox', { name: 'Run to a time' }).fill('1.3 s');
  await page.keyboard.press('Enter');
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '1.3 s', { timeout: 20_000 });
  await time(page).getByRole('button', { name: 'Find out' }).click();
  await page.getByRole('tab', { name: 'Division' }).click();
  const rows = page.getByRole('region', { name: 'Find out' }).getByRole('row');
  await expect(rows).toHaveCount(15);
  const last = await rows.nth(14).getByRole('cell').allInnerTexts();
  // Divides by, frequency, period, measured, first rise, measured: 32 768 Hz by 16 384 are 2 Hz.
  expect(last.slice(0, 2)).toEqual(['16384', '2 Hz']);
  for (let n = 1; n < 15; n++) {
    const [, , period, measured, rise, seen] = await rows.nth(n).getByRole('cell').allInnerTexts();
    expect([measured, seen]).toEqual([period, rise]);
  }
});

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
  await counted.click(time(page).getByRole('button', { name: 'Group as one number' }));
  await expect(time(page).getByText(/^N 4/)).toBeVisible();
  counted.done('A counter’s lanes grouped, read in decimal', 10);
});

test('a run is saved as a dump, and a lane is searched, captioned, hidden and shown', async ({ page }) => {
  await open(page, 'Lamp chase');
  await halves(page, 8);
  await lane(page, 1);
  const bar = time(page);
  await bar.getByRole('button', { name: 'Caption' }).click();
  await page.getByRole('textbox', { name: 'Caption above the lane' }).fill('Lamps');
  await page.keyboard.press('Enter');
  await expect(slider(page)).toHaveAttribute('data-lanes', '10');
  await lane(page, 9);
  await bar.getByRole('button', { name: 'Hide' }).click();
  await expect(slider(page)).toHaveAttribute('data-lanes', '9');
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
