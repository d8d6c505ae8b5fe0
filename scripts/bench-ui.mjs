// Measures the built application in Chromium: JavaScript of the first load of a lesson page as it is sent, and
// the time until an interaction is on screen, on the demo sheets. `npm run bench:ui`; with `-- --parts 5000`
// only a sheet of so many parts, with `-- --files` also the weight of each script.
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { CHROMIUM, FLAGS } from './chromium.mjs';

const PORT = Number(process.env.MANEGE_TEST_PORT ?? 3211);
const base = `http://localhost:${PORT}`;
const server = spawn('scripts/serve', [String(PORT)], { stdio: 'ignore' });
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
 * `work`: main-thread time of the interaction, less the cost of an idle stretch of the same length. `shown`:
 * from the event to the end of the frame that shows it, including the wait for that frame.
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
      const begin = (event) => {
        // The key that is held for another one is not yet the interaction.
        if (event.key === 'Control') return;
        for (const type of ['pointerdown', 'keydown']) window.removeEventListener(type, begin, true);
        const begun = performance.now();
        const channel = new MessageChannel();
        channel.port1.onmessage = () => {
          window.__shown = performance.now() - begun;
        };
        requestAnimationFrame(() => channel.port2.postMessage(0));
      };
      for (const type of ['pointerdown', 'keydown']) window.addEventListener(type, begin, true);
    });
    work.push(Math.max(0, (await spent(() => act(i))) - median(idle)));
    shown.push(await page.evaluate(() => window.__shown));
  }
  await cdp.detach();
  return { work, shown };
}

/** Times of frames in ms while something is done before each of them, in the page itself. */
async function frames(page, gesture, times = 60) {
  return page.evaluate(
    async ([name, count]) => {
      const sheet = document.querySelector('[role="application"]');
      const box = sheet.getBoundingClientRect();
      const at = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
      const send = (type, x, y, more = {}) =>
        sheet.dispatchEvent(
          new PointerEvent(type, { bubbles: true, clientX: x, clientY: y, pointerId: 1, button: 0, ...more }),
        );
      const frame = () => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
      const start = window.__grip ?? at;
      if (name !== 'zoom') send('pointerdown', start.x, start.y);
      const taken = [];
      await frame();
      for (let i = 0; i < count; i++) {
        const begun = performance.now();
        const way = 40 * Math.sin(i / 6);
        if (name === 'zoom')
          sheet.querySelector('canvas').dispatchEvent(
            new WheelEvent('wheel', {
              bubbles: true,
              cancelable: true,
              clientX: at.x,
              clientY: at.y,
              deltaY: i % 20 < 10 ? -20 : 20,
            }),
          );
        else send('pointermove', start.x + 6 + way, start.y + way / 2);
        await frame();
        taken.push(performance.now() - begun);
      }
      if (name !== 'zoom') send('pointerup', start.x, start.y);
      await frame();
      return taken;
    },
    [gesture, times],
  );
}

