import { type KeyPair, lockKeys, unlockKeys } from '../sealing/seal';
import { located, type Result, refusal } from '../values/result';
import { firstIssue, z } from '../values/schema';
import { headingProblem, readJson } from './read-json';

const KEY_VERSION = 1;

const bytes = () => z.string().check(z.regex(/^[A-Za-z0-9_-]{16,400}$/));
const KeyFile = z.object({ publicKey: bytes(), salt: bytes(), box: bytes() });

/** A teacher's keys as a file, under a passphrase. */
export const writeKeys = (keys: KeyPair, passphrase: string): string =>
  `${JSON.stringify({ format: 'manege-key', version: KEY_VERSION, ...lockKeys(keys, passphrase) }, null, 2)}\n`;

export function readKeys(text: string, passphrase: string): Result<KeyPair> {
  const json = readJson(text);
  if (!json.ok) return json;
  const heading = headingProblem(json.value, 'manege-key', KEY_VERSION);
  if (heading) return refusal(heading);
  const parsed = KeyFile.safeParse(json.value);
  return parsed.success ? unlockKeys(parsed.data, passphrase) : refusal(located(firstIssue(parsed.error)));
}
