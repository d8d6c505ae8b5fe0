import { remember, remembered } from '@/loading/page-memory';
import { type LeaseRecord, randomId } from '@/store/database';
import { isHeld, LEASE_MS, leaseOf, setLeaseEnd, takeLease } from '@/store/lease';

/*
 * One tab at a time edits a lesson, in every browser and on every origin: a lease in the store (store/lease.ts) says which.
 * Tabs also ask one another over a channel. So a tab keeps its lease however slow its timers are, nobody waits for a closed tab,
 * and a tab writes all that is pending before it hands over.
 */

/** Milliseconds between one renewal of the lease and the next. */
const RENEW_EVERY = 2000;
/** Milliseconds for which the holder of a lease is asked whether it is there. */
const ASK_FOR = 400;
/** Milliseconds that a tab has to write what waits when it hands over. */
const HAND_OVER_IN = 2000;
/** Pages of which it is remembered that they were left. */
const MOST_LEFT = 20;
const LEFT = 'manege-left';

/** Pages of this browser that were left lately: a page that is being left can write this, and nothing slower. */
function leftPages(): string[] {
  try {
    const kept: unknown = JSON.parse(remembered(LEFT) ?? '[]');
    return Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : [];
  } catch {
    // A lease runs out by itself.
    return [];
  }
}

function rememberLeft(holder: string): void {
  remember(LEFT, JSON.stringify([...leftPages(), holder].slice(-MOST_LEFT)));
}

/** Locks that were released on this page: they need no store to be known. */
const leftHere = new Set<string>();

type Message =
  | { readonly is: 'who' | 'give'; readonly from: string }
  | { readonly is: 'here' | 'given'; readonly to: string };

/** The right of one page to edit a lesson. */
export class EditLock {
  private readonly holder = randomId();
  private readonly channel: BroadcastChannel | null;
  private readonly answers = new Set<() => void>();
  private token: number | null = null;
  private timer: ReturnType<typeof setInterval> | undefined;
  private isReleased = false;
  private lost: () => void = () => {};
  private beforeGiving: () => Promise<void> = async () => {};

  constructor(private readonly id: string) {
    this.channel =
      typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(`manege-lesson-${id}`);
    this.channel?.addEventListener('message', ({ data }: MessageEvent<Message>) => void this.hear(data));
  }

  /** The number of the lease; null where another tab has it. */
  get lease(): number | null {
    return this.token;
  }

  /** @returns whether this tab may edit: no other tab does, or the one that did is gone. */
  async ask(): Promise<boolean> {
    for (;;) {
      const lease = await leaseOf(this.id);
      if (lease && !this.isLeft(lease) && (await this.isAnswered(lease))) return false;
      if (await this.take(lease)) return true;
    }
  }

  /** Takes the lease from the tab that has it; that tab first writes its pending edits if it can. */
  async takeOver(): Promise<void> {
    this.tell({ is: 'give', from: this.holder });
    const lease = await leaseOf(this.id);
    if (lease && isHeld(lease, Date.now()) && !this.isLeft(lease)) await this.answer(HAND_OVER_IN);
    while (!(await this.take(await leaseOf(this.id)))) {
      // Another tab took it at the same moment: the last one to ask has it.
    }
  }

  /** Calls when another tab has taken the lease. */
  onLost(lost: () => void): void {
    this.lost = lost;
  }

  /** Sets the work that must end before the lease is handed over. */
  onGiving(before: () => Promise<void>): void {
    this.beforeGiving = before;
  }

  release(): void {
    if (this.isReleased) return;
    this.isReleased = true;
    leftHere.add(this.holder);
    const { token } = this;
    this.letGo();
    this.channel?.close();
    if (token === null) return;
    rememberLeft(this.holder);
    setLeaseEnd(this.id, token, 0).catch(() => {});
  }

  /** Tells that another tab has the lease, where a write has shown it. */
  noticeLoss(): void {
    if (this.token === null) return;
    this.letGo();
    this.lost();
  }

  private letGo(): void {
    clearInterval(this.timer);
    this.token = null;
  }

  private isLeft({ holder, until }: LeaseRecord): boolean {
    return until === 0 || leftHere.has(holder) || leftPages().includes(holder);
  }

  /** Whether the holder of a lease is there: it answers, or goes on renewing its lease. */
  private async isAnswered(seen: LeaseRecord): Promise<boolean> {
    this.tell({ is: 'who', from: this.holder });
    let lease = seen;
    for (;;) {
      if (await this.answer(ASK_FOR)) return true;
      if (this.isReleased) return true;
      const next = await leaseOf(this.id);
      if (next?.token !== lease.token || this.isLeft(next)) return false;
      if (next.until > lease.until) return true;
      if (!isHeld(next, Date.now())) return false;
      lease = next;
    }
  }

  private async take(seen: LeaseRecord | undefined): Promise<boolean> {
    const token = await takeLease(this.id, this.holder, seen?.token ?? 0, Date.now());
    if (token === null) return false;
    this.token = token;
    this.timer = setInterval(() => void this.renew(), RENEW_EVERY);
    // The page was left meanwhile.
    if (this.isReleased) {
      this.letGo();
      await setLeaseEnd(this.id, token, 0);
    }
    return true;
  }

  private async renew(): Promise<void> {
    const { token } = this;
    if (token === null) return;
    // A store that refuses now may take the next renewal.
    const isStillMine = await setLeaseEnd(this.id, token, Date.now() + LEASE_MS).catch(() => true);
    if (!isStillMine && this.token === token) this.noticeLoss();
  }

  private async hear(message: Message): Promise<void> {
    if ('to' in message) {
      if (message.to === this.holder) for (const answered of this.answers) answered();
      return;
    }
    if (this.token === null) return;
    if (message.is === 'who') this.tell({ is: 'here', to: message.from });
    else {
      await this.beforeGiving().catch(() => {});
      this.noticeLoss();
      this.tell({ is: 'given', to: message.from });
    }
  }

  private tell(message: Message): void {
    if (!this.isReleased) this.channel?.postMessage(message);
  }

  /** Whether another tab answers within some milliseconds. */
  private answer(withinMs: number): Promise<boolean> {
    return new Promise((resolve) => {
      const end = (isThere: boolean) => {
        clearTimeout(timer);
        this.answers.delete(answered);
        resolve(isThere);
      };
      const answered = () => end(true);
      const timer = setTimeout(() => end(false), withinMs);
      this.answers.add(answered);
    });
  }
}
