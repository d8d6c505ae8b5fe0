import { database, type LeaseRecord } from './database';

/*
 * Which tab edits a lesson. The lease of a lesson carries a number that grows each time another tab takes it, and each
 * write of a lesson checks, in its own transaction, that this number is still the writer's (a fencing token). Clocks only
 * decide when a tab that no longer answers may be overtaken; what is written never depends on them. Edits
 * do not wait for the answer to that check: see `FenceRecord`.
 */

/** Milliseconds for which a lease holds unless it is renewed. */
export const LEASE_MS = 5000;

/** The lesson is edited by another tab: nothing more may be written by this one. */
export class LeaseLost extends Error {
  override readonly name = 'LeaseLost';
}

/** The lesson is not on the shelf any more. */
export class LessonGone extends Error {
  override readonly name = 'LessonGone';
}

/** The lesson is open in a tab that edits it. */
export class LessonInUse extends Error {
  override readonly name = 'LessonInUse';
}

export const leaseOf = async (lesson: string): Promise<LeaseRecord | undefined> =>
  database.leases.get(lesson);

/** Whether a lease holds at a moment; one that reaches further than any lease may is of a clock that was set back. */
export const isHeld = (lease: LeaseRecord | undefined, now: number): boolean =>
  lease !== undefined && lease.until > now && lease.until <= now + LEASE_MS;

/** Fences of earlier pages that are kept: as many pages may still believe that they have the lesson. */
const FENCES = 100;

/** Writes a lease with its fences; to be called in a transaction with `leases` and `fences` in it. */
async function putLease(lease: LeaseRecord): Promise<void> {
  const { leases, fences } = database;
  const { lesson, token } = lease;
  const next: [string, number] = [lesson, token + 1];
  await Promise.all([
    leases.put(lease),
    fences.put({ lesson, token }),
    lease.isGone ? fences.put({ lesson, token: token + 1 }) : fences.delete(next),
    fences.delete([lesson, token - FENCES]),
  ]);
}

/** Ends a lease so that the page that holds it can no longer write; called within a transaction, as `putLease` is. */
export const endLease = (lease: LeaseRecord): Promise<void> =>
  putLease({ ...lease, token: lease.token + 1, until: 0 });

/**
 * Takes a lease unless another tab has taken it since it was seen.
 * @param seen its number as it was seen; 0 where there was none.
 * @returns the new number, or null where another tab was faster.
 */
export async function takeLease(
  lesson: string,
  holder: string,
  seen: number,
  now: number,
): Promise<number | null> {
  const { leases, fences } = database;
  return database.transaction('rw', leases, fences, async () => {
    const before = await leases.get(lesson);
    const token = before?.token ?? 0;
    if (token !== seen) return null;
    await putLease({ ...before, lesson, holder, token: token + 1, until: now + LEASE_MS });
    return token + 1;
  });
}

/** Sets until when a lease holds. @returns whether it is still the one of that number. */
export async function setLeaseEnd(lesson: string, token: number, until: number): Promise<boolean> {
  const { leases } = database;
  return database.transaction('rw', leases, async () => {
    const lease = await leases.get(lesson);
    if (lease?.token !== token) return false;
    await leases.put({ ...lease, until });
    return true;
  });
}

/**
 * Refuses to go on where a lesson may not be written; to be called in the transaction of the write, with `leases` in it.
 * @throws LeaseLost
 * @throws LessonGone
 */
export async function mustHold(lesson: string, token: number): Promise<void> {
  const lease = await database.leases.get(lesson);
  if (lease?.token !== token) throw new LeaseLost('another tab edits this lesson');
  if (lease.isGone) throw new LessonGone('the lesson was deleted');
}

/** Marks a lesson as deleted, or as there again; to be called in a transaction with `leases` and `fences` in it. */
export async function markGone(lesson: string, isGone: boolean): Promise<void> {
  const lease = await database.leases.get(lesson);
  if (lease) await putLease({ ...lease, isGone });
}
