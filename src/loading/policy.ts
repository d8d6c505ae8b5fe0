/*
 * What browsers are told about the answers of the server; docs/security.md says why.
 */

/** Headers of every answer, whatever it is. */
export const HEADERS: Readonly<Record<string, string>> = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Permissions-Policy': [
    'accelerometer',
    'autoplay',
    'camera',
    'display-capture',
    'encrypted-media',
    'geolocation',
    'gyroscope',
    'hid',
    'magnetometer',
    'microphone',
    'midi',
    'payment',
    'publickey-credentials-get',
    'screen-wake-lock',
    'serial',
    'usb',
    'xr-spatial-tracking',
  ]
    .map((feature) => `${feature}=()`)
    .join(', '),
};

const NOWHERE_ELSE = ["object-src 'none'", "base-uri 'none'", "form-action 'none'"];

/** The page that other sites may show in a frame. It reads and keeps nothing of this browser. */
export const EMBEDDED = '/embed';

/**
 * The sites that may show the page for frames, as the host gives them: `https://course.school https://*.wiki.school`.
 * Without it every site may; with `none` none.
 * @throws Error for what would be no list of sites.
 */
export function frameAncestors(given: string | undefined): string {
  if (given === undefined || given.trim() === '') return '*';
  if (given.trim() === 'none') return "'none'";
  const sites = given.trim().split(/\s+/);
  for (const site of sites)
    if (!/^(?:\*|self|https?:\/\/[\w.*-]+(?::(?:\d+|\*))?)$/.test(site))
      throw new Error(`MANEGE_FRAME_ANCESTORS: “${site}” is no site such as https://course.school`);
  return sites.map((site) => (site === 'self' ? "'self'" : site)).join(' ');
}

/**
 * The policy of a page: scripts and styles only with this answer's nonce or loaded by such a script, never from text
 * (`eval`); compiling WebAssembly is allowed. Nothing is loaded from or sent to anywhere else.
 * @param framedBy sources of `frame-ancestors`: the sites that may show it in a frame.
 */
export const pagePolicy = (nonce: string, isDevelopment: boolean, framedBy = "'none'"): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${isDevelopment ? " 'unsafe-eval'" : ''}`,
    // The tools of development put styles into the page without a nonce.
    `style-src 'self' ${isDevelopment ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    ...(isDevelopment ? [] : ["require-trusted-types-for 'script'", 'trusted-types default']),
    ...NOWHERE_ELSE,
    `frame-ancestors ${framedBy}`,
  ].join('; ');

/** The policy of built files: a worker takes over that of its script. */
export const FILE_POLICY = [
  "default-src 'self'",
  "script-src 'self' 'wasm-unsafe-eval'",
  "connect-src 'self'",
  ...NOWHERE_ELSE,
  "frame-ancestors 'none'",
].join('; ');
