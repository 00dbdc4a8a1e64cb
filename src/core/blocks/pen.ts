/** What a block puts its parts down with: nodes by their role in the block, values that are usual there. */

import type { Element, Letter, PartNotes } from "../circuit/circuit";
import { envelopeOf } from "../circuit/circuit";
import { findTubeType, type TubeType } from "../tubes/library";
import * as texts from "../texts/blocks";
import type { Usual } from "./usual-output";

/** Option by key, as chosen: "bias" → "fixed". */
export type Options = Readonly<Record<string, string>>;

/** A part as its block puts it down; its name in the file is given later. */
export interface PartSpec {
  /** What it does there; once in a block: "plate load". */
  role: string;
  letter: Letter;
  /** Name where it is not simply the next number of its letter: a tube's, or what the names of its kind begin with ("P" for P1). */
  name?: string;
  prefix?: string;
  /** A tube's section: any type of its kind may stand there. */
  tube?: true;
  nodes: string[];
  type?: string;
  value?: number;
  params: Element["params"];
  notes: PartNotes;
}

export interface PenSetup {
  id: string;
  /** Node of each port. */
  ports: Readonly<Record<string, string>>;
  options: Options;
  /** Name and type of each tube by its role. */
  tubes: Readonly<Record<string, { name: string; type: string }>>;
  usual: Usual;
  /** Every tube of the file with its type, for the heaters. */
  all?: readonly { name: string; type: TubeType | undefined }[];
  findType?(name: string): TubeType | undefined;
}

export type Electrodes = { p: string; g: string; k: string; s?: string };

/** Places in the walk: supplies first, then the output tubes electrode by electrode, then from the inverter towards the input. */
const ORDER = { bias: 5, rail: 10, grid: 100, cathode: 200, plate: 300, screen: 400, small: 500 };
const MOST_TUBES = 40;

export class Pen {
  readonly parts: PartSpec[] = [];
  /** The `*@` lines, in order. */
  readonly annotations: string[] = [];

  constructor(private readonly setup: PenSetup) {}

  get id(): string {
    return this.setup.id;
  }
  get usual(): Usual {
    return this.setup.usual;
  }

  option(key: string): string {
    return this.setup.options[key] ?? "";
  }
  is(key: string, value: string): boolean {
    return this.setup.options[key] === value;
  }

  /** A port's node by the port's name, ground for "0", else a node of this block alone. */
  node(name: string): string {
    return name === "0" ? "0" : (this.setup.ports[name] ?? `${name}_${this.setup.id.toLowerCase()}`);
  }

  /** The type of the tube in a role; undefined where nothing is known of it. */
  type(role: string): TubeType | undefined {
    const type = this.setup.tubes[role]?.type ?? "";
    return this.setup.findType?.(type) ?? findTubeType(type);
  }
  tubeName(role: string): string {
    return this.setup.tubes[role]?.name ?? "V?";
  }

  r(role: string, a: string, b: string, ohms: number, notes: PartNotes = {}): void {
    this.part({ role, letter: "R", nodes: [a, b], value: ohms, notes: { tol: 0.1, watts: 0.5, kind: "carbon", ...notes } });
  }

  c(
    role: string,
    a: string,
    b: string,
    farads: number,
    volts: number,
    kind: string | undefined = farads >= 1e-6 ? "electrolytic" : undefined,
  ): void {
    this.part({ role, letter: "C", nodes: [a, b], value: farads, notes: { volts, kind } });
  }

  choke(role: string, a: string, b: string, henries: number, ohms: number): void {
    this.part({ role, letter: "L", nodes: [a, b], value: henries, notes: { dcr: ohms } });
  }

  /** A control from its start to its end; a rheostat has its wiper on the end. */
  pot(role: string, start: string, wiper: string, end: string, ohms: number, taper = "linear", pos = 0.5): void {
    this.part({
      role,
      letter: "X",
      prefix: "P",
      type: "POT",
      nodes: [start, wiper, end],
      value: ohms,
      params: { value: ohms, taper, pos },
    });
  }

  special(role: string, prefix: string, type: string, nodes: string[], params: Element["params"] = {}, name?: string): void {
    this.part({ role, letter: "X", prefix, name, type, nodes, params });
  }

  /** The tube of a role; its electrodes as nodes of the block. */
  tube(role: string, at: Electrodes): void {
    const { name, type } = this.setup.tubes[role] ?? { name: "V?", type: "?" };
    this.part({ role, letter: "X", name, type, tube: true, nodes: [at.p, ...(at.s === undefined ? [] : [at.s]), at.g, at.k] });
  }

  private part(spec: Omit<PartSpec, "params" | "notes"> & Partial<Pick<PartSpec, "params" | "notes">>): void {
    this.parts.push({ params: {}, notes: {}, ...spec, nodes: spec.nodes.map((n) => this.node(n)) });
  }

  /** A supply node: its point is called after it, B2 for b2. */
  rail(node: string, capacitor: string): void {
    const at = this.node(node);
    const number = Number(/\d+/.exec(at)?.[0] ?? 1);
    const words = number === 1 ? texts.reservoir() : texts.supply(number);
    this.point(at.toUpperCase(), node, ORDER.rail * number, words, {
      caution: number === 1 ? texts.highest() : undefined,
      capacitor,
    });
  }

