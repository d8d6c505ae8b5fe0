import { type NextRequest, NextResponse } from 'next/server';
import { EMBEDDED, frameAncestors, pagePolicy } from './src/loading/policy';

/** Gives every answer a policy with its own nonce; `src/loading/policy.ts` says what it allows. */
export function proxy(request: NextRequest): NextResponse {
  // Nothing here takes anything in.
  if (request.method !== 'GET' && request.method !== 'HEAD')
    return new NextResponse(null, { status: 405, headers: { Allow: 'GET, HEAD' } });
  // Built files have one policy for all; see `next.config.ts`.
  if (request.nextUrl.pathname.startsWith('/_next/static/')) return NextResponse.next();
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const policy = pagePolicy(
    nonce,
    process.env.NODE_ENV === 'development',
    request.nextUrl.pathname === EMBEDDED ? frameAncestors(process.env.MANEGE_FRAME_ANCESTORS) : undefined,
  );
  const forward = new Headers(request.headers);
  forward.set('x-nonce', nonce);
  forward.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers: forward } });
  response.headers.set('content-security-policy', policy);
  return response;
}
