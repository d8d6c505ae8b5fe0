import type { Task, Tells } from '../circuit/exercise';
import { problem, sentence } from '../values/result';
import { taskKindOf } from './kinds';

/** Whether the wanted answer of a task is sealed, beside a digest of it or alone. */
export const isSealed = ({ sealed }: Task): boolean => sealed !== undefined;

/** Why the wanted answer of a task cannot be sealed, as a clause; null where it can. */
const whyNotSealed = (task: Task): string | null => taskKindOf(task).unsealable?.(task) ?? null;

/** Why checks of a task cannot tell “right or not yet” by a digest, as a clause; null where they can. */
function whyNoDigest(task: Task): string | null {
  const { hashed } = taskKindOf(task);
  return whyNotSealed(task) ?? (hashed ? (hashed.whyNot?.(task) ?? null) : 'a person marks it');
}

/** How the wanted answer of a task stands in the file that is handed out. */
export type Secrecy = 'open' | 'digest' | 'sealed';

/** How much of a task is kept from students when it is handed out: as much as its checks leave to be kept. */
export function secrecyOf(task: Task): Secrecy {
  if (task.tells === 'nothing') return whyNotSealed(task) === null ? 'sealed' : 'open';
  return task.tells === 'verdict' && whyNoDigest(task) === null ? 'digest' : 'open';
}

/** Whether a task is sealed when it is handed out. */
export const isToSeal = (task: Task): boolean => !isSealed(task) && secrecyOf(task) !== 'open';

/** Tries a second, of one processor at hashes as slow as `verdicts.ts` makes them. */
const TRIES_A_SECOND = 10;

const SECONDS = [
  [365.25 * 86_400, 'year'],
  [86_400, 'day'],
  [3600, 'hour'],
  [60, 'minute'],
  [1, 'second'],
] as const;

/** How long it takes to try as many answers, in words: `2 hours`. @param bits the answers as a power of two. */
export function guessingTime(bits: number): string {
  const seconds = 2 ** bits / TRIES_A_SECOND;
  const [size, unit] = SECONDS.find(([size]) => seconds >= size) ?? [1, 'second'];
  const n = Math.round(seconds / size);
  if (unit === 'year' && n >= 1000) return 'more than a thousand years';
  return n <= 1 ? `a ${unit}`.replace('a hour', 'an hour') : `${n} ${unit}s`;
}

/** What the file keeps of the wanted answer of a task, in one sentence. */
export function secrecyText(task: Task): string {
  const secrecy = secrecyOf(task);
  if (secrecy === 'sealed')
    return 'The wanted answer is sealed to your key: students cannot read it, however they take the file apart.';
  if (secrecy === 'digest') {
    const bits = taskKindOf(task).hashed!.bits(task);
    const how =
      bits === null
        ? 'an answer that a person would guess in a few tries is found in as many'
        : `all ${answersText(bits)} are tried in ${guessingTime(bits)}`;
    return `Only a slow hash of the answer stands in the file. Whoever can check can try: ${how}.`;
  }
  const ways: Partial<Record<Tells, (task: Task) => string | null>> = {
    nothing: whyNotSealed,
    verdict: whyNoDigest,
  };
  const why = ways[task.tells]?.(task);
  const readable = 'the wanted answer can be read by one who takes the file apart';
  return sentence(problem('readable', why ? `${why}; ${readable}` : readable));
}

/** Above this a count is told as a power of two. */
const MOST_COUNTED_BITS = 20;

const answersText = (bits: number): string =>
  bits <= MOST_COUNTED_BITS
    ? `${Math.round(2 ** bits).toLocaleString('en')} answers`
    : `2^${Math.round(bits)} answers`;
