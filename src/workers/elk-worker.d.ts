declare module "elkjs/lib/elk-worker.min.js" {
  /** Called in this thread, with the messages of a worker. Where there is no document it is left out. */
  export const Worker: new (url?: string) => globalThis.Worker;
}
