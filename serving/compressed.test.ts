import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { serveCompressed, takes } from './compressed.cjs';

test.each([
  ['br, gzip', 'br', true],
  ['gzip, deflate', 'br', false],
  ['GZIP;q=0.5, br;q=1.0', 'gzip', true],
  ['br;q=0, gzip', 'br', false],
  ['br; q=0.000', 'br', false],
  ['br;q=0.001', 'br', true],
  ['brotli', 'br', false],
  ['', 'gzip', false],
])('“%s” takes %s: %s', (accepted, encoding, is) => expect(takes(accepted, encoding)).toBe(is));

describe('built files', () => {
  const folder = mkdtempSync(join(tmpdir(), 'manege-built-'));
  const script = 'export const turns = 12;\n'.repeat(200);
  let server: Server;

  /** The answer of a plain server, which sends the file of that name. */
  const get = (path: string, accepted = ''): Promise<{ body: Buffer; headers: Record<string, unknown> }> =>
    new Promise((resolve, reject) => {
      const { port } = server.address() as AddressInfo;
      request({ port, path, headers: { 'Accept-Encoding': accepted } }, (answer) => {
        const some: Buffer[] = [];
        answer.on('data', (bytes) => some.push(bytes));
        answer.on('end', () => resolve({ body: Buffer.concat(some), headers: answer.headers }));
      })
        .on('error', reject)
        .end();
    });

  beforeAll((listening) => {
    for (const name of ['a.js', 'new.js', 'b [c].css', 'font.woff2'])
      writeFileSync(join(folder, name), script);
    execFileSync('node', [join(__dirname, 'compress.mjs'), folder], {
      input: ['a.js', 'b [c].css', 'font.woff2', ''].join('\n'),
    });
    serveCompressed(folder, '/school/_next/static/');
    server = createServer(({ url }, answer) => {
      const name = url!.split('?')[0]!.split('/').at(-1)!;
      const file = join(folder, name.startsWith('%ff') ? name : decodeURIComponent(name));
      answer.statusCode = existsSync(file) ? 200 : 404;
      answer.end(existsSync(file) ? readFileSync(file) : '');
    }).listen(0, listening);
  });

  afterAll((closed) => {
    rmSync(folder, { recursive: true });
    server.close(closed);
  });

  test.each([
    ['a.js', 'gzip, br', 'br', 'application/javascript'],
    ['a.js', 'gzip', 'gzip', 'application/javascript'],
    ['a.js?v=2', 'br', 'br', 'application/javascript'],
    ['b%20%5Bc%5D.css', 'br', 'br', 'text/css'],
  ])('%s for “%s” goes out as %s', async (name, accepted, encoding, type) => {
    const { body, headers } = await get(`/school/_next/static/${name}`, accepted);
    expect(headers).toMatchObject({
      'content-encoding': encoding,
      'content-type': `${type}; charset=UTF-8`,
      vary: 'Accept-Encoding',
    });
    expect((encoding === 'br' ? brotliDecompressSync : gunzipSync)(body).toString()).toBe(script);
    expect(body.length).toBeLessThan(script.length / 10);
  });

  test.each([
    ['_next/static/a.js', '', 'a browser that takes none'],
    ['_next/static/font.woff2', 'br', 'what is compressed already'],
    ['_next/static/new.js', 'br', 'a file that was not compressed'],
    ['other/a.js', 'br', 'what is not built'],
  ])('%s for “%s” goes out as it is: %s', async (name, accepted) => {
    const { body, headers } = await get(`/school/${name}`, accepted);
    expect([body.toString(), headers['content-encoding']]).toEqual([script, undefined]);
  });

  test('what cannot be decoded is left to the server', async () => {
    const { headers } = await get('/school/_next/static/%ff.css?%', 'br');
    expect(headers['content-encoding']).toBeUndefined();
  });
});
