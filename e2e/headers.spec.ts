import { readdirSync, readFileSync } from 'node:fs';
import { expect, type Request, test } from '@playwright/test';
import { SheetHand } from './hand';

/** Addresses of all kinds: routes of `app`, files of `public`, built files, and addresses that do not exist. */
function addresses(): string[] {
  const routes = readdirSync('app', { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map((entry) => `/${entry.name}`);
  const files = readdirSync('public', { recursive: true, encoding: 'utf8' }).map((name) => `/${name}`);
  const build = readFileSync('.builds/current', 'utf8').trim();
  const built = readdirSync(`.builds/${build}/static`, { recursive: true, encoding: 'utf8' }).filter((name) =>
    /\.\w+$/.test(name),
  );
  const some = ['js', 'css', 'woff2'].map((ending) => built.find((name) => name.endsWith(`.${ending}`))!);
  return [
    '/',
    ...routes,
    ...files,
    '/icon.svg',
    ...some.map((name) => `/_next/static/${name}`),
    '/nothing',
    '/nothing.js',
    '/nothing/at/all.svg',
    '/_next/static/nothing.js',
    '/lesson/nothing',
    '/..%2f..%2fetc/passwd',
  ];
}

test('every answer carries its headers, whatever is asked for', async ({ request }) => {
  expect(addresses().length).toBeGreaterThan(14);
  for (const path of addresses()) {
    const answer = await request.get(path);
    const headers = answer.headers();
    // The one page that other sites may show in a frame.
    const isEmbedded = path === '/embed';
    expect.soft([200, 404, 400], path).toContain(answer.status());
    expect.soft(headers, path).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'cross-origin-opener-policy': 'same-origin',
      'cross-origin-resource-policy': isEmbedded ? 'cross-origin' : 'same-origin',
      'cross-origin-embedder-policy': 'require-corp',
      'permissions-policy': expect.stringContaining('camera=()'),
      'content-security-policy': expect.stringMatching(
        isEmbedded
          ? /default-src 'self'.*object-src 'none'.*frame-ancestors \*$/
          : /default-src 'self'.*object-src 'none'.*frame-ancestors 'none'/,
      ),
    });
    expect.soft(headers['x-powered-by'], path).toBeUndefined();
    const type = headers['content-type'] ?? '';
    if (type.includes('html')) {
      expect.soft(headers['content-security-policy'], path).toMatch(/style-src 'self' 'nonce-/);
      expect.soft(headers['content-security-policy'], path).not.toContain('unsafe-inline');
    }
  }
});

test('a lesson is there after 260 kB of scripts, compressed when they were built', async ({
  page,
  browser,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Open Drive interlock' }).waitFor();
  // A visit with the lessons, and without anything else of an earlier one.
  const storageState = await page.context().storageState({ indexedDB: true });
  const fresh = await browser.newContext({ storageState, serviceWorkers: 'block' });
  const lesson = await fresh.newPage();
  const sent: Promise<number>[] = [];
  const count = (request: Request) => {
    if (request.resourceType() === 'script') sent.push(sizeOf(request));
  };
  const sizeOf = async (request: Request) => {
    const [{ responseBodySize }, response] = await Promise.all([request.sizes(), request.response()]);
    if (request.url().includes('/_next/'))
      expect.soft(response!.headers()['content-encoding'], request.url()).toBe('br');
    return responseBodySize;
  };
  lesson.on('requestfinished', count);
  await lesson.goto(new URL('/lesson?id=demo-drive-interlock', page.url()).href);
  await lesson.getByRole('application').waitFor();
  // Its button comes with the last script that loads by itself; scripts fetched on request do not count.
  await lesson.getByRole('button', { name: 'Try all' }).waitFor();
  await lesson.waitForLoadState('load');
  // Later scripts cannot be inspected once the page is closed.
  lesson.off('requestfinished', count);
  const sizes = await Promise.all(sent);
  expect(sizes.length).toBeGreaterThan(8);
  expect(sizes.reduce((sum, size) => sum + size, 0)).toBeLessThan(260_000);
  await fresh.close();
});

test('a browser that installs it is told its name, its pictures and its files', async ({ page, request }) => {
  await page.goto('/');
  const link = page.locator('link[rel=manifest]');
  await expect(link).toHaveAttribute('href', '/manifest.webmanifest');
  const manifest = await (await request.get('/manifest.webmanifest')).json();
  expect(manifest).toMatchObject({ name: 'Manege', start_url: '/', scope: '/', display: 'standalone' });
  for (const { src, sizes } of manifest.icons as { src: string; sizes: string }[]) {
    const icon = await request.get(src);
    expect.soft(icon.status(), src).toBe(200);
    // The width of a PNG stands in its bytes 16 to 19.
    if (src.endsWith('.png'))
      expect.soft(`${(await icon.body()).readUInt32BE(16)}`, src).toBe(sizes.split('x')[0]);
  }
  expect(manifest.file_handlers[0].accept).toMatchObject({ 'application/json': ['.json'] });
});

test('nothing takes anything in', async ({ request }) => {
  for (const path of addresses())
    for (const method of ['DELETE', 'POST', 'PUT', 'PATCH', 'OPTIONS']) {
      const answer = await request.fetch(path, { method });
      expect.soft(answer.status(), `${method} ${path}`).toBe(405);
      expect.soft(answer.headers().allow, `${method} ${path}`).toBe('GET, HEAD');
    }
});

test('no text becomes a script on a page, and no script comes from elsewhere', async ({ page }) => {
  await page.goto('/');
  const tried = await page.evaluate(() => {
    const attempt = (work: () => unknown) => {
      try {
        work();
        return 'done';
      } catch (error) {
        return (error as Error).name;
      }
    };
    const script = document.createElement('script');
    return {
      html: attempt(() => {
        document.createElement('div').innerHTML = '<img src=x onerror=alert(1)>';
      }),
      elsewhere: attempt(() => {
        script.src = 'https://elsewhere.test/x.js';
      }),
      worker: attempt(() => new Worker('https://elsewhere.test/x.js')),
      text: attempt(() => {
        script.text = 'alert(1)';
      }),
    };
  });
  expect(tried).toEqual({
    html: 'TypeError',
    elsewhere: 'TypeError',
    worker: 'TypeError',
    text: 'TypeError',
  });
});

test('libraries that put styles into the page do it with the nonce of the page', async ({ page }) => {
  const refused: string[] = [];
  page.on('console', (m) => /Content Security Policy/.test(m.text()) && refused.push(m.text()));
  await page.goto('/lesson?id=demo-drive-interlock');
  await new SheetHand(page).ready();
  const border = (await page.getByRole('separator', { name: 'Resize' }).first().boundingBox())!;
  await page.mouse.move(border.x + border.width / 2, border.y + 200);
  await page.mouse.down();
  await page.mouse.move(border.x - 60, border.y + 200, { steps: 4 });
  await expect.poll(() => page.evaluate(() => getComputedStyle(document.body).cursor)).toMatch(/resize/);
  await page.mouse.up();
  // A dialog stops the page behind it from scrolling.
  await page.getByRole('button', { name: 'Hand out' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expect.poll(() => page.evaluate(() => getComputedStyle(document.body).overflow)).toBe('hidden');
  expect(refused).toEqual([]);
});
