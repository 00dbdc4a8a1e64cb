/**
 * Lines that the server does not have yet, kept in the browser's storage: one entry for each, so that two tabs on one job never overwrite
 * each other's. What storage will not take (it is full, or forbidden) is kept in the page and said.
 */

import type { Outgoing } from "./job-port";

/** Of `window.localStorage`, so that tests can hand in their own. */
export type LineStorage = Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length">;

export class UnsentLines {
  private readonly prefix: string;
  /** What storage would not take, in the order of entry. */
  private readonly inPage = new Map<string, { order: string; line: Outgoing }>();
  private count = 0;

  constructor(
    jobId: number,
    private readonly storage: LineStorage | undefined,
  ) {
    this.prefix = `scutum-unsent:${jobId}:`;
    this.takeOver(`scutum-pending-${jobId}`);
  }

  /** Keeps a line until it is removed. */
  add(line: Outgoing): void {
    // Lines of one tab are in the order of entry; those of two tabs by their clocks.
    const order = `${String(Date.now()).padStart(15, "0")}-${String(this.count++).padStart(6, "0")}`;
    try {
      if (!this.storage) throw new Error("no storage");
      this.storage.setItem(`${this.prefix}${order}:${line.id}`, JSON.stringify(line));
    } catch {
      // Full or forbidden: `onlyInPage` tells, and the screen says so.
      this.inPage.set(line.id, { order, line });
    }
  }

  remove(id: string): void {
    this.inPage.delete(id);
    for (const key of this.keys()) if (key.endsWith(`:${id}`)) this.storage!.removeItem(key);
  }

  /** All that is not sent, of every tab on this job, in order. An entry that cannot be read is left alone and not given. */
  all(): Outgoing[] {
    const found = [...this.inPage.values()];
    for (const key of this.keys()) {
      const line = readLine(this.storage!.getItem(key));
      if (line) found.push({ order: key.slice(this.prefix.length), line });
    }
    return found.sort((a, b) => (a.order < b.order ? -1 : 1)).map((f) => f.line);
  }

  /** How many lines would be lost if this page were closed now. */
  get onlyInPage(): number {
    return this.inPage.size;
  }

  private keys(): string[] {
    if (!this.storage) return [];
    return Array.from({ length: this.storage.length }, (_, i) => this.storage!.key(i)!).filter((k) => k.startsWith(this.prefix));
  }

  /** One list under one key, as it was kept before. */
  private takeOver(old: string): void {
    const text = this.storage?.getItem(old);
    if (!text) return;
    let lines: unknown;
    try {
      lines = JSON.parse(text);
    } catch {
      // Damaged: it stays where it is, for whoever looks.
      return;
    }
    if (Array.isArray(lines)) for (const line of lines as Outgoing[]) this.add(line);
    this.storage!.removeItem(old);
  }
}

function readLine(text: string | null): Outgoing | undefined {
  if (text === null) return undefined;
  try {
    const line = JSON.parse(text) as Outgoing;
    return typeof line?.id === "string" ? line : undefined;
  } catch {
    return undefined;
  }
}

/** The browser's storage; undefined where it is forbidden, which some browsers tell by throwing at the mention of it. */
export function browserStorage(): LineStorage | undefined {
  try {
    return window.localStorage;
  } catch {
    return undefined;
  }
}
