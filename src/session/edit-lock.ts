/** One tab at a time edits a lesson (Web Locks); browsers without locks always may. */
export class EditLock {
  private letGo: (() => void) | undefined;
  private lost: () => void = () => {};

  constructor(private readonly id: string) {}

  /** @returns whether this tab may edit. */
  ask(): Promise<boolean> {
    return this.request({ ifAvailable: true });
  }

  /** Takes the lock from the tab that has it. */
  async steal(): Promise<void> {
    await this.request({ steal: true });
  }

  /** Calls when another tab has taken the lock. */
  onLost(lost: () => void): void {
    this.lost = lost;
  }

  private request(options: LockOptions): Promise<boolean> {
    if (!navigator.locks) return Promise.resolve(true);
    return new Promise((asked) => {
      navigator.locks
        .request(`lesson:${this.id}`, options, (lock) => {
          asked(lock !== null);
          return lock === null ? undefined : new Promise<void>((done) => (this.letGo = done));
        })
        .catch(() => {
          asked(false);
          this.lost();
        });
    });
  }

  release(): void {
    this.letGo?.();
  }
}
