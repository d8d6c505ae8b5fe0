import { expect, type Page, test } from '@playwright/test';
import { Counted } from './counted';
import { emptySheet, type SheetHand } from './hand';
import { lane, time } from './time-hand';

async function begin(page: Page): Promise<Counted> {
  const hand = await emptySheet(page);
  return new Counted(page, hand);
}

/** The columns of the truth table beside the drawing, by the names of its outputs. */
async function expectTable(page: Page, rows: readonly string[]): Promise<void> {
  const grid = page.getByRole('grid');
  await expect(page.getByText('all wired')).toBeVisible();
  for (const [i, row] of rows.entries()) {
    // The table is worked out beside the page, so a row can still be on its way.
    const outputs = async () => {
      const cells = await grid.locator(`[data-row="${i}"]`).getByRole('gridcell').allInnerTexts();
      return cells.join('').replace(/\s/g, '').slice(-row.length);
    };
    await expect.poll(outputs).toBe(row);
  }
}

test('half adder with two switches and two lamps', async ({ page }) => {
  const me = await begin(page);
  await me.line('Sum = A xor B');
  await me.line('Carry = A and B');
  await expectTable(page, ['00', '10', '10', '01']);
  me.done('Half adder, two switches, two lamps', 25);
});

test('full adder of two-level gates', async ({ page }) => {
  const me = await begin(page);
  await me.line("S = A'B'C + A'BC' + AB'C' + ABC");
  await me.line('Co = AB + AC + BC');
  await expectTable(page, ['00', '10', '10', '01', '10', '01', '01', '11']);
  me.done('Full adder of two-level gates', 60);
});

test('one-to-four demultiplexer with enable', async ({ page }) => {
  const me = await begin(page);
  await me.line("Y0 = E D S' T'");
  await me.line("Y1 = E D S' T");
  await me.line("Y2 = E D S T'");
  await me.line('Y3 = E D S T');
  await expectTable(page, [...Array(12).fill('0000'), '1000', '0100', '0010', '0001']);
  me.done('One-to-four demultiplexer with enable', 75);
});

test('multiplexer of four NANDs', async ({ page }) => {
  const me = await begin(page);
  await me.line('Y = (A nand (S nand S)) nand (B nand S)');
  await expect(page.getByText('4 gates')).toBeVisible();
  // Columns A, S, B: A is handed on while S is 0, B while it is 1.
  await expectTable(page, ['0', '0', '0', '1', '1', '1', '0', '1']);
  me.done('Multiplexer of four NANDs', 40);
});

test('three-bit synchronous counter of T flip-flops, forwards and backwards', async ({ page }) => {
  const me = await begin(page);
  await me.line('t Q0, Q1, Q2');
  await me.line('clock Clk');
  await me.line('Q0.T = 1');
  await me.line('Q1.T = Q0 xnor Up');
  await me.line('Q2.T = (Q0 xnor Up)(Q1 xnor Up)');
  for (const n of [0, 1, 2]) await me.line(`Q${n}.C = Clk`);
  for (const n of [0, 1, 2]) await me.line(`L${n} = Q${n}`);
  await expect(page.getByText('all wired')).toBeVisible();
  await me.key('Escape');
  const lamps = async () => {
    const parts = await page
      .getByRole('listbox', { name: /^Parts on/ })
      .getByRole('option')
      .allInnerTexts();
    return [2, 1, 0]
      .map((n) => (parts.find((p) => p.startsWith(`L${n},`))!.endsWith('on') ? '1' : '0'))
      .join('');
  };
  // Up is 0: it counts backwards from 0; two half periods make a step.
  await expect.poll(lamps).toBe('000');
  for (const next of ['111', '110', '101', '100']) {
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await expect.poll(lamps).toBe(next);
  }
  me.done('Three-bit counter of T flip-flops, both ways', 90);
});

