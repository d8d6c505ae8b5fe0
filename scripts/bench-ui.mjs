// Measures the built application in Chromium: compressed JavaScript of the first load of a lesson page, and how
// long an interaction takes to be on screen on the demo sheets. `npm run bench:ui`
import { spawn } from 'node:child_process';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';

const PORT = Number(process.env.MANEGE_TEST_PORT ?? 3211);
const base = `http://localhost:${PORT}`;
const server = spawn('node_modules/.bin/next', ['start', '-p', String(PORT)], { stdio: 'ignore' });
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const show = (name, { work, shown }) =>
  console.log(
    `${name.padEnd(50)} work ${median(work).toFixed(1)} ms (worst ${Math.max(...work).toFixed(1)}), ` +
      `on screen after ${median(shown).toFixed(1)} ms (worst ${Math.max(...shown).toFixed(1)}) of ${work.length}`,
  );

async function up() {
  for (let i = 0; i < 100; i++) {
    try {
      await fetch(base);
      return;
    } catch {
      await new Promise((done) => setTimeout(done, 100));
    }
  }
  throw new Error('the server did not come up');
}

/** Main-thread seconds spent so far, as the browser accounts for them. */
async function busy(cdp) {
  const { metrics } = await cdp.send('Performance.getMetrics');
  return metrics.find((m) => m.name === 'TaskDuration').value;
}

/**
 * `work`: main-thread time of the interaction, less what the same stretch costs when nothing is done. `shown`:
 * from the event to the end of the frame that shows it, the wait for that frame included.
 */
async function interaction(page, act, times = 30) {
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Performance.enable');
  const spent = async (doing) => {
    const before = await busy(cdp);
    await doing();
    await page.waitForTimeout(60);
    return 1000 * ((await busy(cdp)) - before);
  };
  const idle = [];
  for (let i = 0; i < 5; i++) idle.push(await spent(async () => {}));
  const work = [];
  const shown = [];
  for (let i = 0; i < times; i++) {
    await page.evaluate(() => {
      window.__shown = null;
      const begin = () => {
        const begun = performance.now();
        const channel = new MessageChannel();
        channel.port1.onmessage = () => {
          window.__shown = performance.now() - begun;
        };
        requestAnimationFrame(() => channel.port2.postMessage(0));
      };
      for (const type of ['pointerdown', 'keydown'])
        window.addEventListener(type, begin, { capture: true, once: true });
    });
    work.push(Math.max(0, (await spent(() => act(i))) - median(idle)));
    shown.push(await page.evaluate(() => window.__shown));
  }
  await cdp.detach();
  return { work, shown };
}

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-sync'],
});
try {
  await up();
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  await page.goto(base);
  await page.waitForSelector('article');

  let bytes = 0;
  const files = [];
  const counting = async (response) => {
    if (!/\.js($|\?)/.test(response.url())) return;
    const size = gzipSync(await response.body()).length;
    files.push([response.url().split('/').at(-1), size]);
    bytes += size;
  };
  const fresh = await browser.newContext({
    serviceWorkers: 'block',
    storageState: await context.storageState({ indexedDB: true }),
  });
  const lesson = await fresh.newPage();
  lesson.on('response', (response) => void counting(response));
  await lesson.goto(`${base}/lesson?id=demo-drive-interlock`);
  await lesson.getByRole('application').waitFor();
  await lesson.waitForTimeout(500);
  if (process.argv.includes('--files'))
    for (const [name, size] of files.sort((a, b) => b[1] - a[1]))
      console.log(`${String(size).padStart(8)} ${name}`);
  console.log(`JavaScript of a lesson page, gzip: ${(bytes / 1000).toFixed(0)} kB in ${files.length} files`);

  await page.goto(`${base}/lesson?id=demo-drive-interlock`);
  const sheet = page.getByRole('application');
  await sheet.waitFor();
  const box = await sheet.boundingBox();
  await page.waitForTimeout(400);
  const key = [box.x + box.width * 0.164, box.y + box.height * 0.22];
  show('interlock: flip a switch with the pointer', await interaction(page, () => page.mouse.click(...key)));
  show(
    'interlock: click a row of the table',
    await interaction(page, (i) => page.locator(`[data-row="${i % 8}"]`).click()),
  );
  await page.locator('[data-row="0"]').click();
  await sheet.focus();
  await page.keyboard.press('Escape');
  show(
    'interlock: next row by the arrow key',
    await interaction(page, () => page.keyboard.press('ArrowRight')),
  );
  await page.keyboard.press('Control+a');
  show(
    'interlock: move all parts by a step',
    await interaction(page, (i) => page.keyboard.press(i % 2 ? 'ArrowLeft' : 'ArrowRight')),
  );

  await page.goto(`${base}/lesson?id=demo-lamp-chase`);
  await sheet.waitFor();
  await page.waitForTimeout(400);
  await sheet.focus();
  show(
    'lamp chase: on half a period by the arrow key',
    await interaction(page, () => page.keyboard.press('ArrowRight')),
  );
  await page.keyboard.press('Tab');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await sheet.focus();
  show(
    'lamp chase: move a flip-flop, its wires laid anew',
    await interaction(page, (i) => page.keyboard.press(i % 2 ? 'ArrowLeft' : 'ArrowRight')),
  );
} finally {
  await browser.close();
  server.kill();
}
