/** Amps put together at random from every kind of block, with random options; the same seed gives the same file. */

import { uniformDraws } from "../numeric/random";
import { findTubeType } from "../tubes/library";
import { assemble, type Planned } from "./assemble";
import { optionSets, type BlockKind } from "./kind";
import { findKind } from "./kinds";

const TRIODES = ["12AX7", "12AT7", "12AU7", "12AY7", "6SN7GT", "6SL7GT"];
const PENTODES = ["EF86", "6AU6"];
const OUTPUTS = ["EL84", "6V6GT", "6L6GC", "EL34", "KT66", "7591A", "6550"];
const RECTIFIERS = ["GZ34", "5Y3GT", "5U4GB", "EZ81"];

export function composedPlan(seed: number): Planned[] {
  const random = uniformDraws(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (share: number) => random() < share;
  let sockets = 0;
  let half: { name: string; type: string } | undefined;
  const type = (name: string) => findTubeType(name)!;
  const triode = () => {
    if (half) {
      const tube = half;
      half = undefined;
      return { name: tube.name, type: type(tube.type) };
    }
    const name = pick(TRIODES);
    sockets += 1;
    half = { name: `V${sockets}B`, type: name };
    return { name: `V${sockets}A`, type: type(name) };
  };
  const output = pick(OUTPUTS);
  const chain: Planned[] = [];
  const add = (kind: string, fixed: Record<string, string> = {}) => {
    const k = findKind(kind)!;
    const options = { ...pick(optionSets(k).filter((set) => Object.entries(fixed).every(([key, value]) => set[key] === value))) };
    const tubes = (k.tubes?.(options) ?? []).map((role) =>
      role.kind === "triode"
        ? triode()
        : role.kind === "rectifier"
          ? { name: `V${++sockets}`, type: type(pick(RECTIFIERS)) }
          : { name: `V${++sockets}`, type: type(k.group === "output" ? output : pick(PENTODES)) },
    );
    chain.push({ kind, options, tubes });
    return options;
  };

  add(pick(["full-wave", "full-wave", "bridge", "half-wave", "doubler"]));
  if (chance(0.3)) add("bleeder");
  if (chance(0.3)) add("standby");
  for (let i = 1 + Math.floor(random() * 4); i > 0; i--) add("filter");
  if (chance(0.1)) add("other-draw");
  const biased = chance(0.5) ? pick(["bias-supply", "bias-supply", "back-bias"]) : undefined;
  if (biased) {
    add(biased);
    add("bias-adjuster", { adjusters: pick(["level", "level and balance", "none"]) });
  }

  if (chance(0.8)) add("input", { jacks: pick(["one", "two"]) });
  else add("input-leak");
  // "held": something before the next grid has a path to ground.
  let held = true;
  let direct = false;
  for (let i = 1 + Math.floor(random() * 3); i > 0; i--) {
    const next = pick([
      "tone-stack",
      "bass-treble",
      "tone-control",
      "volume",
      "effects-loop",
      "reverb",
      "tremolo-grid",
      "follower",
      "mixer",
      "none",
    ]);
    const kind = pick(["triode", "triode", "triode", "pentode", "parallel", "cascode"]);
    direct = next === "tone-stack" || next === "follower";
    add(kind, { input: held ? "none" : "leak", coupling: direct ? "direct" : "capacitor" });
    held = false;
    if (next === "none") continue;
    if (next === "follower") add("follower", { input: "direct", coupling: "capacitor" });
    else if (next === "mixer") add("mixer", { leak: "yes", channels: "two" });
    else add(next, next === "volume" ? { coupling: "no" } : {});
    held = next === "tone-stack" || next === "bass-treble" || next === "volume" || next === "mixer" || next === "reverb";
  }
  if (chance(0.2)) add("tremolo-cathode");
  if (chance(0.65)) {
    const inverter = pick(["split-load", "long-tailed-pair", "paraphase", "transformer-inverter"]);
    if (inverter === "split-load") add(inverter, { grid: held ? "capacitor" : "biased" });
    else if (inverter === "long-tailed-pair") {
      if (!held) add("volume", { coupling: "no" });
      add(inverter, { tail: "to ground" });
    } else add(inverter, { input: held ? "none" : "leak" });
    if (chance(0.2)) add("tremolo-bias");
    add("push-pull", {
      biasing: biased ? pick(["fixed", "fixed, sensed", "mixed"]) : pick(["cathode", "cathode each"]),
      input: inverter === "transformer-inverter" ? "none" : "leak",
    });
  } else add("single-ended", { biasing: biased ? pick(["fixed", "fixed, sensed", "mixed"]) : "cathode", input: held ? "none" : "leak" });
  if (chance(0.4)) add("feedback");
  if (chance(0.2)) add("line-outlet");
  add("heaters", { wiring: "parallel" });
  return chain;
}

export const composedAmp = (seed: number): string =>
  assemble({ maker: "Test", model: `${seed}`, mains: 230, hertz: 50 }, composedPlan(seed));

/** A whole amp in which one block of that kind stands with those options, as short as it can be. */
export function ampWith(kind: BlockKind, options: Record<string, string>): string {
  let sockets = 3;
  const tubes = (kind.tubes?.(options) ?? []).map((role) => ({
    name: `V${++sockets}`,
    type: findTubeType(role.kind === "triode" ? "6AV6" : role.kind === "rectifier" ? "GZ34" : kind.group === "output" ? "6V6GT" : "EF86")!,
  }));
  const own: Planned = { kind: kind.kind, options, tubes };
  const v1 = { name: "V1A", type: findTubeType("12AX7")! };
  const v2 = { name: "V2", type: findTubeType("EL84")! };
  const is = (...groups: string[]) => groups.includes(kind.group);
  const first = is("supply") && kind.ports.some((p) => p.name === "minus");
  const grid = (held: boolean) => ({ input: held ? "none" : "leak" });
  const chain: Planned[] = [first ? own : { kind: "bridge" }, { kind: "filter" }];
  if (is("supply") && !first) chain.push(own);
  if (kind.kind === "bias-adjuster") chain.push({ kind: "bias-supply" });
  if (is("bias")) chain.push(own);
  if (options.jacks === "resistor only") chain.push({ kind: "input-leak" });
  chain.push(kind.group === "input" && kind.kind !== "mixer" ? own : { kind: "input" });
  // A block that takes a plate's own volts stands behind one.
  const ownCapacitor = options.input === "capacitor" || options.grid === "capacitor" || options.coupling === "yes";
  const direct =
    (ownCapacitor && !is("output")) ||
    (ownCapacitor && kind.kind === "single-ended") ||
    options.input === "direct" ||
    options.grid === "direct" ||
    kind.kind === "tone-stack" ||
    kind.kind === "long-tailed-pair";
  chain.push({ kind: "triode", options: { input: "none", coupling: direct ? "direct" : "capacitor" }, tubes: [v1] });
  const needsHold = options.input === "none" && (is("gain", "inverter") || is("output"));
  if (needsHold) chain.push({ kind: "volume" });
  if (kind.kind === "mixer" || is("tone", "gain", "inverter") || (is("effect") && kind.kind !== "tremolo-bias")) chain.push(own);
  if (kind.kind === "tremolo-bias") chain.push(own);
  if (is("inverter") || kind.kind === "push-pull") {
    const v1b = [{ name: "V1B", type: v1.type }];
    if (!is("inverter"))
      chain.push(
        options.input === "leak"
          ? { kind: "split-load", tubes: v1b }
          : { kind: "transformer-inverter", options: { input: needsHold ? "none" : "leak" }, tubes: v1b },
      );
    if (kind.kind === "push-pull") chain.push(own);
    else chain.push({ kind: "push-pull", tubes: [v2, { ...v2, name: "V3" }] });
  } else if (is("output") && kind.kind === "single-ended") chain.push(own);
  else {
    const held =
      chain.at(-1)!.kind === "volume" || (kind.group === "tone" && kind.kind !== "tone-control" && kind.kind !== "volume")
        ? "none"
        : "leak";
    chain.push({ kind: "single-ended", options: grid(held === "none"), tubes: [v2] });
  }
  if (is("feedback") || kind.kind === "line-outlet") chain.push(own);
  chain.push(kind.group === "heaters" ? own : { kind: "heaters" });
  return assemble({ maker: "Test", model: kind.kind, mains: 230, hertz: 50 }, chain);
}
