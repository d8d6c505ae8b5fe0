import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NextResponse } from 'next/server';
import { pathTo } from '@/loading/base';

export const dynamic = 'force-dynamic';

/** The addresses of all files of this build, for the service worker to keep, and for pages to see whether they are of it. */
export async function GET(): Promise<NextResponse> {
  const build = process.env.BUILD ?? '.next';
  const names = await readFile(join(process.cwd(), build, 'own-files'), 'utf8').catch(() => '');
  const files = names
    .split('\n')
    .filter((name) => name !== '')
    .map((name) => pathTo(`/_next/static${name.slice(1)}`));
  return NextResponse.json([
    ...files,
    pathTo('/theme.js'),
    pathTo('/icon.svg'),
    pathTo('/manifest.webmanifest'),
    pathTo('/icons/192.png'),
  ]);
}
