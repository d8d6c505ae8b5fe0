import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { SheetHand, tabTo } from './hand';
import { crowded } from './room';
import { views } from './views';

// Many pages, each on its own: they may be opened side by side.
test.describe.configure({ mode: 'parallel' });

for (const [name, open] of Object.entries(views))
  test(`${name} has room at three sizes, and nothing to complain about in both themes`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    const refused: string[] = [];
    page.on('console', (m) => /Content Security Policy|Trusted/.test(m.text()) && refused.push(m.text()));
    await page.setViewportSize({ width: 1024, height: 700 });
    await open(page);
    expect(await crowded(page)).toEqual([]);
    await page.setViewportSize({ width: 1280, height: 800 });
    await expect.poll(() => crowded(page)).toEqual([]);
    expect(refused).toEqual([]);
    // Only violations are listed: the list of all that passes takes longer than the checks. No view has frames, for which
    // a page more would be opened.
    const axe = () => new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
    const complaints = async (builder: AxeBuilder) =>
      (await builder.analyze()).violations.map(
        (v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`,
      );
    expect(await complaints(axe())).toEqual([]);
    const paper = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    const light = await paper();
    await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
    await expect.poll(paper).not.toBe(light);
    // The other theme has the same page in other colours.
    expect(await complaints(axe().withRules(['color-contrast']))).toEqual([]);
    // The telephone comes last: popups close where one face is shown at a time.
    await page.setViewportSize({ width: 390, height: 844 });
    await expect.poll(() => crowded(page)).toEqual([]);
  });

test('a part is chosen, flipped, moved and deleted from the keyboard alone', async ({ page }) => {
  await views['lesson, table']!(page);
  const list = page.getByRole('listbox', { name: /^Parts on/ });
  const hand = new SheetHand(page);
  await tabTo(page, list);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await hand.parts())[0]).toBe('Key, switch, 1, drives AND 1 and AND 2');
  await page.keyboard.press('Shift+ArrowDown');
  for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await hand.parts()).length).toBe(7);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await hand.parts()).length).toBe(8);
});

test('a part that is gone to in the list comes into sight', async ({ page }) => {
  await views['lesson, table']!(page);
  const box = (await page.getByRole('application').boundingBox())!;
  await page.mouse.move(box.x + 5, box.y + box.height - 5);
  for (let i = 0; i < 8; i++) await page.mouse.wheel(0, -250);
  await tabTo(page, page.getByRole('listbox', { name: /^Parts on/ }));
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('F2');
  const settings = page.getByRole('dialog', { name: 'Settings of Key' });
  await expect(settings).toBeInViewport({ ratio: 1 });
});

test('a whole sheet is read out part by part', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Ticket adder' }).click();
  const hand = new SheetHand(page);
  await hand.ready();
  await expect.poll(async () => (await hand.parts()).length).toBe(7);
  await expect
    .poll(() => hand.parts())
    .toEqual([
      'Children, bank of 4 switches, 0, drives Block 1',
      'Adults, bank of 4 switches, 0, drives Block 1',
      'note: Ticket adder',
      "note: Children's and adults' tickets are added bit by bit. Go inside the block with two clicks.",
      'Block 1, block Four bits with 2 inputs and 1 output, from Children and Adults, output 0, drives Lamps and Tickets',
      'Lamps, row of 5 lamps, from Block 1, shows 0',
      'Tickets, number of 5 bits, unsigned, from Block 1, shows 0',
    ]);
});