test('eight-bit adder-subtractor from a half adder upwards, by blocks', async ({ page }) => {
  test.slow();
  const me = await begin(page);
  for (const line of [
    'sheet half',
    'S = a xor b',
    'C = a and b',
    'sheet full',
    's,c = half(a,b)',
    'S,d = half(s,i)',
    'C = c or d',
    'sheet cell',
    'x = b xor m',
    'S,C = full(a,x,i)',
    'sheet two',
    'S0,c=cell(b0,m,a0,i)',
    'S1,C=cell(b1,m,a1,c)',
    'sheet four',
    'S0,S1,c=two(b0,m,a0,i,b1,a1)',
    'S2,S3,C=two(b2,m,a2,c,b3,a3)',
    'sheet eight',
    'S0,S1,S2,S3,c=four(b0,m,a0,m,b1,a1,b2,a2,b3,a3)',
    'S4,S5,S6,S7,C=four(b4,m,a4,c,b5,a5,b6,a6,b7,a7)',
  ])
    await me.line(line);
  await me.key('Escape');
  await expect(page.getByText('all wired')).toBeVisible();
  // 100 - 58: down the list of inputs, Enter on each that should be 1.
  const inputs = ['b0', 'm', 'a0', ...[1, 2, 3, 4, 5, 6, 7].flatMap((n) => [`b${n}`, `a${n}`])];
  const bit = (value: number, name: string) => (value >> Number(name[1])) & 1;
  await page.keyboard.press('Tab');
  for (const name of inputs) {
    await page.keyboard.press('ArrowDown');
    if (name === 'm' || bit(name.startsWith('a') ? 100 : 58, name)) await page.keyboard.press('Enter');
  }
  const list = page.getByRole('listbox', { name: /^Parts on eight/ });
  const shown = async () => {
    const said = await list.getByRole('option').allInnerTexts();
    return [7, 6, 5, 4, 3, 2, 1, 0]
      .map((n) => (said.find((t) => t.startsWith(`S${n}, lamp`))?.endsWith('on') ? '1' : '0'))
      .join('');
  };
  await expect.poll(shown).toBe((100 - 58).toString(2).padStart(8, '0'));
  me.done('Eight-bit adder-subtractor by blocks', 150);
});

test('eight-bit adder-subtractor of NOR gates only, by blocks and buses, tried', async ({ page }) => {
  test.slow();
  const me = await begin(page);
  for (const line of [
    'sheet cell',
    'p = b nor m',
    'q = (b nor p) nor (m nor p)',
    'x = q nor q',
    'n = a nor x',
    'y = (a nor n) nor (x nor n)',
    'z = y nor i',
    'S = (y nor z) nor (i nor z)',
    'C = n nor z',
    'sheet eight',
    'S,C = cell(B[7:0],M,A[7:0],C=M)',
  ])
    await me.line(line);
  await expect(page.getByText('all wired')).toBeVisible();
  // 100 - 58: down the list of parts, each bus takes a number.
  await me.key('Escape');
  for (const value of ['58', '100']) {
    await me.key('Tab');
    await me.key('ArrowDown');
    await me.key('Enter');
    await expect(page.getByRole('textbox').last()).toBeFocused();
    await me.label(value);
  }
  await me.key('Tab');
  await me.key('ArrowDown');
  await me.key('Enter');
  await expect(page.getByRole('option', { name: /^S, row of 8 lamps/ })).toContainText('42');
  me.done('Eight-bit adder-subtractor of NORs, by blocks and buses', 140);
});

