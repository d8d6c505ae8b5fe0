import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { NextResponse } from 'next/server';

export const dynamic = 'force-dynamic';

/** The addresses of all built files, for the service worker to keep. */
export async function GET(): Promise<NextResponse> {
  const root = join(process.cwd(), '.next', 'static');
  const names = await readdir(root, { recursive: true, withFileTypes: true }).catch(() => []);
  const files = names
    .filter((entry) => entry.isFile() && !entry.name.endsWith('.map'))
    .map((entry) => `/_next/static${join(entry.parentPath, entry.name).slice(root.length)}`);
  return NextResponse.json([...files, '/theme.js', '/icon.svg']);
}