  /** Between two reservoirs in series. */
  middlePoint(rail: string, node: string, capacitor: string): void {
    this.point(`${this.node(rail).toUpperCase()}M`, node, ORDER.rail + 2, texts.middle(), { capacitor });
  }

  biasPoint(node: string, capacitor: string): void {
    this.point(this.id.toUpperCase(), node, ORDER.bias, texts.biasSupply(), { caution: texts.biasFirst(), capacitor: `${capacitor}-` });
  }

  /** The points of an output tube. */
  outputPoints(role: string, at: Required<Electrodes>): void {
    const { name } = this.setup.tubes[role] ?? { name: "V?" };
    const number = numberOf(name);
    this.electrode(role, "grid", at.g, ORDER.grid + number);
    if (this.node(at.k) !== "0") this.electrode(role, "cathode", at.k, ORDER.cathode + number);
    this.electrode(role, "plate", at.p, ORDER.plate + number, texts.swings());
    this.electrode(role, "screen", at.s, ORDER.screen + number);
  }

  /**
   * The points of a small tube: plate, screen and cathode, those nearer to the output first. A cathode that both halves share is the
   * envelope's: `shared`.
   */
  stagePoints(role: string, at: Electrodes, says?: (electrode: string) => string, shared = false): void {
    const { name } = this.setup.tubes[role] ?? { name: "V?" };
    const half = envelopeOf(name) === name ? 0 : "ABCD".indexOf(name.slice(-1));
    const order = ORDER.small + 10 * (MOST_TUBES - numberOf(name)) + 3 * half;
    this.electrode(role, "plate", at.p, order, undefined, says);
    if (at.s !== undefined) this.electrode(role, "screen", at.s, order + 1, undefined, says);
    if (this.node(at.k) !== "0") this.electrode(role, "cathode", at.k, order + 2, undefined, says, shared ? envelopeOf(name) : name);
  }

  /** The grid of a stage whose bias is the current of its own grid. */
  contactBias(role: string, grid: string): void {
    const { name } = this.setup.tubes[role] ?? { name: "V?" };
    this.electrode(role, "grid", grid, ORDER.small + 10 * (MOST_TUBES - numberOf(name)) + 2, texts.contactBias());
  }

  private electrode(
    role: string,
    electrode: "plate" | "screen" | "grid" | "cathode",
    node: string,
    order: number,
    caution?: string,
    says?: (electrode: string) => string,
    pointOf?: string,
  ): void {
    const { name } = this.setup.tubes[role] ?? { name: "V?" };
    const half = envelopeOf(name) === name ? 0 : "ABCD".indexOf(name.slice(-1));
    const pin = this.type(role)?.pins[Math.max(0, half)]?.[electrode];
    const label = says?.(electrode) ?? texts.electrode(name, electrode);
    const letter = electrode === "cathode" ? "k" : electrode.charAt(0);
    this.point(`${pointOf ?? name}.${letter}`, node, order, label, {
      caution,
      pin: pin === undefined ? undefined : `${envelopeOf(name)} pin ${pin}`,
    });
  }

  /** One point a node: the first that is put down stays. `capacitor` is the role of the part whose + or − terminal it is. */
  private point(
    name: string,
    node: string,
    order: number,
    label: string,
    { caution, pin, capacitor }: { caution?: string; pin?: string; capacitor?: string },
  ): void {
    const at = this.node(node);
    if (this.annotations.some((a) => a.startsWith("*@point ") && a.includes(` node=${at} `))) return;
    const where = pin ?? (capacitor && `{${capacitor.replace(/-$/, "")}}${capacitor.endsWith("-") ? " −" : " +"}`);
    this.annotations.push(
      `*@point ${name} node=${at} order=${order} label="${label}"${where ? ` pin="${where}"` : ""}${caution ? ` caution="${caution}"` : ""}`,
    );
  }

  stage(name: string, input: string, output: string, label: string, control?: string): void {
    this.annotations.push(
      `*@stage ${name} in=${this.node(input)} out=${this.node(output)}${control ? ` control={${control}}` : ""} label="${label}"`,
    );
  }

  near(a: string, b: string): void {
    const [first, second] = [this.node(a), this.node(b)];
    if (first !== second && first !== "0" && second !== "0") this.annotations.push(`*@near ${first} ${second}`);
  }

  /** The file's tubes: V1 once for its two halves. */
  get envelopes(): { name: string; type: TubeType | undefined }[] {
    const seen = new Map((this.setup.all ?? []).map(({ name, type }) => [envelopeOf(name), { name: envelopeOf(name), type }]));
    return [...seen.values()].sort((a, b) => numberOf(a.name) - numberOf(b.name));
  }

  heater(name: string, tubes: readonly string[], how: { volts?: number; string?: boolean; ballast?: string }): void {
    const list = `${how.string ? "string" : "tubes"}=${tubes.join(",")}`;
    const volts = how.volts === undefined ? "" : ` volts=${how.volts}`;
    this.annotations.push(
      `*@heater ${name}${volts} ${list}${how.ballast ? ` ballast=${how.ballast}` : how.string ? "" : " reference=centre-tap"}`,
    );
  }

  fact(key: string, value: string): void {
    this.annotations.push(`*@fact ${key}=${value}`);
  }
}

const numberOf = (tube: string) => Number(/\d+/.exec(tube)?.[0] ?? 0);
