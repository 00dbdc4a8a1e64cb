/** What the library's screens need of the server; the app hands it in. */

export interface ModelHead {
  id: number;
  maker: string;
  name: string;
  version: number;
}

/** Calls reject with an Error whose message can be shown. */
export interface LibraryPort {
  /** Stores the file as its model's next version. */
  save(netlist: string): Promise<ModelHead>;
  netlist(id: number): Promise<string>;
}
