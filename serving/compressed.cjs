// Loaded before the server (`node --require`): a built file goes out as it was compressed when it was built, where the browser takes
// that (`compress.mjs`). The server's own compression is quicker than it is tight, and does the same work for each request.
const { subscribe } = require('node:diagnostics_channel');
const { readdirSync } = require('node:fs');
const { join, extname } = require('node:path');

/** By what follows the file's name; the tightest first. */
const ENCODINGS = { '.br': 'br', '.gz': 'gzip' };
const TYPES = { '.js': 'application/javascript; charset=UTF-8', '.css': 'text/css; charset=UTF-8' };

/** Whether an `Accept-Encoding` names an encoding, and not with the weight 0 (RFC 9110, 12.5.3). */
const takes = (accepted, encoding) =>
  accepted
    .toLowerCase()
    .split(',')
    .some((one) => {
      const [name, ...rest] = one.split(';').map((part) => part.trim());
      return name === encoding && !rest.some((part) => /^q=0(\.0*)?$/.test(part));
    });

/** The name of a file in a path; nothing where it cannot be decoded. */
function nameIn(path) {
  try {
    return decodeURIComponent(path);
  } catch {
    return '';
  }
}

/**
 * Lets built files go out compressed, from every server that is made in this process.
 * @param folder the folder of the built files.
 * @param path the path under which they are served: `/manege/_next/static/`.
 */
function serveCompressed(folder, path) {
  const there = new Set(
    readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((file) => extname(file) in ENCODINGS),
  );
  subscribe('http.server.request.start', ({ request, response }) => {
    const [file] = request.url.split('?');
    const type = TYPES[extname(file)];
    if (!type || !file.startsWith(path)) return;
    const name = nameIn(file.slice(path.length));
    const accepted = String(request.headers['accept-encoding'] ?? '');
    for (const [end, encoding] of Object.entries(ENCODINGS)) {
      if (!there.has(name + end) || !takes(accepted, encoding)) continue;
      request.url = file + end;
      response.setHeader('Content-Encoding', encoding);
      response.setHeader('Content-Type', type);
      response.setHeader('Vary', 'Accept-Encoding');
      return;
    }
  });
}

module.exports = { serveCompressed, takes };

const { MANEGE_BUILD, MANEGE_BASE = '' } = process.env;
if (MANEGE_BUILD)
  serveCompressed(join(process.cwd(), MANEGE_BUILD, 'static'), `${MANEGE_BASE}/_next/static/`);
