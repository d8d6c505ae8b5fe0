import { expect, test } from '@playwright/test';
import { emptySheet, SheetHand } from './hand';

test('whoever begins with something else than a switch and a lamp is not told of them', async ({ page }) => {
  const hand = await emptySheet(page);
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps).toContainText('choose a switch');
  await hand.type(10, 10, 'dff');
  await expect(steps).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(steps).toContainText('choose a switch');
});

for (const [width, height] of [
  [1280, 800],
  [1024, 700],
] as const)
  test(`the first minute at ${width} x ${height}: ring, label, typing, wire, flip, row, hand out`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    await page.goto('/');
    await page.getByRole('button', { name: /New lesson/ }).click();
    const hand = new SheetHand(page);
    await hand.ready();
    const steps = page.getByRole('region', { name: 'First steps' });
    await expect(steps).toContainText('choose a switch');
    // Place: through the ring, then by typing.
    await hand.point(6, 8);
    await page.keyboard.press('Space');
    const ring = page.getByRole('menu', { name: 'Parts to place' });
    await ring.getByRole('menuitem', { name: 'Inputs' }).hover();
    await ring.getByRole('menuitem', { name: 'Switch', exact: true }).click();
    await expect(page.getByRole('dialog', { name: 'Label of S1' })).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(steps).toContainText('Now a lamp');
    await hand.type(24, 8, 'lamp Drive');
    // An open input is counted, and is no problem.
    await expect(page.getByRole('button', { name: '1 open input' })).toBeVisible();
    await expect(steps).toContainText('Drag from the pin');
    // A wire, begun and ended a little beside the pins.
    await hand.drag([8.7, 8.4], [21.4, 7.5]);
    await expect(page.getByText('all wired')).toBeVisible();
    await expect(steps).toContainText('Press the switch');
    await hand.click(6, 8);
    await expect.poll(async () => (await hand.parts()).at(-1)).toBe('Drive, lamp, from S1, on');
    await expect(steps).toContainText('Press another row');
    await page.locator('[data-row="0"]').first().click();
    await expect.poll(async () => (await hand.parts())[0]).toContain('S1, switch, 0');
    await expect(steps).toContainText('Hand out');
    await page.getByRole('button', { name: 'Hand out' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(steps).toHaveCount(0);
    // Never again: not on the next lesson either.
    await page.goto('/');
    await page.getByRole('button', { name: /New lesson an/ }).click();
    await expect(page.getByText('An empty sheet')).toBeVisible();
    await expect(page.getByText('all wired')).toHaveCount(0);
    await page.keyboard.press('Space');
    await expect(ring).toBeVisible();
    await expect(steps).toHaveCount(0);
  });

test.describe('by touch', () => {
  test.use({ hasTouch: true, isMobile: true });

  test('the first minute: the ring under a resting finger, a wire, a flip', async ({ page }) => {
    await page.goto('/');
    await page.getByRole('button', { name: /New lesson/ }).tap();
    const hand = new SheetHand(page);
    await hand.ready();
    // No word of keys that a tablet has not.
    await expect(page.getByText('Hold a finger on the paper').first()).toBeVisible();
    await expect(page.getByText(/Space|type/)).toHaveCount(0);
    const cdp = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', at: [number, number][]) =>
      cdp.send('Input.dispatchTouchEvent', {
        type,
        touchPoints: at.map(([x, y], id) => ({ x, y, id })),
      });
    const ring = page.getByRole('menu', { name: 'Parts to place' });
    /** Rests on paper until the ring is there, lets go, and taps a family and one of its parts. */
    const place = async (x: number, y: number, family: string, part: string) => {
      await touch('touchStart', [await hand.pixel(x, y)]);
      await expect(ring).toBeVisible();
      await touch('touchEnd', []);
      await ring.getByRole('menuitem', { name: family }).tap();
      await ring.getByRole('menuitem', { name: part, exact: true }).tap();
      await expect(ring).toHaveCount(0);
    };
    await place(16, 20, 'Inputs', 'Switch');
    await expect(page.getByRole('dialog', { name: 'Label of S1' })).toBeVisible();
    await page.keyboard.type('Key');
    await page.keyboard.press('Enter');
    await place(32, 20, 'Outputs', 'Lamp');
    await page.keyboard.press('Escape');
    await expect.poll(async () => (await hand.parts()).length).toBe(2);
    const [from, to] = [await hand.pixel(18, 20), await hand.pixel(30, 20)];
    await touch('touchStart', [from]);
    for (let i = 1; i <= 6; i++) await touch('touchMove', [[from[0] + ((to[0] - from[0]) * i) / 6, from[1]]]);
    await touch('touchEnd', []);
    await expect.poll(async () => (await hand.parts())[0]).toBe('Key, switch, 0, drives L1');
    await page.touchscreen.tap(...(await hand.pixel(16, 20)));
    await expect.poll(async () => (await hand.parts()).at(-1)).toBe('L1, lamp, from Key, on');
  });
});
