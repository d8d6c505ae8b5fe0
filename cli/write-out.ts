import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import type { Writable } from 'node:stream';
import { BadInput } from './bad-input';

const LINES_AT_ONCE = 4096;

/** Writes lines to a file, or to the terminal. @throws BadInput where that cannot be done. */
export async function writeLines(lines: Iterable<string>, out?: string): Promise<void> {
  const stream: Writable = out ? createWriteStream(out) : process.stdout;
  const failed = new Promise<never>((_, reject) =>
    stream.once('error', (error: NodeJS.ErrnoException) => {
      // Whoever reads may have seen enough, as `head` has.
      if (!out && error.code === 'EPIPE') process.exit(0);
      reject(new BadInput(`${out ?? 'output'}: cannot be written (${error.code})`));
    }),
  );
  const put = async (text: string) => {
    if (!stream.write(text)) await once(stream, 'drain');
  };
  const all = async () => {
    let share: string[] = [];
    for (const line of lines) {
      share.push(`${line}\n`);
      if (share.length < LINES_AT_ONCE) continue;
      await put(share.join(''));
      share = [];
    }
    await put(share.join(''));
    if (out) await new Promise<void>((done) => stream.end(done));
  };
  await Promise.race([all(), failed]);
}

/** One JSON line about the work on stderr. */
export function writeStats(stats: Readonly<Record<string, unknown>>): void {
  const peakRssMb = Math.round(process.resourceUsage().maxRSS / 1024);
  process.stderr.write(`${JSON.stringify({ ...stats, peakRssMb })}\n`);
}

/** How far long work is, on a terminal only, and not more often than ten times a second. */
export function progressLine(what: string): (share: number) => void {
  if (!process.stderr.isTTY) return () => {};
  let last = performance.now();
  return (share) => {
    const now = performance.now();
    if (share < 1 && now - last < 100) return;
    last = now;
    process.stderr.write(share < 1 ? `\r${what} ${Math.floor(share * 100)} % ` : '\r\x1b[K');
  };
}
