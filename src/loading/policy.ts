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

const NOWHERE_ELSE = ["object-src 'none'", "base-uri 'none'", "form-action 'none'", "frame-ancestors 'none'"];

/**
 * The policy of a page: scripts and styles only with this answer's nonce or loaded by such a script, never from text
 * (`eval`); compiling WebAssembly is allowed. Nothing is loaded from or sent to anywhere else.
 */
export const pagePolicy = (nonce: string, isDevelopment: boolean): string =>
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
  ].join('; ');

/** The policy of built files: a worker takes over that of its script. */
export const FILE_POLICY = [
  "default-src 'self'",
  "script-src 'self' 'wasm-unsafe-eval'",
  "connect-src 'self'",
  ...NOWHERE_ELSE,
].join('; ');