/** A sheet of so many parts: its first paint, frames while all of it is in view, and the cost of an edit. */
async function bigSheet(parts) {
  const file = `.build/big-${parts}.manege.json`;
  mkdirSync('.build', { recursive: true });
  execFileSync('scripts/run-ts', ['scripts/big-lesson.ts', String(parts), file]);
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  page.setDefaultTimeout(120_000);
  await page.goto(base);
  await page.waitForSelector('article');
  await page.locator('input[type=file]').first().setInputFiles(file);
  const card = page.getByRole('link', { name: /^Open \d+ parts/ }).first();
  await card.waitFor();
  const address = await card.getAttribute('href');
  const paints = [];
  for (let i = 0; i < 5; i++) {
    await page.goto(base + address);
    await page.waitForFunction(() => performance.getEntriesByName('sheet drawn').length > 0);
    paints.push(await page.evaluate(() => performance.getEntriesByName('sheet drawn')[0].startTime));
  }
  const pressed = [];
  const longest = [];
  for (let i = 0; i < 7; i++) {
    await page.goto(base);
    await card.waitFor();
    // Its picture on the shelf is there.
    await page.waitForTimeout(2500);
    await page.evaluate(() => {
      const begin = () => Object.assign(window, { __pressed: performance.now() });
      window.__longest = 0;
      let before = performance.now();
      const frame = () => {
        const now = performance.now();
        window.__longest = Math.max(window.__longest, now - before);
        before = now;
        requestAnimationFrame(frame);
      };
      requestAnimationFrame(frame);
      window.addEventListener('click', begin, { capture: true, once: true });
    });
    await card.click();
    await page.waitForFunction(() => performance.getEntriesByName('sheet drawn').length > 0);
    pressed.push(
      await page.evaluate(() => performance.getEntriesByName('sheet drawn')[0].startTime - window.__pressed),
    );
    await page.waitForTimeout(1000);
    longest.push(await page.evaluate(() => window.__longest));
  }
  const row = (name, list) =>
    console.log(
      `${`${parts} parts: ${name}`.padEnd(50)} median ${median(list).toFixed(1)} ms (worst ${Math.max(...list).toFixed(1)}) of ${list.length}`,
    );
  row('first paint after it is pressed on the shelf', pressed);
  row('longest frame from then on', longest);
  row('first paint after its address is asked for', paints);
  const sheet = page.getByRole('application');
  await page.waitForTimeout(1500);
  const box = await sheet.boundingBox();
  await page.mouse.move(box.x + 5, box.y + 5);
  await page.waitForTimeout(500);
  await page.evaluate(() => {
    /** A place near the middle at which the pointer is over a part. */
    window.__overPart = async () => {
      const sheet = document.querySelector('[role="application"]');
      const box = sheet.getBoundingClientRect();
      const middle = { x: box.left + box.width / 2, y: box.top + box.height / 2 };
      for (let i = 0; i < 400; i++) {
        const at = { clientX: middle.x + 3 * (i % 20), clientY: middle.y + 3 * Math.floor(i / 20) };
        sheet.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, pointerId: 1, ...at }));
        await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
        if (sheet.style.cursor === 'pointer') return { x: at.clientX, y: at.clientY };
      }
      throw new Error('no part near the middle');
    };
  });
  // The margin of the sheet is paper.
  await page.evaluate(([x, y]) => Object.assign(window, { __grip: { x, y } }), [box.x + 6, box.y + 6]);
  row('frame while panning, all in view', await frames(page, 'pan'));
  row('frame while zooming, all in view', await frames(page, 'zoom'));
  await page.evaluate(async () => Object.assign(window, { __grip: await window.__overPart() }));
  row('frame while dragging a part, all in view', await frames(page, 'drag'));
  await page.keyboard.press('Control+a');
  await page.evaluate(async () => Object.assign(window, { __grip: await window.__overPart() }));
  row('frame while dragging all parts, all in view', await frames(page, 'drag'));
  const moved = await interaction(page, (i) => page.keyboard.press(i % 2 ? 'ArrowLeft' : 'ArrowRight'), 10);
  row('move all parts by a step, on screen after', moved.shown);
  await page.keyboard.press('Escape');
  // Edits are looked at closely: one switch and its surroundings.
  await page.mouse.click(box.x + 6, box.y + 6);
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  for (let i = 0; i < 12; i++) await page.mouse.wheel(0, -250);
  await page.keyboard.press('Tab');
  const words = page.getByRole('listbox', { name: /^Parts on/ }).getByRole('option', { selected: true });
  do await page.keyboard.press('ArrowDown');
  while (!/, switch, /.test(await words.textContent()));
  await page.keyboard.press('Shift+Tab');
  const { shown } = await interaction(
    page,
    (i) => page.keyboard.press(i % 2 ? 'ArrowLeft' : 'ArrowRight'),
    12,
  );
  row('closely: move a switch by a step, on screen after', shown);
  const flip = await interaction(page, () => page.keyboard.press('Enter'), 12);
  row('closely: flip a switch, on screen after', flip.shown);
  const settings = await interaction(page, (i) => page.keyboard.press(i % 2 ? 'Escape' : 'F2'), 24);
  for (const [name, odd] of [
    ['open', 0],
    ['close', 1],
  ])
    row(
      `closely: ${name} its settings, on screen after`,
      settings.shown.filter((_, i) => i % 2 === odd),
    );
  const more = await interaction(page, () => page.keyboard.press('Control+d'), 10);
  row('closely: duplicate a switch, on screen after', more.shown);
  const back = await interaction(page, () => page.keyboard.press('Control+z'), 10);
  row('closely: undo that, on screen after', back.shown);
  await context.close();
}

const tenth = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length * 0.9)];

