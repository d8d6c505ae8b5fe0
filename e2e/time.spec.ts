import { expect, test } from '@playwright/test';
import { SheetHand } from './hand';

const lamps = async (hand: SheetHand) =>
  (await hand.parts()).filter((p) => p.includes(', lamp,') && p.endsWith('on')).map((p) => p.split(',')[0]);

test('the lamp chase runs, pauses, steps by half a period and goes back in time', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Lamp chase' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await expect.poll(() => lamps(hand)).toEqual(['L0']);
  const step = page.getByRole('button', { name: 'Forward half a period' });
  await step.click();
  await expect.poll(() => lamps(hand)).toEqual(['L1']);
  await step.click();
  await expect.poll(() => lamps(hand)).toEqual(['L1']);
  await step.click();
  await expect.poll(() => lamps(hand)).toEqual(['L2']);
  await page.getByRole('button', { name: 'Back half a period' }).click();
  await page.getByRole('button', { name: 'Back half a period' }).click();
  await expect.poll(() => lamps(hand)).toEqual(['L1']);
  await page.getByRole('button', { name: 'Back to now' }).click();
  await expect.poll(() => lamps(hand)).toEqual(['L2']);

  await page.getByRole('button', { name: 'Run' }).click();
  await expect.poll(() => lamps(hand), { timeout: 9000, intervals: [80] }).toEqual(['L4']);
  await page.getByRole('button', { name: 'Pause' }).click();
  const now = await lamps(hand);
  const stood = await page
    .getByRole('slider', { name: 'Moment on the timing diagram' })
    .getAttribute('aria-valuetext');
  for (let frame = 0; frame < 20; frame++) await hand.painted();
  await expect(page.getByRole('slider', { name: 'Moment on the timing diagram' })).toHaveAttribute(
    'aria-valuetext',
    stood!,
  );
  expect(await lamps(hand)).toEqual(now);

  // The cursor is dragged into the past, and on to the very beginning.
  const diagram = page.getByRole('slider', { name: 'Moment on the timing diagram' });
  const box = (await diagram.boundingBox())!;
  await page.mouse.move(box.x + 250, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + 98, box.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Back to now' })).toBeVisible();
  await diagram.press('Home');
  await expect.poll(() => lamps(hand)).toEqual(['L0']);
  await diagram.press('End');
  await expect.poll(() => lamps(hand)).toEqual(now);
  await page.getByRole('button', { name: 'Back to power-up' }).click();
  await expect.poll(() => lamps(hand)).toEqual(['L0']);
});

test('a button is held while it is pressed, and stays held with Shift while another is pressed', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(4, 4, 'button Left, Right');
  await hand.type(16, 6, 'and');
  await hand.type(26, 6, 'lamp Both');
  await hand.drag([6, 4], [13, 5]);
  await hand.drag([6, 9], [13, 7]);
  await hand.drag([19, 6], [24, 6]);
  const values = async () =>
    (await hand.parts()).filter((p) => p.includes('push button')).map((p) => p.split(', ')[2]);
  await hand.point(4, 4);
  await page.mouse.down();
  await expect.poll(values).toEqual(['1', '0']);
  await page.mouse.up();
  await expect.poll(values).toEqual(['0', '0']);
  await hand.click(4, 4, { modifiers: ['Shift'] });
  await expect.poll(values).toEqual(['1', '0']);
  await hand.point(4, 9);
  await page.mouse.down();
  await expect.poll(async () => (await hand.parts()).at(-1)).toBe('Both, lamp, from AND 1, on');
  await page.mouse.up();
  await hand.click(4, 4);
  await expect.poll(values).toEqual(['0', '0']);
});

test('a clock and a flip-flop that are drawn by hand divide by two', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /New lesson/ }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await hand.type(4, 8, 'clock 4 Hz');
  await hand.type(16, 6, 'd');
  await hand.type(28, 4, 'lamp Half');
  await hand.drag([6, 8], [12, 8]);
  await hand.drag([20, 4], [26, 4]);
  await hand.drag([20, 8], [12, 4]);
  await expect(page.getByRole('slider', { name: 'Moment on the timing diagram' })).toBeVisible();
  const step = page.getByRole('button', { name: 'Forward half a period' });
  for (const lit of '110011') {
    await step.click();
    await expect.poll(async () => ((await hand.parts()).at(-1)?.endsWith('on') ? '1' : '0')).toBe(lit);
  }
});

test('the moment on the diagram is told in words and numbers', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Lamp chase' }).click();
  await new SheetHand(page).ready();
  const diagram = page.getByRole('slider', { name: 'Moment on the timing diagram' });
  await expect(diagram).toHaveAttribute('aria-valuetext', '0 s');
  await diagram.press('ArrowRight');
  await expect(diagram).toHaveAttribute('aria-valuetext', '250 ms');
  await diagram.press('ArrowRight');
  await diagram.press('ArrowLeft');
  await expect(diagram).toHaveAttribute('aria-valuetext', '250 ms');
  await expect(diagram).toHaveAttribute('aria-valuemax', '500000000000');
  await page.getByRole('button', { name: 'Run' }).click();
  await expect(diagram).toHaveAttribute('aria-valuetext', 'running');
});
