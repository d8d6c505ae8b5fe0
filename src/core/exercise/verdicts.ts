import { scryptAsync } from '@noble/hashes/scrypt';
import { randomBytes, utf8ToBytes } from '@noble/hashes/utils';
import type { Digest, Task } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { fromBase64Url, toBase64Url } from '../sealing/base64url';
import { digestibles, type Verdicts } from './marking';

/*
 * “Right or not yet” without the answer in the file: a hash of it that is slow by design (scrypt, RFC 7914), with a salt of its
 * own for each task, so that nothing computed for one helps with another.
 */

/** Work that a try costs: 2^15 rounds over 32 MB, about a tenth of a second of one processor. */
const SCRYPT = { N: 2 ** 15, r: 8, p: 1, dkLen: 32 };
const SALT_BYTES = 16;

const hashOf = async (answer: string, salt: string): Promise<string> =>
  toBase64Url(await scryptAsync(utf8ToBytes(answer), fromBase64Url(salt), SCRYPT));

/** A digest of an answer: another one each time. */
export async function digestOf(answer: string): Promise<Digest> {
  const salt = toBase64Url(randomBytes(SALT_BYTES));
  return { salt, hash: await hashOf(answer, salt) };
}

/** What was found already, by digest and answer; the last ones. */
const found = new Map<string, boolean>();
const MOST_FOUND = 2000;
const keyOf = ({ salt, hash }: Digest, answer: string): string => `${salt} ${hash} ${answer}`;

/**
 * Holds a student's work against the digests of some tasks; takes a tenth of a second or two for each, in small steps.
 * @returns what `markTask` asks of the same work.
 */
export async function verdictsOn(tasks: readonly Task[], lesson: Lesson): Promise<Verdicts> {
  const right = new Set<string>();
  for (const { digest, answer } of digestibles(tasks, lesson)) {
    const key = keyOf(digest, answer);
    const is = found.get(key) ?? (await hashOf(answer, digest.salt)) === digest.hash;
    found.set(key, is);
    if (found.size > MOST_FOUND) found.delete(found.keys().next().value!);
    if (is) right.add(key);
  }
  return (digest, answer) => right.has(keyOf(digest, answer));
}
