/** The heaters: each winding with the tubes that it feeds, or the string with its ballast. They are no nodes of the circuit. */

import type { Circuit, HeaterWinding } from "../circuit/circuit";
import { markedValue } from "../circuit/part-place";
import * as texts from "../texts/drawing";
import { boxOf, point, TEXT_HEIGHT, textWidth, type Section } from "./geometry";
import { PART, Sketch } from "./sketch";

/** The symbols on a winding, by the names that they have on the sheet: its tubes' heaters, its ballast. */
export function heatersOn(winding: HeaterWinding): string[] {
  return [...winding.tubes.map((tube) => `${winding.name} ${tube}`), ...(winding.ballast === undefined ? [] : [`${winding.name} ballast`])];
}

/** Undefined where the file says nothing of heaters. */
export function drawHeaters(circuit: Circuit): { title: Pick<Section, "kind" | "title">; sketch: Sketch } | undefined {
  if (circuit.heaters.length === 0) return undefined;
  const sketch = new Sketch({ isMark: () => false, rails: new Map(), hasPoint: () => false, leadsOn: () => false });
  let x = 0;
  for (const winding of circuit.heaters) {
    const node = `heater ${winding.name}`;
    const lines = [winding.name, winding.string ? texts.string() : markedValue(winding.volts ?? 6.3, "V")];
    const put = (part: string, shape: "winding" | "heater" | "ballast", words: string[]) => {
      const width = Math.max(...words.map(textWidth));
      sketch.symbols.push({
        part,
        shape,
        at: point(x, 0),
        direction: "down",
        pins: [
          { terminal: 0, at: point(x, 0) },
          { terminal: 1, at: point(x, PART) },
        ],
        box: boxOf(x - 0.9, 0, x + 0.9, PART),
      });
      const middle = PART / 2;
      const height = words.length * TEXT_HEIGHT;
      sketch.labels.push({
        part,
        lines: words,
        box: boxOf(x + 1.1, middle - height / 2, x + 1.1 + width, middle + height / 2),
        align: "start",
      });
      x += width + 3.4;
    };
    const begin = x;
    put(winding.name, "winding", lines);
    const at: number[] = [];
    for (const tube of winding.tubes) {
      at.push(x);
      put(`${winding.name} ${tube}`, "heater", [tube]);
    }
    if (winding.ballast !== undefined) {
      at.push(x);
      put(`${winding.name} ballast`, "ballast", [
        Number.isFinite(Number(winding.ballast)) ? markedValue(Number(winding.ballast), "Ω") : winding.ballast,
      ]);
    }
    const last = at.at(-1);
    if (last !== undefined && winding.string) {
      // One after the other: out of the top, through each in turn, back along the bottom.
      const chain = [begin, ...at];
      chain.forEach((from, i) => {
        const to = chain[i + 1];
        if (to === undefined) return;
        const level = i % 2 === 0 ? -1 : PART + 1;
        const own = `${node} ${i}`;
        const edge = level < 0 ? 0 : PART;
        sketch.wire(own, point(from, edge), point(from, level), point(to, level), point(to, edge));
      });
      const down = chain.length % 2 === 0;
      const back = `${node} back`;
      if (down) sketch.wire(back, point(last, PART), point(last, PART + 2.2), point(begin, PART + 2.2), point(begin, PART));
      else
        sketch.wire(
          back,
          point(last, 0),
          point(last, -2.2),
          point(begin - 1.8, -2.2),
          point(begin - 1.8, PART + 2.2),
          point(begin, PART + 2.2),
          point(begin, PART),
        );
    } else if (last !== undefined) {
      for (const each of [begin, ...at]) {
        sketch.wire(`${node} 1`, point(each, 0), point(each, -1), point(last, -1), point(begin, -1));
        sketch.wire(`${node} 2`, point(each, PART), point(each, PART + 1), point(last, PART + 1), point(begin, PART + 1));
      }
    }
    x += 2;
  }
  return { title: { kind: "heaters", title: texts.heaters() }, sketch };
}
