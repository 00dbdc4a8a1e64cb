/** What the screens need of the job's instruments; the app hands it in. Lines are those of the instruments' protocol. */

export interface InstrumentPort {
  /** @param state told true once the stream stands, false when it breaks; it joins again by itself. @returns the way to leave. */
  listen(line: (text: string) => void, state: (joined: boolean) => void): () => void;
  /** Rejects with an Error whose message can be shown. */
  send(line: string): Promise<void>;
}
