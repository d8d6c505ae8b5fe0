// The packaged application as a school hosts it: from another folder, under a path, behind a small proxy; all pages, and
// without a network after the first visit. Prints one line each, and ends with 1 where one is wrong.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from 'playwright-core';
import { CHROMIUM, FLAGS } from './chromium.mjs';

const BASE = '/school/manege';
const [SERVER, PROXY] = [3221, 3222];
const folder = join(mkdtempSync(join(tmpdir(), 'manege-')), 'packaged');
const made = spawnSync('scripts/package', [folder], {
  env: { ...process.env, MANEGE_BASE: BASE },
  stdio: 'inherit',
});
if (made.status !== 0) process.exit(1);
const server = spawn('node', [join(folder, 'server.js')], {
  cwd: tmpdir(),
  env: { ...process.env, PORT: String(SERVER), HOSTNAME: '127.0.0.1' },
  stdio: 'ignore',
});
const proxy = createServer((asked, answer) => {
  if (!asked.url.startsWith(BASE)) {
    answer.writeHead(404).end();
    return;
  }
  const { url: path, method, headers } = asked;
  const onward = request({ host: '127.0.0.1', port: SERVER, path, method, headers }, (from) => {
    answer.writeHead(from.statusCode, from.headers);
    from.pipe(answer);
  });
  onward.on('error', () => answer.writeHead(502).end());
  asked.pipe(onward);
}).listen(PROXY);
const at = (path) => `http://localhost:${PROXY}${BASE}${path}`;
let wrong = 0;
const told = (what, isRight) => {
  if (!isRight) wrong++;
  process.stdout.write(`${isRight ? 'ok   ' : 'WRONG'} ${what}\n`);
};

const browser = await chromium.launch({ executablePath: CHROMIUM, args: FLAGS });
try {
  for (let tries = 0; tries < 100; tries++)
    if (
      await fetch(at('/health')).then(
        (a) => a.ok,
        () => false,
      )
    )
      break;
    else await new Promise((done) => setTimeout(done, 100));
  const pages = ['', '/lesson', '/exercise', '/marking', '/set', '/returned', '/open', '/look', '/embed'];
  for (const path of [...pages, '/health', '/demos', '/offline-files', '/theme.js', '/sw.js', '/icon.svg'])
    told(`answers ${path || '/'}`, (await fetch(at(path))).status === 200);
  const script = (await (await fetch(at('/offline-files'))).json()).find((file) => file.endsWith('.js'));
  const answer = await fetch(`http://localhost:${PROXY}${script}`, { headers: { 'Accept-Encoding': 'br' } });
  told('built files go out compressed', answer.headers.get('content-encoding') === 'br');
  const context = await browser.newContext();
  const page = await context.newPage();
  const lost = [];
  page.on('response', (answer) => answer.status() >= 400 && lost.push(answer.url()));
  await page.goto(at(''));
  await page.getByRole('link', { name: 'Open Drive interlock' }).click();
  await page.getByRole('application').waitFor();
  told('a lesson opens from the shelf', page.url().startsWith(at('/lesson')));
  await page.getByRole('button', { name: 'Hand out' }).click();
  await page.getByRole('button', { name: 'Give it as a link' }).click();
  const link = await page.getByRole('textbox', { name: 'Link to the lesson' }).inputValue();
  told('links carry the path', link.startsWith(at('/open#')));
  await page.goto(link);
  await page.getByRole('application').waitFor();
  told('a link opens', true);
  told('nothing was asked for that is not there', lost.length === 0);
  await page.goto(at(''));
  const isKept = () =>
    page.evaluate(async (list) => {
      const files = await (await fetch(list)).json();
      const counts = (await caches.keys()).map(
        async (name) => (await (await caches.open(name)).keys()).length,
      );
      return (await Promise.all(counts)).reduce((a, b) => a + b, 0) >= files.length;
    }, `${BASE}/offline-files`);
  for (let tries = 0; tries < 120 && !(await isKept()); tries++)
    await new Promise((done) => setTimeout(done, 500));
  server.kill();
  await context.setOffline(true);
  for (const [path, name] of [
    ['', 'New lesson'],
    ['/lesson?id=demo-ride-timer', 'Faces'],
    ['/marking', 'Add hand-ins'],
    ['/exercise', 'Choose the file'],
  ]) {
    await page.goto(at(path));
    told(
      `without a network: ${path || '/'}`,
      await page
        .getByRole('button', { name })
        .first()
        .waitFor({ timeout: 20_000 })
        .then(
          () => true,
          () => false,
        ),
    );
  }
} finally {
  await browser.close();
  server.kill();
  proxy.close();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(wrong > 0 ? 1 : 0);
