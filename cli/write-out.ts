import {
  closeSync,
  fstatSync,
  fsyncSync,
  openSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { isGzipName } from '../src/core/formats/gzip';
import { printable } from '../src/core/values/printable';
import { bounded } from '../src/core/values/result';
import { BadInput } from './bad-input';

const LINES_AT_ONCE = 4096;

/** Lines joined into texts of a few thousand each, every line with its end. */
function* shares(lines: Iterable<string>): Generator<string> {
  let share: string[] = [];
  for (const line of lines) {
    share.push(`${line}\n`);
    if (share.length < LINES_AT_ONCE) continue;
    yield share.join('');
    share = [];
  }
  if (share.length > 0) yield share.join('');
}

const codeOf = (error: unknown) => (error as NodeJS.ErrnoException).code ?? 'unknown';

const REASONS: Readonly<Record<string, string>> = {
  ENOSPC: 'the disk is full',
  ENOENT: 'its folder does not exist',
  EISDIR: 'it is a folder',
  EACCES: 'it may not be written',
};
const cannotWrite = (out: string, error: unknown) =>
  new BadInput(`${out}: cannot be written (${REASONS[codeOf(error)] ?? codeOf(error)})`);

/** Writes lines to a file, or to the terminal. @throws BadInput where that cannot be done. */
export async function writeLines(
  lines: Iterable<string>,
  out?: string,
  encoding: 'utf8' | 'latin1' = 'utf8',
): Promise<void> {
  if (out === undefined) await print(lines);
  else await writeFile(lines, out, encoding);
}

/**
 * Writes a file as a whole or not at all: to a temporary file beside it, which replaces it once everything is on the disk.
 * Pipes and devices are written directly.
 */
async function writeFile(lines: Iterable<string>, out: string, encoding: 'utf8' | 'latin1'): Promise<void> {
  const at = existing(out);
  const isPlain = at === null || at.isFile;
  const target = at?.path ?? out;
  const beside = isPlain ? join(dirname(target), `.${basename(target)}.${process.pid}`) : target;
  let opened: number | null = null;
  try {
    opened = openSync(beside, isPlain ? 'wx' : 'w', at?.mode ?? 0o666);
    if (isGzipName(out)) await writePacked(opened, lines, encoding);
    else for (const bytes of buffersOf(lines, encoding)) writeAll(opened, bytes);
    if (fstatSync(opened).isFile()) fsyncSync(opened);
    closeSync(opened);
    opened = null;
    if (isPlain) renameSync(beside, target);
  } catch (error) {
    if (opened !== null) closeSync(opened);
    if (isPlain && codeOf(error) !== 'EEXIST') rmSync(beside, { force: true });
    // What makes the lines may refuse as well.
    throw codeOf(error) === 'unknown' ? error : cannotWrite(out, error);
  }
}

/** The file that exists at a path, with links resolved; null if there is none. */
function existing(out: string): { path: string; isFile: boolean; mode: number } | null {
  try {
    const path = realpathSync(out);
    const found = statSync(path);
    return { path, isFile: found.isFile(), mode: found.mode };
  } catch (error) {
    if (codeOf(error) === 'ENOENT') return null;
    throw cannotWrite(out, error);
  }
}

function writeAll(to: number, bytes: Buffer): void {
  for (let at = 0; at < bytes.length; ) at += writeSync(to, bytes, at);
}

/** Packs lines on their way to a file, a share at a time. */
async function writePacked(to: number, lines: Iterable<string>, encoding: 'utf8' | 'latin1'): Promise<void> {
  await pipeline(buffersOf(lines, encoding), createGzip(), async (packed: AsyncIterable<Buffer>) => {
    for await (const chunk of packed) writeAll(to, chunk);
  });
}

function* buffersOf(lines: Iterable<string>, encoding: 'utf8' | 'latin1'): Generator<Buffer> {
  for (const share of shares(lines)) yield Buffer.from(share, encoding);
}

/** Whether the reader has closed the pipe, as `head` does once it has enough lines. */
let isReaderGone = false;
/** The first error of the output, if there was one. */
let failure: BadInput | null = null;

process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') isReaderGone = true;
  else failure ??= cannotWrite('output', error);
});
// Nobody is left to whom that could be told.
process.stderr.on('error', () => {});

/** Prints lines, waiting for a slow reader. @throws BadInput where they do not arrive. */
async function print(lines: Iterable<string>): Promise<void> {
  for (const share of shares(lines)) {
    if (isReaderGone) return;
    await new Promise<void>((written) => process.stdout.write(share, () => written()));
    if (failure) throw failure;
  }
}

/** A line for the person, on stderr; names from files cannot act on the terminal. */
export function complain(text: string): void {
  process.stderr.write(`manege: ${printable(bounded(text))}\n`);
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
