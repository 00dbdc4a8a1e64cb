/** Where the instruments of one job and its screens meet: each line of the one goes to all of the other. */

import { LineOrder, readLine, writeLine, type BenchLine } from "@/core/instrument/protocol";

export type Listener = (line: string) => void;
export type Role = "screen" | "instrument";

/** What drives the simulated instruments while nothing real is heard. */
export interface Simulator {
  tell(line: string): void;
  stop(): void;
}

/** A real instrument that has been silent for so long is taken to be gone. */
const SILENT_MS = 3000;
/** While a real one was heard within this time the simulated one stays off. */
const BRIDGED_MS = 15_000;

export interface Taken {
  taken: number;
  /** Lines that came twice or late. */
  dropped: number;
  refused: { read: string; why: string; accepted: string }[];
}

export class BenchChannel {
  private readonly listeners: Record<Role, Set<Listener>> = { screen: new Set(), instrument: new Set() };
  /** The newest line of each kind, for a screen that joins in between. */
  private readonly newest = new Map<string, string>();
  private readonly order = new LineOrder();
  private readonly silence = new Map<"meter" | "mains" | "tester", NodeJS.Timeout>();
  private bridgedAt = -Infinity;
  private simulator?: Simulator;
  private starting = false;

  /** @param simulate starts the simulated instruments; gives undefined for a job that has none. */
  constructor(private readonly simulate: (send: Listener) => Promise<Simulator | undefined>) {}

  /** Joins; gives the way to leave. A screen wakes the simulated instruments, the last one to leave stops them. */
  join(role: Role, listener: Listener): () => void {
    this.listeners[role].add(listener);
    if (role === "instrument") {
      const want = this.newest.get("want");
      if (want) listener(want);
    } else {
      for (const tell of ["mains", "meter", "tester", "gone"]) if (this.newest.has(tell)) listener(this.newest.get(tell)!);
      this.wake().catch((error: unknown) => console.error(`scutum: the simulated bench did not start: ${String(error)}`));
    }
    return () => {
      this.listeners[role].delete(listener);
      if (this.listeners.screen.size === 0) this.rest();
    };
  }

  /** Lines from a screen or from a bridge, as they come in. */
  post(texts: string[]): Taken {
    const out: Taken = { taken: 0, dropped: 0, refused: [] };
    for (const text of texts) {
      const read = readLine(text);
      if (!read.ok) {
        out.refused.push({ read: read.read, why: read.why, accepted: read.accepted });
        continue;
      }
      const { line } = read;
      if (line.tell === "want" || line.tell === "set") {
        this.toInstruments(line);
        out.taken++;
      } else if (this.order.accepts(line)) {
        this.bridgedAt = Date.now();
        this.takeOver();
        if (line.tell !== "gone") this.watch(line.tell);
        this.toScreens(writeLine(line), line.tell);
        out.taken++;
      } else out.dropped++;
    }
    return out;
  }

  private toInstruments(line: BenchLine): void {
    const text = writeLine(line);
    if (line.tell === "want") this.newest.set("want", text);
    for (const listener of this.listeners.instrument) listener(text);
    this.simulator?.tell(text);
  }

  private toScreens(text: string, tell: string): void {
    if (tell === "gone") for (const kind of ["meter", "mains", "tester"]) this.newest.delete(kind);
    else this.newest.delete("gone");
    this.newest.set(tell, text);
    for (const listener of this.listeners.screen) listener(text);
  }

  /** A real instrument is heard: the simulated ones leave the bench. */
  private takeOver(): void {
    if (!this.simulator) return;
    this.rest();
    for (const what of ["meter", "mains", "tester"] as const) this.toScreens(writeLine({ tell: "gone", what }), "gone");
  }

  private watch(what: "meter" | "mains" | "tester"): void {
    clearTimeout(this.silence.get(what));
    const timer = setTimeout(() => this.toScreens(writeLine({ tell: "gone", what }), "gone"), SILENT_MS);
    timer.unref();
    this.silence.set(what, timer);
  }

  private async wake(): Promise<void> {
    if (this.simulator || this.starting || Date.now() - this.bridgedAt < BRIDGED_MS) return;
    this.starting = true;
    try {
      const simulator = await this.simulate((text) => this.toScreens(text, text.slice(0, text.indexOf(" "))));
      if (!simulator) return;
      if (this.listeners.screen.size === 0) return simulator.stop();
      this.simulator = simulator;
      const want = this.newest.get("want");
      if (want) simulator.tell(want);
    } finally {
      this.starting = false;
    }
  }

  private rest(): void {
    this.simulator?.stop();
    this.simulator = undefined;
  }
}