test('ripple decade counter with a display: cut at ten, and its short state found', async ({ page }) => {
  test.slow();
  const me = await begin(page);
  for (const line of [
    't fall clear Q0, Q1, Q2, Q3',
    'Q0, Q1, Q2, Q3.T = 1',
    'clock 1MHz Clk',
    'Q0.C = Clk',
    'Q1.C = Q0',
    'Q2.C = Q1',
    'Q3.C = Q2',
    'Q0, Q1, Q2, Q3.CLR = Q1 Q3',
    'display N',
    'N.A = {Q3, Q2, Q1, Q0}',
  ])
    await me.line(line);
  await expect(page.getByText('all wired')).toBeVisible();
  await me.key('Escape');
  // After nine it starts again at 0.
  for (const digit of '12345678901') {
    for (let half = 0; half < 2; half++) await me.key('ArrowRight');
    await expect(page.getByRole('option', { name: /^N, / })).toContainText(`shows ${digit}`);
  }
  // With the delays of the parts the tenth state is there for a moment.
  await me.choose(time(page).getByRole('combobox', { name: 'Delays' }), 'parts');
  await me.press(() => page.getByRole('button', { name: 'Back to power-up' }).click());
  await me.press(() => time(page).getByRole('textbox', { name: 'Run to a time' }).click());
  await me.keys('11us\n');
  await me.press(() => lane(page, 1));
  await me.key('Enter');
  const menu = page.getByRole('dialog', { name: 'N' });
  await me.choose(menu.getByRole('combobox', { name: 'What is looked for' }), 'value');
  await me.press(() => menu.getByRole('textbox', { name: 'Value that is looked for' }).click());
  await me.keys('10');
  await me.key('Shift+Enter');
  await expect(time(page).getByText('N 10', { exact: true })).toBeVisible();
  me.done('Ripple decade counter with display, its short state found', 200);
});

test('half adder by mouse, through the ring and from pin to pin, labelled and tried', async ({ page }) => {
  const hand = await emptySheet(page);
  const me = new Counted(page, hand);
  for (const [x, y, label] of [
    [8, 14, 'A'],
    [8, 24, 'B'],
  ] as const) {
    await me.ring(x, y, 'Inputs', 'Switch');
    await me.label(label);
  }
  await me.ring(24, 14, 'Gates', 'XOR');
  await me.ring(24, 24, 'Gates', 'AND');
  const gates: [number, number][] = [
    [14, 14],
    [24, 24],
  ];
  for (const [from, onto] of [
    [14, gates[0]![1] - 1],
    [24, gates[0]![1] + 1],
    [14, gates[1]![1] - 1],
    [24, gates[1]![1] + 1],
  ] as const)
    await me.drag([10, from], [21, onto]);
  // A wire let go over paper offers a lamp, the second time at the top.
  for (const [y, label] of [
    [14, 'S'],
    [24, 'C'],
  ] as const) {
    await pull(me, page, hand, [27, y], [36, y], 'Lamp');
    await me.label(label);
  }
  await me.press(() => hand.click(8, 24));
  for (const y of [14, 24, 14]) await me.pressOn(() => hand.click(8, y), false);
  await expectTable(page, ['00', '10', '10', '01']);
  await expect(page.getByText('4 of 4 tried').first()).toBeVisible();
  me.done('Half adder by mouse, labelled and tried', 55);
});

/** A wire from a pin that is let go over paper, and the part that is chosen from the list of what fits. */
async function pull(
  me: Counted,
  page: Page,
  hand: SheetHand,
  from: [number, number],
  to: [number, number],
  name: string,
): Promise<void> {
  await me.drag(from, to);
  const list = page.getByRole('listbox', { name: 'Parts', exact: true }).getByRole('option');
  // It comes to stand with its first line under the hand.
  const [x, y] = await hand.pixel(...to);
  await expect
    .poll(async () => {
      const box = await list.first().boundingBox();
      return box && x > box.x && x < box.x + box.width && y > box.y && y < box.y + box.height;
    })
    .toBe(true);
  const isFirst = (await list.first().textContent())!.startsWith(name);
  if (isFirst) {
    await me.pressOn(() => page.mouse.click(x, y), true);
  } else await me.pressOn(() => list.filter({ hasText: name }).first().click(), false);
}

