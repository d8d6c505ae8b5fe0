import { type NextRequest, NextResponse } from 'next/server';

/**
 * A strict policy for every page: scripts only with this answer's nonce or loaded by such a script, never from
 * text (`eval`); compiling WebAssembly is allowed. Nothing is loaded from or sent to anywhere else.
 */
export function proxy(request: NextRequest): NextResponse {
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const development = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${development}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'none'",
    "frame-ancestors 'none'",
  ].join('; ');
  const forward = new Headers(request.headers);
  forward.set('x-nonce', nonce);
  forward.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers: forward } });
  response.headers.set('content-security-policy', policy);
  response.headers.set('referrer-policy', 'no-referrer');
  response.headers.set('x-content-type-options', 'nosniff');
  return response;
}

export const config = {
  matcher: [{ source: '/((?!_next/static|_next/image|.*\\.(?:js|ico|svg|png|woff2?)$).*)' }],
};
