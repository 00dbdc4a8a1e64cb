/** How often a passphrase may be tried: five times, then after waits that double, up to a quarter of an hour. */

const FREE = 5;
const FIRST_WAIT_MS = 2000;
const LONGEST_WAIT_MS = 15 * 60_000;
/** Failures are forgotten after a day; so are the oldest when somebody tries with ever new names. */
const FORGET_MS = 24 * 3600_000;
const MOST_KEPT = 10_000;

export class Tries {
  private readonly failures = new Map<string, { count: number; last: number }>();

  /** Milliseconds until `key` may try again; 0 when it may now. */
  waitOf(key: string, now = Date.now()): number {
    const known = this.failures.get(key);
    if (!known || known.count < FREE || now - known.last > FORGET_MS) return 0;
    const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (known.count - FREE));
    return Math.max(0, known.last + wait - now);
  }

  failed(key: string, now = Date.now()): void {
    const known = this.failures.get(key);
    const count = known && now - known.last <= FORGET_MS ? known.count + 1 : 1;
    this.failures.delete(key);
    this.failures.set(key, { count, last: now });
    if (this.failures.size > MOST_KEPT) this.failures.delete(this.failures.keys().next().value!);
  }

  succeeded(key: string): void {
    this.failures.delete(key);
  }
}

/** Next bundles routes apart; all of them count together. */
const shared = globalThis as typeof globalThis & { scutumTries?: Tries };
export const tries = (): Tries => (shared.scutumTries ??= new Tries());