test('a selector of four NANDs by mouse, labelled', async ({ page }) => {
  const hand = await emptySheet(page);
  const me = new Counted(page, hand);
  await me.ring(16, 14, 'Gates', 'NAND');
  await pull(me, page, hand, [19, 14], [25, 10], 'NAND');
  await pull(me, page, hand, [31, 11], [36, 16], 'NAND');
  await pull(me, page, hand, [36, 18], [31, 22], 'NAND');
  await pull(me, page, hand, [42, 17], [46, 17], 'Lamp');
  await me.label('Y');
  for (const [from, to, label] of [
    [[25, 12], [14, 6], 'A'],
    [[13, 13], [7, 14], 'S'],
    [[25, 23], [7, 24], 'B'],
  ] as const) {
    await pull(me, page, hand, [...from], [...to], 'Switch');
    await me.label(label);
  }
  await me.drag([7, 14], [13, 15]);
  await me.drag([7, 14], [25, 21]);
  // Columns A, S, B: A is handed on while S is 0, B while it is 1.
  await expectTable(page, ['0', '0', '0', '1', '1', '1', '0', '1']);
  me.done('Selector of four NANDs by mouse, labelled', 50);
});

test('a one-to-four demultiplexer by mouse', async ({ page }) => {
  const hand = await emptySheet(page);
  const me = new Counted(page, hand);
  await me.ring(26, 8, 'Gates', 'AND', '3');
  await pull(me, page, hand, [23, 6], [6, 6], 'Switch');
  for (const y of [16, 26, 36]) await pull(me, page, hand, [6, 6], [23, y], 'AND');
  for (const y of [8, 18, 28, 38]) await pull(me, page, hand, [29, y], [38, y], 'Lamp');
  // Two inputs that choose, each led along a column of inputs in one sweep, and bubbles where they are to be 0.
  await pull(me, page, hand, [23, 8], [6, 16], 'Switch');
  await pull(me, page, hand, [23, 10], [6, 24], 'Switch');
  await me.sweep([6, 16], [23, 18], [23, 38]);
  await me.sweep([6, 24], [23, 20], [23, 40]);
  for (const [x, y] of [
    [23, 8],
    [23, 18],
    [23, 10],
    [23, 30],
  ] as const) {
    await me.press(() => hand.rightClick(x, y));
    await me.pressOn(() => page.getByRole('menuitem', { name: 'Invert this input' }).click(), false);
  }
  await expectTable(page, ['0000', '0000', '0000', '0000', '1000', '0100', '0010', '0001']);
  me.done('One-to-four demultiplexer by mouse', 75);
});

test('a JK flip-flop by mouse, set, reset and toggled', async ({ page }) => {
  const hand = await emptySheet(page);
  const me = new Counted(page, hand);
  await me.ring(20, 16, 'Storage', 'JK flip-flop');
  for (const [from, to, kind, label] of [
    [[16, 14], [6, 8], 'Switch', 'J'],
    [[16, 18], [6, 24], 'Switch', 'K'],
    [[16, 16], [6, 16], 'Button', 'C'],
  ] as const) {
    await pull(me, page, hand, [...from], [...to], kind);
    await me.label(label);
  }
  await pull(me, page, hand, [24, 14], [32, 14], 'Lamp');
  await me.label('Q');
  const lamp = page.getByRole('option', { name: /^Q, lamp/ });
  const press = (y: number) => me.pressOn(() => hand.click(4, y), false);
  const [j, c, k] = [8, 16, 24];
  await me.press(() => hand.click(4, j));
  await press(c);
  await expect(lamp).toHaveText(/ on$/);
  for (const y of [j, k, c]) await press(y);
  await expect(lamp).toContainText('shows 0');
  for (const y of [j, c]) await press(y);
  await expect(lamp).toHaveText(/ on$/);
  me.done('JK flip-flop by mouse, labelled and tried', 42);
});
