import { NextResponse } from 'next/server';

export const dynamic = 'force-dynamic';

/** For whoever watches over the server: it answers. */
export function GET(): NextResponse {
  return new NextResponse('ok\n', { headers: { 'content-type': 'text/plain', 'cache-control': 'no-store' } });
}
