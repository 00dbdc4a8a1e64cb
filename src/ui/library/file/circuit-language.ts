/** How a circuit file is coloured, folded and completed. */

import type { CompletionContext, CompletionResult } from "@codemirror/autocomplete";
import { foldService, HighlightStyle, StreamLanguage, syntaxHighlighting, type StringStream } from "@codemirror/language";
import type { EditorState } from "@codemirror/state";
import { tags } from "@lezer/highlight";
import { SPECIAL_PARTS } from "@/core/circuit/special-parts";
import type { Circuit } from "@/core/circuit/circuit";
import { TUBE_TYPES } from "@/core/tubes/library";

interface Place {
  first: boolean;
  note: boolean;
  annotation: boolean;
  head: boolean;
}

/** The first line is the title; `*@` lines are structure, `*` lines are comments, after `;` come the notes of a part. */
const circuitFile = StreamLanguage.define<Place>({
  name: "circuit file",
  startState: () => ({ first: true, note: false, annotation: false, head: true }),
  token(stream: StringStream, place: Place) {
    if (stream.sol()) {
      Object.assign(place, { note: false, annotation: false, head: true });
      if (place.first) {
        place.first = false;
        stream.skipToEnd();
        return "heading";
      }
      if (stream.match(/^\s*\*@\w*/)) {
        place.annotation = true;
        return "keyword";
      }
      if (stream.match(/^\s*\*/)) {
        stream.skipToEnd();
        return "comment";
      }
      if (stream.match(/^\s*\.\w+/)) return "keyword";
    }
    if (stream.eatSpace()) return null;
    if (stream.match(/^;/)) {
      place.note = true;
      return "comment";
    }
    if (place.note) {
      if (stream.match(/^@\w+/)) return "propertyName";
      stream.match(/^("[^"]*"|[^\s@]+)/);
      return "comment";
    }
    if (stream.match(/^[\w-]+=/)) return "propertyName";
    if (stream.match(/^"[^"]*"?/)) return "string";
    if (place.head && !place.annotation && stream.match(/^[A-Za-z]\w*/)) {
      place.head = false;
      return "typeName";
    }
    if (stream.match(/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?([TGMKUNPF]\w*|MEG\w*)?(?=$|[\s;])/i)) return "number";
    if (!stream.match(/^[^\s;]+/)) stream.next();
    return null;
  },
});

const colours = HighlightStyle.define([
  { tag: tags.heading, fontWeight: "bold" },
  { tag: tags.keyword, color: "var(--color-info)" },
  { tag: tags.comment, color: "var(--soft)" },
  { tag: tags.propertyName, color: "var(--color-success)" },
  { tag: tags.string, color: "var(--color-success)" },
  { tag: tags.number, color: "var(--color-primary)" },
  { tag: tags.typeName, fontWeight: "bold" },
]);

/** A block folds from its head to its end; else a stage from a comment line to the line before the next one. */
const folding = foldService.of((state: EditorState, from: number) => {
  const line = state.doc.lineAt(from);
  if (/^\s*\*@block\b/i.test(line.text)) return upTo(state, line.number, line.to, (text) => /^\s*\*@endblock\b/i.test(text), true);
  if (/^\s*\*(?!@)/.test(line.text) && line.number > 1)
    return upTo(state, line.number, line.to, (text) => /^\s*(\*(?!@)|\.end\b)/i.test(text), false);
  return null;
});

function upTo(state: EditorState, number: number, from: number, ends: (text: string) => boolean, inclusive: boolean) {
  for (let n = number + 1; n <= state.doc.lines; n++) {
    const { text, to } = state.doc.line(n);
    if (!ends(text)) continue;
    const end = inclusive ? to : state.doc.line(n - 1).to;
    return end > from ? { from, to: end } : null;
  }
  return null;
}

export const circuitLanguage = [circuitFile, syntaxHighlighting(colours), folding];

const ANNOTATIONS = ["mains", "point", "stage", "heater", "near", "chart", "fact", "tube"].map((word) => `*@${word}`);
const NOTES = ["tol", "volts", "watts", "kind", "prov", "section", "year", "label", "dcr"].map((word) => `@${word}`);
const TYPES = [...TUBE_TYPES.filter((t) => t.kind !== "rectifier").map((t) => t.type), ...Object.keys(SPECIAL_PARTS)];

/** Nodes of the file and types of the library, after the first letter of them; structure after `*@` and `@`. */
export const completionsFor =
  (circuitNow: () => Circuit) =>
  (context: CompletionContext): CompletionResult | null => {
    const word = context.matchBefore(/[*@]?[\w.+@*-]*/);
    const line = context.state.doc.lineAt(context.pos);
    if (!word || line.number === 1 || (word.from === word.to && !context.explicit)) return null;
    const before = line.text.slice(0, word.from - line.from);
    const list = (labels: readonly string[], type: string) => labels.map((label) => ({ label, type }));
    if (word.text.startsWith("*")) return { from: word.from, options: list(ANNOTATIONS, "keyword") };
    if (before.includes(";")) return word.text.startsWith("@") ? { from: word.from, options: list(NOTES, "property") } : null;
    if (before.trim() === "") return null;
    const circuit = circuitNow();
    const nodes = [...new Set(circuit.elements.flatMap((e) => e.nodes))];
    const own = Object.values(circuit.tubeTypes).map((t) => t.type);
    const options = [...list(nodes, "variable"), ...(/^\s*x/i.test(line.text) ? list([...TYPES, ...own], "type") : [])];
    return { from: word.from, options, validFor: /^[\w.+-]*$/ };
  };
