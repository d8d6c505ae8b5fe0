import { expect, type Page } from '@playwright/test';
import { face } from './face-hand';
import { SheetHand } from './hand';
import { lane, laneMenu, slider } from './time-hand';

/** The main views and dialogs, each with the way to it. */
export const views: Record<string, (page: Page) => Promise<void>> = {
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
  chips: async (page) => {
    await views['lesson, table']!(page);
    await face(page, 'Chips');
    await expect(page.getByRole('figure').first()).toBeVisible();
  },
  bench: async (page) => {
    await views['lesson, table']!(page);
    await face(page, 'Bench');
    await expect(page.getByText(/^Next: plus to/)).toBeVisible();
  },
  'a hint': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('link', { name: 'All lessons' }).hover();
    await expect(page.getByRole('tooltip')).toBeVisible();
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
  'the circuit as text': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name: 'Text' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('region', { name: 'Text' }).getByText('endmodule').first()).toBeVisible();
  },
  'a lane and what can be done with it': async (page) => {
    await views['lesson, time']!(page);
    await lane(page, 2);
    await (await laneMenu(page)).waitFor();
  },
  'which signals have lanes': async (page) => {
    await views['lesson, time']!(page);
    await slider(page).waitFor();
    const more = page
      .getByRole('region', { name: 'Time' })
      .getByRole('button', { name: 'More for the time' });
    if (await more.isVisible()) await more.click();
    await page.getByRole('button', { name: 'Lanes', exact: true }).click();
    await expect(page.getByRole('dialog', { name: 'Lanes' })).toBeVisible();
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
  'hand out a fault, a diagram, a number': async (page) => {
    await views['lesson, time']!(page);
    await page.getByRole('button', { name: 'Hand out' }).click();
    for (const kind of ['Find the fault', 'Give a number', 'Complete a diagram'])
      await page.getByLabel(kind, { exact: true }).check();
    await expect(page.getByRole('group', { name: 'The lanes with what is wanted' })).toBeVisible();
  },
  'tasks of an exercise': async (page) => {
    await views['lesson, table']!(page);
    await page.getByRole('button', { name: 'Hand out' }).click();
    await page.getByRole('button', { name: 'Add to a set' }).click();
    await page.getByRole('menuitem', { name: 'A new set' }).click();
    await expect(page.getByText('is begun.', { exact: false })).toBeVisible();
    await page.goto('/');
    await page.getByRole('link', { name: 'Tasks of Drive interlock' }).click();
    await expect(page.getByLabel('Title of the exercise')).toBeVisible();
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
  'how a class stands': async (page) => {
    await page.goto('/marking');
    await page.getByRole('button', { name: /three made-up/ }).click();
    await page.getByRole('button', { name: 'The class' }).click();
    await expect(page.getByRole('figure', { name: 'Where it goes wrong' })).toBeVisible();
  },
};
