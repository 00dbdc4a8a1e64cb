/** What the rest of the server asks of a database, wherever it is. */

export interface Sql {
  /** Parameterised; a JSON parameter is passed as its text. */
  query<T = Record<string, unknown>>(text: string, params?: unknown[]): Promise<T[]>;
}

export interface Database extends Sql {
  /** Committed and on disk when the promise resolves; rolled back when `work` throws. */
  transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
  /** Several statements without parameters: migrations. */
  script(text: string): Promise<void>;
  /** Does something while no other process of this shop does anything of the kind: changes of the tables, at the start. */
  alone<T>(work: () => Promise<T>): Promise<T>;
  /** Tells every screen, of every process of this shop, that a job has changed: after the commit. */
  announce(jobId: number): Promise<void>;
  close(): Promise<void>;
  /** The files of an embedded database as one tar, and what they hold, both of one moment. Absent on a server, which has tools of its own. */
  dump?(): Promise<{ tar: Uint8Array; contents: ShopContents }>;
}

/** What a database holds, in a few figures: a backup is held against what it was made of. */
export interface ShopContents {
  jobs: number;
  /** Lines of all tapes. */
  lines: number;
  /** Photos and recordings, and their bytes. */
  attachments: number;
  bytes: number;
  /** Of every line's id and payload, in order. */
  fingerprint: string;
}
