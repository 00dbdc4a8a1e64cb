/** The values of a circuit file in the order in which a chassis is read, and what is typed into one of them. */

import { fileName, type Circuit, type Element, type Provenance } from "../circuit/circuit";
import { setValue, valueKey } from "../circuit/edit-line";
import { isLineConnected } from "../circuit/mains-connection";
import { readCircuit } from "../circuit/read";
import { spiceNumber } from "../circuit/write";
import { formatQuantity } from "../quantity/format";
import { parseQuantity } from "../quantity/parse";
import type { Unit } from "../quantity/unit";
import * as texts from "../texts/blocks";
import { blocksOf, type Block, type BlockFile } from "./block-file";
import { usualOf } from "./usual-of";
import { usualValues } from "./write-blocks";

/** One value that can be typed. */
export interface Slot {
  /** Name in the file: "R4", "XP1". */
  part: string;
  element: Element;
  /** What the part does there, in words. */
  says: string;
  value: number;
  unit: Unit;
  /** The parameter it is, where the line has several. */
  key?: string;
  block?: string;
  usual?: number;
  /** How it is known; undefined where the file does not say. */
  prov?: Provenance;
}

const UNIT: Partial<Record<Element["letter"], Unit>> = { R: "Ω", C: "F", L: "H", V: "V", I: "A" };
const KEY_UNIT: Record<string, Unit> = { value: "Ω", vac: "V", zp: "Ω", zpp: "Ω" };

/** Every value in the order of the file; of a transformer the impedance that it is wound for, of a rectifier its winding's volts. */
export function slotsOf(file: BlockFile): Slot[] {
  const roles = new Map<Element, { block: Block; role: string }>();
  const usual = new Map<string, number | undefined>();
  const inFile = usualOf(file);
  for (const block of blocksOf(file)) {
    const specs = usualValues(block, file, inFile);
    for (const [role, e] of Object.entries(block.parts)) {
      roles.set(e, { block, role });
      const key = valueKey(e);
      const its = specs[role];
      usual.set(`${block.id} ${role}`, key === undefined ? its?.value : Number(its?.params[key]) || undefined);
    }
  }
  return file.circuit.elements.flatMap((element): Slot[] => {
    const key = valueKey(element);
    const unit = key === undefined ? UNIT[element.letter] : KEY_UNIT[key];
    const value = key === undefined ? element.value : element.params[key];
    if (element.tube || unit === undefined || typeof value !== "number") return [];
    const at = roles.get(element);
    return [
      {
        part: fileName(element),
        element,
        says: key === "vac" ? windingSays(element, file.circuit, at?.role) : (at?.role ?? element.notes.label ?? element.notes.kind ?? ""),
        value,
        unit,
        key,
        block: at?.block.id,
        usual: at && usual.get(`${at.block.id} ${at.role}`),
        prov: element.notes.prov,
      },
    ];
  });
}

/** What a rectifier's volts are: those of the wall or of the winding before it; of a tapped winding with two diodes, of each half. */
function windingSays(e: Element, circuit: Circuit, role = "rectifier"): string {
  if (isLineConnected(circuit)) return texts.wallVolts();
  const winding = e.type === "RECT_FULL" ? texts.secondaryEachHalf() : texts.secondary();
  return role === "rectifier" ? winding : `${role}, ${winding}`;
}

export type TypedValue = { ok: true; text: string; value: number; doubt?: string } | { ok: false; why: string };

/** So many times more or less than usual is a slip of the prefix, not a design. */
const FAR = 30;

/**
 * The file with what was typed in place of a value, marked as seen. A bare number is in ohms, volts or henries; of a capacitor below 1 in
 * microfarads. What is far from usual there is written all the same, with a doubt.
 */
export function typeValue(text: string, slot: Slot, typed: string, decimal?: "." | ","): TypedValue {
  const parsed = parseQuantity(typed, { unit: slot.unit, decimal });
  // A bare number from 1 up is microfarads where that is what such a part has; else it is asked.
  const { quantity, why } = parsed.ok ? { quantity: parsed.quantity, why: "" } : choose(parsed.choices, slot.value, parsed);
  if (!quantity) return { ok: false, why };
  const { value } = quantity;
  if (!(value > 0)) return { ok: false, why: texts.aboveZero(typed) };
  const written = setValue(text, slot.element, spiceNumber(value), "seen", slot.key);
  // A line that goes on in the next one, or a value worked out in braces, is not changed by half.
  const there = readCircuit(written).circuit.elements.find((e) => fileName(e) === slot.part);
  const now = slot.key === undefined ? there?.value : there?.params[slot.key];
  if (typeof now !== "number" || Math.abs(now / value - 1) > 1e-9)
    return { ok: false, why: texts.notInItsLine(slot.element.name, slot.element.line) };
  return { ok: true, text: loadFollows(written, slot, value), value, doubt: doubtOf(slot, value) };
}

/** Of two readings the one that is nearer to what stands there, where the other is far away. */
function choose(choices: { value: number }[] | undefined, near: number, failed: { read: string; why: string; accepted: string }) {
  const off = (v: number) => Math.abs(Math.log(v / near));
  const [best] = [...(choices ?? [])].sort((a, b) => off(a.value) - off(b.value));
  return { quantity: best, why: `${failed.read}: ${failed.why}; ${failed.accepted}` };
}

/** The transformer of an output stage is wound for its load: both lines are one figure on the speaker's label. */
function loadFollows(text: string, slot: Slot, value: number): string {
  if (slot.element.letter !== "R" || slot.block === undefined || slot.says !== "load") return text;
  const transformer = text
    .split("\n")
    .findIndex(
      (line, i) => i < slot.element.line && /\bOPT_(SE|PP)\b/i.test(line) && new RegExp(`\\s${slot.element.nodes[0]}\\s`, "i").test(line),
    );
  if (transformer < 0) return text;
  return setValue(
    text,
    { ...slot.element, letter: "X", type: "OPT_PP", params: { load: 1 }, line: transformer + 1 },
    spiceNumber(value),
    undefined,
    "load",
  );
}

export function doubtOf({ usual, unit }: Pick<Slot, "usual" | "unit">, value: number): string | undefined {
  if (usual === undefined || (value / usual < FAR && usual / value < FAR)) return undefined;
  const factor = value > usual ? value / usual : usual / value;
  return texts.farFromUsual(formatQuantity(value, unit), formatQuantity(usual, unit), Number(factor.toPrecision(1)));
}
