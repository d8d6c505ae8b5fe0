// Kills the browser amid edits, again and again: npm run kills [-- COUNT]. Of what was done at most the edits of the last
// 50 ms before the end may be missing after it, and never an older one. Time in which a processor of the machine stood still
// does not count, as nothing could be written then: a watcher on each, with a priority above all else, measures it.
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
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

/** Sleeps for 2 ms again and again, and tells when it woke up late: only the machine itself can make it. */
const WATCH = `
  const bell = new Int32Array(new SharedArrayBuffer(4));
  for (let before = Date.now(); ; before = Date.now()) {
    Atomics.wait(bell, 0, 0, 2);
    const late = Date.now() - before - 2;
    if (late >= 5) require('fs').writeSync(1, Date.now() + ' ' + late + '\\n');
  }`;
const stood = [];
const watchers = cpus().map((_, cpu) => {
  const watcher = spawn('chrt', ['-f', '50', 'taskset', '-c', String(cpu), process.execPath, '-e', WATCH], {
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  // Without the tools for it, or the right to use them, nothing is taken off.
  watcher.on('error', () => {});
  watcher.stdout.on('data', (lines) => {
    for (const line of String(lines).trim().split('\n')) {
      const [at, late] = line.split(' ').map(Number);
      stood.push({ at, late });
    }
  });
  return watcher;
});

/** Milliseconds for which processors stood still between two moments. */
const stoodStill = (from, to) =>
  stood.reduce((sum, { at, late }) => sum + Math.max(0, Math.min(at, to) - Math.max(at - late, from)), 0);

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
let waited = 0;
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
    const age = (time) => end - time - stoodStill(time, end);
    const due = times.filter((time) => age(time) >= GRACE_MS).length;
    waited = Math.max(waited, stoodStill(times[0], end));
    edits += times.length;
    const lost = times.length - kept;
    if (lost > 0) missing += lost;
    most = Math.max(most, lost);
    if (kept < due) {
      process.exitCode = 1;
      console.error(
        `kill ${round + 1}: ${kept} of ${times.length} edits are there, and ${due} are older than ${GRACE_MS} ms (before it ${before} parts); the first that is missing is ${end - times[kept]} ms old, of which the machine stood still for ${stoodStill(times[kept], end)}`,
      );
    }
  }
  await context.close();
  console.info(
    `${COUNT} kills amid ${edits} edits: ${missing} of the last ${GRACE_MS} ms missing, at most ${most} at once, the machine stood still for up to ${waited} ms in a round${process.exitCode ? '; older ones too' : ', none older'}`,
  );
} finally {
  for (const watcher of watchers) watcher.kill();
  kill();
  server.kill();
  rmSync(profile, { recursive: true, force: true });
}
