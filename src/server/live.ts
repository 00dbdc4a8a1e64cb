/** What changes while somebody looks: which job's tape has grown, and who has which job open. One for each process. */

type Listener = () => void;

export interface Present {
  /** One open page. */
  screen: string;
  who: string;
}

export class Live {
  private readonly jobs = new Map<number, Set<Listener>>();
  private readonly board = new Set<Listener>();
  private readonly open = new Map<number, Map<string, Present>>();
  /** Who has a job open at another process of this shop, by process and job. */
  private readonly elsewhere = new Map<string, Map<number, Present[]>>();
  /** Told when somebody comes to a job here or leaves it: where the shop has other processes, they are told. */
  onPresence?: (jobId: number) => void;

  /** Of this process and this start: so that a page which was drawn before it joined is told that it is old. */
  private readonly born = Date.now();
  private count = 0;

  /** Stands for all changes so far. */
  get state(): string {
    return `${this.born}-${this.count}`;
  }

  /** Tells `listener` of each change of a job: its tape or who has it open. Gives the way to stop. */
  watch(jobId: number, listener: Listener): () => void {
    const listeners = this.jobs.get(jobId) ?? new Set();
    this.jobs.set(jobId, listeners.add(listener));
    return () => {
      listeners.delete(listener);
      if (listeners.size === 0) this.jobs.delete(jobId);
    };
  }

  /** Tells `listener` of each change of any tape. */
  watchAll(listener: Listener): () => void {
    this.board.add(listener);
    return () => void this.board.delete(listener);
  }

  /** A tape has grown: after the commit, so that who reads it now finds the line. */
  changed(jobId: number): void {
    this.count++;
    for (const listener of [...(this.jobs.get(jobId) ?? []), ...this.board]) listener();
  }

  /** Any tape may have grown. */
  changedAll(): void {
    this.count++;
    for (const listener of [...[...this.jobs.values()].flatMap((l) => [...l]), ...this.board]) listener();
  }

  /** Somebody opens a job. Gives the way to leave. */
  enter(jobId: number, present: Present): () => void {
    const here = this.open.get(jobId) ?? new Map<string, Present>();
    this.open.set(jobId, here.set(present.screen, present));
    const tell = () => {
      this.tell(jobId);
      this.onPresence?.(jobId);
    };
    tell();
    return () => {
      // The same page may have come back before its broken stream was noticed.
      if (here.get(present.screen) !== present) return;
      here.delete(present.screen);
      if (here.size === 0) this.open.delete(jobId);
      tell();
    };
  }

  /** Who has a job open, here and at other processes; a page that has moved from one to the other counts where it is heard of last. */
  present(jobId: number): Present[] {
    const there = [...this.elsewhere.values()].flatMap((jobs) => jobs.get(jobId) ?? []);
    return [...new Map([...there, ...this.presentHere(jobId)].map((p) => [p.screen, p])).values()];
  }

  presentHere(jobId: number): Present[] {
    return [...(this.open.get(jobId)?.values() ?? [])];
  }

  /** The jobs that somebody has open here. */
  jobsOpenHere(): number[] {
    return [...this.open.keys()];
  }

  /** Another process tells who has a job open there. */
  hearElsewhere(process: string, jobId: number, present: Present[]): void {
    const jobs = this.elsewhere.get(process) ?? new Map<number, Present[]>();
    // Said again and again: only what is new is told on.
    if (JSON.stringify(jobs.get(jobId) ?? []) === JSON.stringify(present)) return;
    this.elsewhere.set(process, jobs.set(jobId, present));
    if (present.length === 0) jobs.delete(jobId);
    this.tell(jobId);
  }

  /** Another process is heard no more: nobody is there. */
  forgetElsewhere(process: string): void {
    const jobs = [...(this.elsewhere.get(process)?.keys() ?? [])];
    this.elsewhere.delete(process);
    jobs.forEach((jobId) => this.tell(jobId));
  }

  private tell(jobId: number): void {
    this.jobs.get(jobId)?.forEach((listener) => listener());
  }
}

/** Next bundles routes apart; all of them must meet. */
const shared = globalThis as typeof globalThis & { scutumLive?: Live };
export const live = (): Live => (shared.scutumLive ??= new Live());
