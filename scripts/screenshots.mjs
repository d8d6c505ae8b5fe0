// Takes the pictures in docs/screenshots again, from the demo data on the built application: `npm run
// screenshots`.
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM, FLAGS } from './chromium.mjs';

const PORT = Number(process.env.MANEGE_TEST_PORT ?? 3212);
const base = `http://localhost:${PORT}`;
const server = spawn('scripts/serve', [String(PORT)], { stdio: 'ignore' });
const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: FLAGS,
});

/** The files of a made-up class, with their exercises. */
function classFiles() {
  const folder = mkdtempSync(join(tmpdir(), 'class-'));
  execFileSync('scripts/run-ts', ['scripts/sample-class.ts', folder, '160', '1']);
  return readdirSync(folder)
    .filter((name) => !name.startsWith('broken'))
    .map((name) => join(folder, name));
}

/** The larger of its two exercises, as the list has it. */
const turnstiles = (page) =>
  page.getByLabel('Exercise', { exact: true }).locator('option', { hasText: 'Turnstiles' }).textContent();

async function tour(theme, names) {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    colorScheme: theme,
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  const shot = async (name) => {
    if (!names.includes(name)) return;
    await page.waitForTimeout(400);
    await page.screenshot({ path: `docs/screenshots/${name}${theme === 'dark' ? '-dark' : ''}.png` });
  };
  const sheet = page.getByRole('application');
  const open = async (title) => {
    await page.goto(base);
    await page.getByRole('link', { name: `Open ${title}` }).click();
    await sheet.waitFor();
    await page.waitForTimeout(300);
  };
  for (let i = 0; i < 100; i++) {
    if (await page.goto(base).catch(() => null)) break;
    await page.waitForTimeout(100);
  }
  await page.getByRole('article').first().waitFor();
  await page.evaluate(() =>
    localStorage.setItem(
      'manege-recent',
      JSON.stringify(['and', 'switch', 'lamp', 'not', 'xor'].map((name, used) => ({ name, used }))),
    ),
  );
  await page.evaluate(() => localStorage.setItem('manege-first-steps', 'ended'));
  await shot('shelf');

  await open('Drive interlock');
  for (const row of [0, 1, 3, 4, 5]) await page.locator(`[data-row="${row}"]`).click();
  await shot('lesson-interlock');
  const box = await sheet.boundingBox();
  await page.mouse.move(box.x + 560, box.y + 430);
  await sheet.focus();
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await page.getByRole('menu').waitFor();
  await page.mouse.move(box.x + 610, box.y + 548);
  await shot('ring');
  await page.keyboard.press('Escape');
  await page.mouse.click(box.x + box.width * 0.62, box.y + box.height * 0.29, { button: 'right' });
  await page.getByRole('menu', { name: 'What can be done' }).waitFor();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Commands' }).fill('turn');
  await page.keyboard.press('Escape');

  await page.getByRole('button', { name: 'Hand out' }).click();
  await page
    .getByLabel(/^Task/)
    .fill(
      'The carousel turns only while the **key** is in, the bars are down *and* the platform is clear.\n\n- Warn while the key is in and a bar is up.',
    );

  await page.goto(base);
  await page.getByRole('button', { name: 'Take a ready set' }).click();
  await page.getByRole('menuitem', { name: /^Tickets/ }).click();
  await page.getByRole('button', { name: /Full adder/ }).click();
  await page.getByRole('textbox', { name: 'Title of the exercise' }).waitFor();
  await shot('tasks');

  await open('Ticket adder');
  for (const [down, value] of [
    [1, '11'],
    [2, '6'],
  ]) {
    await sheet.focus();
    await page.keyboard.press('Escape');
    await page.keyboard.press('Tab');
    for (let i = 0; i < down; i++) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByRole('dialog').getByRole('textbox').fill(value);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 790);
  await shot('lesson-ticket-adder');

  await open('Lamp chase');
  for (let i = 0; i < 17; i++) await page.getByRole('button', { name: 'Forward half a period' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Back half a period' }).click();
  await page.mouse.move(640, 790);
  await shot('lesson-lamp-chase');

  const face = async (name) => {
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name }).click();
    await page.getByRole('region', { name }).waitFor();
  };
  /** Presses the name of a lane of the timing diagram. */
  const lane = async (nth, more = false) => {
    const diagram = page.getByRole('slider', { name: 'Moment on the timing diagram' });
    const box = await diagram.boundingBox();
    const lanes = Number(await diagram.getAttribute('data-lanes'));
    const height = Math.min(72, Math.max(18, (box.height - 42) / lanes));
    if (more) await page.keyboard.down('Shift');
    await page.mouse.click(box.x + 60, box.y + 34 + height * (nth + 0.5));
    if (more) await page.keyboard.up('Shift');
  };
  const runTo = async (time) => {
    await page.getByRole('textbox', { name: 'Run to a time' }).fill(time);
    await page.keyboard.press('Enter');
    await page.waitForTimeout(400);
  };
  await open('Ride timer');
  await runTo('2.3 us');
  await lane(1);
  await lane(4, true);
  await page.keyboard.press('g');
  await runTo('2.07 us');
  const diagram = page.getByRole('slider', { name: 'Moment on the timing diagram' });
  await diagram.focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('+');
  await page.getByRole('button', { name: 'Why?' }).click();
  await page.mouse.move(640, 790);
  await shot('ride-timer');

  await open('Organ drum');
  await face('States');
  await page.getByLabel('Stimulus', { exact: true }).selectOption('There and back');
  await page.waitForTimeout(300);
  await runTo('12.2 s');
  await diagram.focus();
  await page.keyboard.press('0');
  await page.mouse.move(640, 790);
  await shot('states');

  await open('Lamp chase');
  await face('Text');
  await page
    .getByRole('region', { name: 'Text' })
    .getByRole('button', { name: /dff|flip_flop/ })
    .first()
    .click();
  await page.mouse.move(640, 790);
  await shot('text');

  await open('Drive interlock');
  await face('Chips');
  await page.getByRole('figure').first().waitFor();
  await page.getByRole('button', { name: 'More for the chips' }).click();
  await page.getByLabel('Pins on the drawing').check();
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 790);
  await page.waitForTimeout(800);
  await shot('chips');
  await page.keyboard.press('Control+z');
  await face('Bench');
  const bench = page.getByRole('region', { name: 'Bench' });
  await page.getByText(/^Next: plus to/).waitFor();
  for (const name of ['Chips', 'Truth table']) {
    await page.getByRole('button', { name: 'Faces' }).click();
    await page.getByRole('menuitemcheckbox', { name }).click();
    await page.getByRole('region', { name }).waitFor({ state: 'detached' });
  }
  await bench.getByRole('button', { name: 'Lay the supply' }).click();
  for (let i = 0; i < 5; i++) await bench.getByRole('button', { name: 'Lay the next' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Next row' }).click();
  await page.mouse.move(640, 790);
  await shot('bench');

  await open('Queue selector');
  for (const name of ['Formula', 'Map']) await face(name);
  await page.locator('[data-row="5"]').first().click();
  await page.mouse.move(640, 790);
  await shot('functions');
  await open('Drive interlock');
  await page.getByRole('button', { name: 'Fill in' }).click();
  await page.getByPlaceholder('Key, Bars, Clear = Drive, Warn').waitFor();
  await page.keyboard.press('Enter');
  await page.getByRole('grid', { name: 'Table to fill in' }).waitFor();
  await page.keyboard.type('0000001100001100');
  await face('Formula');
  await page.getByLabel('Form', { exact: true }).selectOption('sop');
  await page.mouse.move(640, 790);
  await shot('planned');
  await page.goto(base);
  await page.getByRole('button', { name: /New lesson/ }).click();
  await sheet.waitFor();
  await page.getByRole('button', { name: 'Fill in a table' }).click();
  await page
    .getByPlaceholder('Key, Bars, Clear = Drive, Warn')
    .fill('Key, Bars, Clear, Stop = Drive, Warn, Horn');
  await page.keyboard.press('Enter');
  await page.getByRole('grid', { name: 'Table to fill in' }).waitFor();
  for (const letters of ['0000000000000010', '0000000011111100', '0011000100110001'])
    await page.keyboard.type(letters);
  await page.getByRole('button', { name: 'Draw it' }).click();
  await page.getByRole('button', { name: 'Compare', exact: true }).click();
  await page.getByRole('grid', { name: 'Table to fill in' }).getByText('13', { exact: true }).waitFor();
  await page.locator('[data-row="12"] [role="gridcell"]').first().click();
  await page.waitForTimeout(1500);
  await page.mouse.move(640, 790);
  await shot('drawn');

  await page.goto(`${base}/exercise`);
  await page.getByLabel('Exercise file').setInputFiles('demo/exercise/warning-lamp.exercise.json');
  await sheet.waitFor();
  await page.waitForTimeout(400);
  await sheet.focus();
  const corner = await sheet.boundingBox();
  const point = async ([x, y]) => page.mouse.move(corner.x + (x + 4) * 14, corner.y + (y + 4) * 14);
  const drag = async (from, to) => {
    await point(from);
    await page.mouse.down();
    await point(to);
    await page.mouse.up();
  };
  for (const [x, y, text] of [
    [4, 4, 'sw Key, Bars, Clear'],
    [14, 9, 'and 3'],
    [25, 9, 'lamp Drive'],
    [25, 20, 'lamp Warn'],
    [15, 20, 'or'],
  ]) {
    await point([x, y]);
    await page.keyboard.type(text);
    const line = page.getByRole('combobox', { name: 'Name of a part' });
    await line.waitFor();
    await page.keyboard.press('Enter');
    await line.waitFor({ state: 'hidden' });
  }
  for (const [from, to] of [
    [
      [6, 4],
      [11, 7],
    ],
    [
      [6, 9],
      [11, 9],
    ],
    [
      [6, 14],
      [11, 11],
    ],
    [
      [17, 9],
      [23, 9],
    ],
    [
      [7, 4],
      [12, 19],
    ],
    [
      [8, 9],
      [12, 21],
    ],
    [
      [18, 20],
      [23, 20],
    ],
  ])
    await drag(from, to);
  await page.getByRole('button', { name: 'Check' }).click();
  await page.getByRole('button', { name: /row 2: wrong/ }).click();
  await page.getByRole('button', { name: 'Show everything' }).click();
  await sheet.focus();
  await page.keyboard.press('Escape');
  await page.mouse.move(640, 790);
  await shot('exercise');

  await page.goto(`${base}/marking`);
  await page.getByRole('button', { name: /three made-up/ }).click();
  await page.getByRole('button', { name: 'Close this message' }).click();
  await page.getByRole('button', { name: 'Open' }).nth(1).click();
  await page.getByRole('button', { name: 'Show the first wrong row' }).click();
  await page.mouse.move(640, 790);
  await shot('marking-look');
  const given = page.getByRole('region', { name: 'Points and remarks' });
  await given.getByLabel('New remark').fill('Read the last line of the task again.');
  await given.getByLabel('Points', { exact: true }).last().fill('-0.25');
  await given.getByRole('button', { name: 'Add', exact: true }).click();
  await given.getByText(/^Rule for this task/).click();
  await given.getByLabel('Points are').selectOption('a share of what is right');
  await page.getByRole('button', { name: 'Back to marking' }).click();
  await page.getByRole('searchbox', { name: 'Find a name' }).fill('Ben');
  await page.getByRole('button', { name: 'Give back' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the file' }).click();
  const back = await (await saving).path();
  await page.goto(base);
  await page.getByLabel('Lesson, exercise or Verilog files').setInputFiles({
    name: 'ben.returned.json',
    mimeType: 'application/json',
    buffer: readFileSync(back),
  });
  await page.getByText('Marked work of').waitFor();
  await shot('returned');

  await page.goto(`${base}/marking`);
  await page.getByLabel('Hand-in files').setInputFiles(classFiles());
  await page.getByText(/hand-ins taken in/).waitFor();
  await page.getByLabel('Exercise', { exact: true }).selectOption({ label: await turnstiles(page) });
  await page.getByText(/all right$/).waitFor();
  for (const name of ['Close this message', 'Close']) {
    const close = page.getByRole('button', { name, exact: true });
    if (await close.count()) await close.first().click();
  }
  await page.mouse.move(640, 790);
  await shot('marking');
  await page.getByRole('button', { name: 'Likeness' }).click();
  await page.getByRole('button', { name: 'Side by side' }).first().click();
  await page
    .getByRole('img', { name: /^The circuit of/ })
    .nth(1)
    .waitFor();
  await page.mouse.move(640, 790);
  await shot('likeness');
  await page.getByRole('button', { name: 'The class' }).click();
  await page.getByRole('figure', { name: 'Time' }).waitFor();
  await page.mouse.move(1270, 790);
  await shot('class');
  await context.close();
}

try {
  await tour('light', [
    'shelf',
    'lesson-interlock',
    'ring',
    'tasks',
    'lesson-ticket-adder',
    'lesson-lamp-chase',
    'ride-timer',
    'states',
    'text',
    'chips',
    'bench',
    'functions',
    'planned',
    'exercise',
    'marking',
    'marking-look',
    'returned',
    'likeness',
  ]);
  await tour('dark', ['class']);
} finally {
  await browser.close();
  server.kill();
}
