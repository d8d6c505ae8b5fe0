// Kills the browser amid edits, again and again: npm run kills [-- COUNT]. Of what was done at most the edits of the last
// 50 ms before the end may be missing after it, and never an older one.
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM, FLAGS, served } from './chromium.mjs';

const COUNT = Number(process.argv[2] ?? 200);
const PORT = 3217;
const GRACE_MS = 50;
/** Between two presses: a key that is held repeats no faster. */
const REPEAT_MS = 25;

const server = await served(PORT);
const profile = mkdtempSync(join(tmpdir(), 'manege-kills-'));

const open = () =>
  chromium.launchPersistentContext(profile, {
    executablePath: CHROMIUM,
    args: FLAGS,
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  });

/** All processes of the browser with this profile. */
function processes() {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(profile);
      } catch {
        return false;
      }
    })
    .map(Number);
}

function kill() {
  for (const pid of processes())
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // It has ended by itself.
    }
}

/** The parts of the lesson, as the list beside the sheet has them. */
const parts = (page) =>
  page
    .getByRole('listbox', { name: /^Parts/ })
    .getByRole('option')
    .count();

async function opened(context, address) {
  const page = context.pages()[0] ?? (await context.newPage());
  await page.goto(address);
  return page;
}

let missing = 0;
let most = 0;
let edits = 0;
try {
  let context = await open();
  let page = await opened(context, `http://localhost:${PORT}/`);
  await page.getByRole('button', { name: /New lesson/ }).click();
  await page.getByRole('application').waitFor();
  const address = page.url();
  await page.keyboard.type('and');
  await page.keyboard.press('Enter');
  await page.getByRole('option').first().waitFor({ state: 'attached' });
  await page.getByRole('img', { name: 'Saved' }).waitFor();
  for (let round = 0; round < COUNT; round++) {
    const before = await parts(page);
    // Each press is one edit that adds one part.
    const times = [];
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Delete');
    await page.getByRole('option').first().waitFor({ state: 'detached' });
    await page.keyboard.type('and');
    await page.keyboard.press('Enter');
    // What is chosen is duplicated: the part that was just placed.
    await page.getByRole('option', { selected: true }).first().waitFor({ state: 'attached' });
    const stop = 3 + Math.random() * 25;
    for (let i = 0; i < stop; i++) {
      await page.keyboard.press('Control+d');
      times.push(Date.now());
      await new Promise((done) => setTimeout(done, REPEAT_MS));
    }
    await new Promise((done) => setTimeout(done, Math.random() * 80));
    const end = Date.now();
    kill();
    await context.close().catch(() => {});
    context = await open();
    page = await opened(context, address);
    await page.getByRole('application').waitFor();
    await page.getByRole('img', { name: 'Saved' }).waitFor();
    const kept = (await parts(page)) - 1;
    const due = times.filter((time) => end - time >= GRACE_MS).length;
    edits += times.length;
    const lost = times.length - kept;
    if (lost > 0) missing += lost;
    most = Math.max(most, lost);
    if (kept < due) {
      process.exitCode = 1;
      console.error(
        `kill ${round + 1}: ${kept} of ${times.length} edits are there, and ${due} are older than ${GRACE_MS} ms (before it ${before} parts); the first that is missing is ${end - times[kept]} ms old`,
      );
    }
  }
  await context.close();
  console.info(
    `${COUNT} kills amid ${edits} edits: ${missing} of the last ${GRACE_MS} ms missing, at most ${most} at once${process.exitCode ? '; older ones too' : ', none older'}`,
  );
} finally {
  kill();
  server.kill();
  rmSync(profile, { recursive: true, force: true });
}
