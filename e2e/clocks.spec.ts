import { expect, test } from '@playwright/test';
import { Counted } from './counted';
import { emptySheet, SheetHand, tabTo } from './hand';
import { halves, lane, laneMenu, open, slider, time } from './time-hand';

test('the eleventh state of the ripple counter is found, lives for 23 ns, and says why it ends', async ({
  page,
}) => {
  await open(page, 'Ride timer');
  await halves(page, 26);
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '2.6 µs');
  // Clock, then Ripple 0 to 3: grouped, they are read as one number.
  await lane(page, 1);
  await lane(page, 4, true);
  await (await laneMenu(page)).getByRole('button', { name: 'Group as one number' }).click();
  await expect(slider(page)).toBeFocused();
  await page.keyboard.press('Home');
  const menu = await laneMenu(page);
  await expect(menu.getByRole('combobox', { name: 'Radix of the lane' })).toHaveValue('unsigned');
  await menu.getByRole('combobox', { name: 'What is looked for' }).selectOption('value');
  await menu.getByRole('textbox', { name: 'Value that is looked for' }).fill('10');
  await menu.getByRole('button', { name: 'Find the next one' }).click();
  // After the tenth falling edge at 2 us: stages 0 and 1 take 15 ns each.
  await expect(slider(page)).toHaveAttribute('aria-valuetext', '2.03 µs');
  await time(page).getByRole('button', { name: 'Mark', exact: true }).click();
  await laneMenu(page);
  await menu.getByRole('combobox', { name: 'What is looked for' }).selectOption('change');
  await menu.getByRole('button', { name: 'Find the next one' }).click();
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
  await page.keyboard.press('Escape');

  // So many rows are derived when one asks for them.
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'Table' }).click();
  await page.keyboard.press('Escape');
  const states = page.getByRole('region', { name: 'Truth table' });
  await expect(states.getByText('14 bits of state and inputs make 16,384 rows.')).toBeVisible();
  await states.getByRole('button', { name: 'Derive them' }).click();
  await expect(states.getByRole('grid')).toHaveAttribute('aria-rowcount', '16386');
});