/** A run of ten million events: how long the page is at each frame while it runs, and while it is looked at. */
async function manyChanges() {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  await page.goto(base);
  await page.getByRole('link', { name: 'Open Ride timer' }).click();
  await page
    .getByRole('navigation', { name: 'Sheets' })
    .getByRole('button', { name: 'Fourteen stages' })
    .click();
  const diagram = page.getByRole('slider', { name: 'Moment on the timing diagram' });
  await diagram.waitFor();
  await page.waitForTimeout(500);
  const row = (name, list) =>
    console.log(
      `${name.padEnd(50)} median ${median(list).toFixed(1)} ms (nine of ten within ${tenth(list).toFixed(1)}, worst ${Math.max(...list).toFixed(1)}) of ${list.length}`,
    );
  await page.evaluate(() => {
    window.__frames = [];
    let last = performance.now();
    const frame = () => {
      const now = performance.now();
      window.__frames.push(now - last);
      last = now;
      if (!window.__enough) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  await page.getByRole('textbox', { name: 'Run to a time' }).fill('31 s');
  await page.keyboard.press('Enter');
  await page.waitForFunction(
    () => document.querySelector('[role=slider]').getAttribute('aria-valuetext') === '31 s',
    undefined,
    { timeout: 180_000 },
  );
  row(
    'time: frame while ten million events run',
    await page.evaluate(() => {
      window.__enough = true;
      return window.__frames;
    }),
  );
  await diagram.focus();
  await page.keyboard.press('0');
  await page.waitForTimeout(600);
  for (const gesture of ['zoom', 'scroll', 'moment'])
    row(
      `time: frame while ${gesture === 'moment' ? 'the moment is dragged' : `one ${gesture}s`}, all in view`,
      await page.evaluate(async (what) => {
        const canvas = document.querySelector('[role=slider]');
        const box = canvas.getBoundingClientRect();
        const at = { bubbles: true, cancelable: true, clientX: box.left + 300, clientY: box.top + 60 };
        const taken = [];
        for (let i = 0; i < 60; i++) {
          const begun = performance.now();
          const way = i % 20 < 10 ? -12 : 12;
          if (what === 'zoom')
            canvas.dispatchEvent(new WheelEvent('wheel', { ...at, ctrlKey: true, deltaY: way }));
          else if (what === 'scroll') canvas.dispatchEvent(new WheelEvent('wheel', { ...at, deltaX: way }));
          else
            canvas.dispatchEvent(
              new PointerEvent(i ? 'pointermove' : 'pointerdown', {
                ...at,
                clientX: at.clientX + 2 * i,
                pointerId: 1,
              }),
            );
          await new Promise((done) => requestAnimationFrame(() => setTimeout(done, 0)));
          taken.push(performance.now() - begun);
        }
        return taken;
      }, gesture),
    );
  console.log(
    `${'time: memory of the page'.padEnd(50)} ${((await page.evaluate(() => performance.memory.usedJSHeapSize)) / 1e6).toFixed(0)} MB`,
  );
  await context.close();
}

/** Frames while tables are scrolled, a little at a time and by leaps: one of eight rows and one of 2^24. */
async function tables() {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  for (const inputs of [3, 24]) {
    await page.goto(base);
    await page.getByRole('button', { name: /New lesson/ }).click();
    await page.getByRole('application').waitFor();
    await page.mouse.move(300, 300);
    await page.getByRole('application').focus();
    const names = Array.from({ length: inputs }, (_, i) => String.fromCharCode(65 + i));
    await page.keyboard.type(`Y = ${names.join(' xor ')}`);
    await page.getByRole('combobox', { name: 'Name of a part' }).waitFor();
    await page.keyboard.press('Enter');
    await page.getByRole('grid', { name: 'Truth table' }).waitFor({ timeout: 60_000 });
    await page.waitForTimeout(1000);
    for (const way of ['scrolled', 'leapt about in']) {
      const taken = await page.evaluate(async (by) => {
        const grid = document.querySelector('[role="grid"]');
        const taken = [];
        let before = performance.now();
        for (let i = 0; i < 90; i++) {
          grid.scrollTop = by === 'scrolled' ? grid.scrollTop + 20 : ((i * 0.618) % 1) * grid.scrollHeight;
          await new Promise((done) => requestAnimationFrame(done));
          taken.push(performance.now() - before);
          before = performance.now();
        }
        return taken.slice(1);
      }, way);
      console.log(
        `${`table of ${2 ** inputs} rows, ${way}`.padEnd(50)} ${median(taken).toFixed(1)} ms a frame (worst ${Math.max(...taken).toFixed(1)}) of ${taken.length}`,
      );
    }
  }
  await context.close();
}

const browser = await chromium.launch({
  executablePath: CHROMIUM,
  args: FLAGS,
});
const asked = process.argv.indexOf('--parts');
try {
  await up();
  if (asked === -1) await demos();
  if (asked === -1 || process.argv.includes('--time')) await manyChanges();
  if (asked === -1) await tables();
  for (const parts of asked === -1 ? [300, 1000, 5000, 20_000] : [Number(process.argv[asked + 1])])
    await bigSheet(parts);
} finally {
  await browser.close();
  server.kill();
}

/** The script of a lesson page, and interactions on the sheets of the demos. */
async function demos() {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  await page.goto(base);
  await page.waitForSelector('article');

  let bytes = 0;
  let gzipped = 0;
  const files = [];
  const counting = async (response) => {
    if (!/\.js($|\?)/.test(response.url())) return;
    const [{ responseBodySize: sent }, body] = await Promise.all([
      response.request().sizes(),
      response.body(),
    ]);
    files.push([response.url().split('/').at(-1), sent]);
    bytes += sent;
    gzipped += gzipSync(body).length;
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
  console.log(
    `JavaScript of a lesson page: ${(bytes / 1000).toFixed(1)} kB as sent (${(gzipped / 1000).toFixed(1)} kB by gzip) in ${files.length} files`,
  );

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
  await context.close();
}
