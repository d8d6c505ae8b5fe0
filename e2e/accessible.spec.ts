import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { SheetHand, tabTo } from './hand';

// Many pages, each on its own: they may be opened side by side.
test.describe.configure({ mode: 'parallel' });

const views: Record<string, (page: Page) => Promise<void>> = {
  shelf: async (page) => {
    await page.goto('/');
    await expect(page.getByRole('article')).toHaveCount(7);
  },
  'lesson, table': async (page) => {
    await views.shelf!(page);
    await page.getByRole('link', { name: 'Open Drive interlock' }).click();
    await new SheetHand(page).ready();
  },
  'lesson, time': async (page) => {
    await views.shelf!(page);
    await page.getByRole('link', { name: 'Open Lamp chase' }).click();
    await new SheetHand(page).ready();
  },
  'the ring': async (page) => {
    await views['lesson, table']!(page);
    await page.keyboard.press('Space');
    await expect(page.getByRole('menu')).toBeVisible();
  },
  'the typing line': async (page) => {
    await views['lesson, table']!(page);
    await page.keyboard.press('n');
    await expect(page.getByRole('combobox', { name: 'Name of a part' })).toBeVisible();
  },
  'what can be done': async (page) => {
    await views['lesson, table']!(page);
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Shift+F10');
    await expect(page.getByRole('menu', { name: 'What can be done' })).toBeVisible();
  },
  'settings and a table of its own': async (page) => {
    await views['lesson, table']!(page);
    await page.keyboard.press('n');
    await page.keyboard.type('and');
    await expect(page.getByRole('combobox', { name: 'Name of a part' })).toHaveValue('nand');
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('table')).toBeVisible();
  },
  'a problem': async (page) => {
    await views['lesson, table']!(page);
    await page.keyboard.type('nor');
    await page.keyboard.press('Enter');
    await expect(page.getByText('2 open inputs')).toBeVisible();
    await page.keyboard.press('F8');
    await expect(page.getByRole('dialog', { name: 'Open input' })).toBeVisible();
  },
  'formula and map': async (page) => {
    await views['lesson, table']!(page);
    for (const face of ['Formula', 'Map']) {
      await page.getByRole('button', { name: 'Faces' }).click();
      await page.getByRole('menuitemcheckbox', { name: face }).click();
      await expect(page.getByRole('region', { name: face })).toBeVisible();
    }
    await page.getByRole('button', { name: 'Compare forms' }).first().click();
    await expect(page.getByText('all maxterms').last()).toBeVisible();
  },
  'a table that is filled in': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Fill in' }).click();
    await expect(page.getByPlaceholder('Key, Bars, Clear = Drive, Warn')).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('grid', { name: 'Table to fill in' })).toBeFocused();
    await page.keyboard.type('00010001');
    await page.getByRole('button', { name: 'Fill Drive by a formula' }).click();
    await expect(page.getByRole('button', { name: /differ/ })).toBeVisible();
  },
  'a formula that is typed, and the way there': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: 'Formula' }).click();
    const formula = page.getByRole('region', { name: 'Formula' });
    await formula.getByRole('button', { name: 'Why?' }).last().click();
    await formula.getByRole('button', { name: 'Change' }).first().click();
    await formula.getByRole('textbox', { name: 'Formula of Drive' }).fill('Key and Bars or (');
    await page.keyboard.press('Enter');
    await expect(formula.getByRole('alert')).toBeVisible();
  },
  'a table of many inputs': async (page) => {
    await page.goto('/');
    await page.getByRole('button', { name: /New lesson/ }).click();
    const hand = new SheetHand(page);
    await hand.ready();
    await hand.type(4, 4, 'Y = A B C D E F G H I J');
    await expect(page.getByRole('grid', { name: 'Truth table' })).toBeVisible();
  },
  'names of a table, and a file of one': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Fill in' }).click();
    await expect(page.getByText('starting from what the circuit does')).toBeVisible();
  },
  'the same, or not': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('navigation', { name: 'Sheets' }).getByRole('button').first().click();
    await page.getByRole('menuitem', { name: 'Compare with a sheet or formula' }).click();
    await expect(page.getByRole('dialog', { name: 'The same, or not' })).toBeVisible();
  },
  'time with a stimulus, and states': async (page) => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Open Organ drum' }).click();
    await new SheetHand(page).ready();
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: 'States' }).click();
    await expect(page.getByRole('img', { name: /^State diagram/ })).toBeVisible();
    await page.getByRole('button', { name: 'Stimulus', exact: true }).click();
    await page.getByRole('combobox', { name: 'How Forward goes' }).selectOption('levels');
    await expect(page.getByRole('textbox', { name: 'Data of Forward' })).toBeVisible();
  },
  'what follows from the clock': async (page) => {
    await page.goto('/');
    await page.getByRole('link', { name: 'Open Turnstile total' }).click();
    await new SheetHand(page).ready();
    await page.getByRole('button', { name: 'Find out' }).click();
    await expect(page.getByText('Shortest period')).toBeVisible();
  },
  'hand out': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Hand out' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
  },
  exercise: async (page) => {
    await page.goto('/exercise');
    await page.getByLabel('Exercise file').setInputFiles('demo/exercise/warning-lamp.exercise.json');
    await new SheetHand(page).ready();
    await page.getByRole('button', { name: 'Check' }).click();
  },
  marking: async (page) => {
    await page.goto('/marking');
    await page.getByRole('button', { name: /three made-up/ }).click();
    await expect(page.getByRole('row')).toHaveCount(4);
  },
};

for (const theme of ['light', 'dark'] as const)
  for (const [name, open] of Object.entries(views))
    test(`${name} has nothing to complain about (${theme})`, async ({ page }) => {
      await page.emulateMedia({ colorScheme: theme, reducedMotion: 'reduce' });
      await open(page);
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual(
        [],
      );
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
