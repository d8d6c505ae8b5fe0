// Eight hours of use in a few minutes: random acts in the page, and what memory is held after them.
// npm run soak [-- COUNT [SEED]], 10,000 acts without a count. Fails where the second half ends with more than a tenth
// above the first.
import { chromium } from '@playwright/test';
import { CHROMIUM, FLAGS, served } from './chromium.mjs';

const COUNT = Number(process.argv[2] ?? 10_000);
const SEED = Number(process.argv[3] ?? 1);
const PORT = 3218;
/** Acts between one look at the memory and the next. */
const LOOK_EVERY = Math.max(100, Math.floor(COUNT / 20));
/** What the first acts fetch and remember is no leak. */
const WARM = 0.3;
const MOST_GROWTH = 0.1;

let state = SEED;
/** Numbers from 0 to 1 (a linear congruence, Numerical Recipes). */
const roll = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 2 ** 32;
};
const pick = (all) => all[Math.floor(roll() * all.length)];

const server = await served(PORT);
const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });

const KEYS = [
  'ArrowRight',
  'ArrowDown',
  'Control+z',
  'Control+Shift+z',
  'Control+d',
  'r',
  'Escape',
  'Tab',
  'Home',
  'Space',
  'Delete',
];
const STATEMENTS = ['Y = A B + C', 'S = A ^ B', 'Q = nand(A, B)', 'Drive = Key and Bars'];
const PARTS = ['sw Key', 'lamp Drive', 'and', 'nor', 'd', 'clock', 'counter 4', 'number'];

try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const errors = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await page.goto(`http://localhost:${PORT}/`);
  await page.getByRole('button', { name: /New lesson/ }).click();
  const sheet = page.getByRole('application');
  await sheet.waitFor();
  const cdp = await page.context().newCDPSession(page);
  const held = async () => {
    for (let i = 0; i < 3; i++) await cdp.send('HeapProfiler.collectGarbage');
    const { usedSize } = await cdp.send('Runtime.getHeapUsage');
    const { nodes } = await cdp.send('Memory.getDOMCounters');
    return { mb: usedSize / 1e6, nodes };
  };
  const box = await sheet.boundingBox();
  const point = () => [box.x + 40 + roll() * (box.width - 80), box.y + 40 + roll() * (box.height - 80)];
  const type = async (text) => {
    await page.mouse.move(...point());
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    await page.keyboard.press('Escape');
  };
  const acts = [
    () => type(pick(PARTS)),
    () => type(pick(STATEMENTS)),
    () => page.mouse.click(...point()),
    async () => {
      await page.mouse.move(...point());
      await page.mouse.down();
      await page.mouse.move(...point(), { steps: 3 });
      await page.mouse.up();
    },
    () => page.keyboard.press(pick(KEYS)),
    async () => {
      await page.mouse.click(...point(), { button: 'right' });
      await page.keyboard.press('Escape');
    },
    async () => {
      await page.mouse.move(...point());
      await page.mouse.wheel((roll() - 0.5) * 200, (roll() - 0.5) * 200);
    },
    async () => {
      await page.keyboard.press('Control+k');
      await page.keyboard.type(pick(['tidy', 'undo', 'fit', 'note']));
      await page.keyboard.press(pick(['Escape', 'Enter']));
      await page.keyboard.press('Escape');
    },
    async () => {
      const faces = page.getByRole('button', { name: 'Faces' });
      if (!(await faces.isVisible())) return;
      await faces.click({ timeout: 2000 }).catch(() => {});
      await page
        .getByRole('menuitemcheckbox')
        .nth(Math.floor(roll() * 6))
        .click({ timeout: 2000 })
        .catch(() => {});
      await page.keyboard.press('Escape');
    },
    async () => {
      // The sheet begins anew, as the next lesson does.
      await page.keyboard.press('Escape');
      await page.mouse.click(...point());
      await page.keyboard.press('Control+a');
      await page.keyboard.press('Delete');
    },
  ];
  const looks = [];
  const begun = Date.now();
  for (let i = 0; i <= COUNT; i++) {
    if (i % LOOK_EVERY === 0) {
      await page.keyboard.press('Escape');
      await page.keyboard.press('Control+a');
      await page.keyboard.press('Delete');
      const look = await held();
      looks.push({ at: i, ...look });
      console.info(
        `${String(i).padStart(6)} acts, ${((Date.now() - begun) / 1000).toFixed(0)} s: ${look.mb.toFixed(1)} MB, ${look.nodes} nodes`,
      );
    }
    await pick(acts)();
  }
  const steady = looks.filter(({ at }) => at >= WARM * COUNT);
  const half = steady.length >> 1;
  const median = (list) => [...list].sort((a, b) => a - b)[list.length >> 1];
  const first = median(steady.slice(0, half).map(({ mb }) => mb));
  const last = median(steady.slice(half).map(({ mb }) => mb));
  console.info(
    `${COUNT} acts from seed ${SEED}: ${first.toFixed(1)} MB, then ${last.toFixed(1)} MB (${((last / first - 1) * 100).toFixed(1)} %)`,
  );
  for (const error of new Set(errors)) console.error(`soak: ${error}`);
  if (last > first * (1 + MOST_GROWTH) || errors.length > 0) process.exitCode = 1;
} finally {
  await browser.close();
  server.kill();
}
