import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import type { NextConfig } from 'next';
import { EMBEDDED, FILE_POLICY, HEADERS } from './src/loading/policy';

/** Stands for the sources in some rooms of the core. */
function stampOf(rooms: readonly string[]): string {
  const hash = createHash('sha256');
  for (const room of rooms)
    for (const file of readdirSync(`src/core/${room}`, { recursive: true, encoding: 'utf8' }).sort())
      if (file.endsWith('.ts')) hash.update(readFileSync(`src/core/${room}/${file}`));
  return hash.digest('hex').slice(0, 12);
}

/** What a kept lesson was checked against: the document, the parts of which it may consist, the exercise inside. */
const RULES = stampOf(['circuit', 'exercise', 'formats/migrations', 'parts', 'values']);
/** What hand-ins are marked by: all of the core. */
const MARKING = stampOf(['']);

/** The path under which it is served: `/manege`, or nothing. */
const BASE_PATH = process.env.MANEGE_BASE ?? '';
if (!/^(?:\/[\w.-]+)*$/.test(BASE_PATH))
  throw new Error(`MANEGE_BASE: “${BASE_PATH}” is no path such as /manege`);

const BUILD = process.env.MANEGE_BUILD ?? '.next';

const config: NextConfig = {
  distDir: BUILD,
  basePath: BASE_PATH,
  // A folder that runs by itself; see `scripts/package`.
  ...(process.env.MANEGE_STANDALONE && {
    output: 'standalone' as const,
    outputFileTracingIncludes: { '/**': ['demo/*.manege.json'] },
  }),
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  env: { RULES, MARKING, BASE_PATH, BUILD },
  // The build for today's browsers; the package's entry serves the one for all of the last ten years. What the framework
  // brings along for older browsers, and for servers that Manege does not have, is left out as well.
  turbopack: {
    resolveAlias: {
      dexie: 'dexie/dist/modern/dexie.min.mjs',
      '../build/polyfills/polyfill-module': './src/loading/framework/no-polyfills.ts',
      './reducers/server-action-reducer': { browser: './src/loading/framework/no-server-actions.ts' },
      '../../../lib/constants': { browser: './src/loading/framework/header-names.ts' },
    },
  },
  headers: async () => {
    const all = Object.entries(HEADERS).map(([key, value]) => ({ key, value }));
    const policy = { key: 'Content-Security-Policy', value: FILE_POLICY };
    return [
      { source: '/:path*', headers: all },
      // A page that asks the same of all that it shows may show this one.
      { source: EMBEDDED, headers: [{ key: 'Cross-Origin-Resource-Policy', value: 'cross-origin' }] },
      { source: '/_next/static/:path*', headers: [policy] },
      // The worker looks after the path itself too, not only after what lies behind its slash.
      { source: '/sw.js', headers: [{ key: 'Service-Worker-Allowed', value: BASE_PATH || '/' }] },
    ];
  },
  // `./test` checks types on its own, tests included.
  typescript: { ignoreBuildErrors: true },
};

export default config;
