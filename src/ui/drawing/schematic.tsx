/** The drawing as SVG, in its own units: symbols, wires, marks, labels, and the layer of the station on it. */

import { memo } from "react";
import type { Circuit } from "@/core/circuit/circuit";
import type { Box, Drawing, Label, Symbol, Wire } from "@/core/drawing/geometry";
import { TEXT_HEIGHT } from "@/core/drawing/geometry";
import { markStrokes, strokesOf, type School, type Stroke } from "@/core/drawing/strokes";
import { labelX, markTextAt, pinTextAt } from "@/core/drawing/text-places";
import { VerdictShape } from "../forms/verdict-mark";
import type { Layer, NodeNote } from "./layer";
import { layerWords } from "./layer-words";

interface SchematicProps {
  drawing: Drawing;
  circuit: Circuit;
  school: School;
  layer: Layer;
  part?: string;
  node?: string;
}

const LINE = 0.16;

export function Schematic({ drawing, circuit, school, layer, part, node }: SchematicProps) {
  return (
    <>
      <InHand drawing={drawing} part={part} node={node} />
      <Sheet drawing={drawing} circuit={circuit} school={school} assumed={layer.assumed} />
      <Notes drawing={drawing} layer={layer} />
    </>
  );
}

/** What does not change while volts come in and things are chosen. */
const Sheet = memo(function Sheet({
  drawing,
  circuit,
  school,
  assumed,
}: {
  drawing: Drawing;
  circuit: Circuit;
  school: School;
  assumed?: ReadonlySet<string>;
}) {
  return (
    <>
      {drawing.sections.map((s) => (
        <text key={s.title} x={s.box.x} y={s.box.y + 1.6} fontSize={1.8} className="soft fill-current font-bold">
          {s.title}
        </text>
      ))}
      <g className="stroke-current" strokeWidth={LINE} fill="none" strokeLinecap="round">
        {/* One path for all that is seen of the wires; over it a wide one for the hand, for each node. */}
        <path d={pathOf(drawing.wires)} />
        {[...new Set(drawing.wires.map((w) => w.node))].map((node) => (
          <path
            key={node}
            data-node={node}
            className="cursor-pointer"
            d={pathOf(drawing.wires.filter((w) => w.node === node))}
            stroke="transparent"
            strokeWidth={1.3}
          />
        ))}
        {drawing.symbols.map((s) => (
          <g key={s.part} data-part={s.part} className="cursor-pointer">
            <rect {...rect(s.box)} stroke="none" fill="transparent" />
            <Strokes strokes={strokesOf(s, circuit, school)} />
          </g>
        ))}
        {drawing.marks.map((m, i) => (
          <g key={i} data-node={m.node} className="cursor-pointer">
            <rect {...rect(m.box)} stroke="none" fill="transparent" />
            <Strokes strokes={markStrokes(m)} />
          </g>
        ))}
      </g>
      {drawing.junctions.map((j, i) => (
        <circle key={i} cx={j.at.x} cy={j.at.y} r={0.32} className="fill-current" data-node={j.node} />
      ))}
      {drawing.marks.map((m, i) => {
        const at = markTextAt(m);
        return (
          m.text && (
            <text
              key={i}
              x={at.x}
              y={at.y}
              dy="0.36em"
              textAnchor="middle"
              fontSize={TEXT_HEIGHT * 0.9}
              className="pointer-events-none fill-current"
            >
              {m.text}
            </text>
          )
        );
      })}
      {drawing.labels.map((l) => (
        <LabelText key={l.part} label={l} assumed={assumed?.has(l.part) ?? false} />
      ))}
      {drawing.symbols.map((s) => (
        <PinTexts key={s.part} symbol={s} />
      ))}
    </>
  );
});

const pathOf = (wires: readonly Wire[]) => wires.map((w) => `M${w.from.x} ${w.from.y}L${w.to.x} ${w.to.y}`).join("");

const rect = ({ x, y, width, height }: Box) => ({ x, y, width, height });

/** Lines of one kind are one path: the page has to carry every one of them. */
function Strokes({ strokes }: { strokes: Stroke[] }) {
  const kinds = [
    { className: undefined, dash: undefined, list: strokes.filter((s) => !s.filled && !s.dashed) },
    { className: undefined, dash: "0.5 0.35", list: strokes.filter((s) => s.dashed) },
    { className: "fill-current", dash: undefined, list: strokes.filter((s) => s.filled) },
  ];
  return kinds.map(
    ({ className, dash, list }, i) =>
      list.length > 0 && <path key={i} d={list.map((s) => s.d).join("")} className={className} strokeDasharray={dash} />,
  );
}

function LabelText({ label, assumed }: { label: Label; assumed: boolean }) {
  const { part, lines, box, align } = label;
  return (
    <text fontSize={TEXT_HEIGHT} textAnchor={align} data-part={part} className="cursor-pointer fill-current">
      {lines.map((line, i) => (
        <tspan
          key={i}
          x={labelX(label)}
          y={box.y + TEXT_HEIGHT * (i + 0.8)}
          className={i === 0 ? "font-bold" : assumed ? "soft fill-current italic" : undefined}
        >
          {line}
        </tspan>
      ))}
    </text>
  );
}

function PinTexts({ symbol }: { symbol: Symbol }) {
  return symbol.pins.map((p) => {
    if (!p.text) return null;
    const { x, y, anchor } = pinTextAt(symbol, p);
    return (
      <text key={p.terminal} x={x} y={y} fontSize={1} textAnchor={anchor} className="soft pointer-events-none fill-current">
        {p.text}
      </text>
    );
  });
}

/** The ring around the part, or along the wires of the node, that is looked at. */
function InHand({ drawing, part, node }: { drawing: Drawing; part?: string; node?: string }) {
  const symbol = part && drawing.symbols.find((s) => s.part === part);
  return (
    <g className="stroke-primary" fill="none" data-in-hand={part ?? node}>
      {symbol && <rect {...frameOf(symbol)} strokeWidth={0.4} />}
      {node !== undefined && (
        <path d={pathOf(drawing.wires.filter((w) => w.node === node))} strokeWidth={0.9} strokeOpacity={0.55} strokeLinecap="round" />
      )}
      {node !== undefined &&
        drawing.marks
          .filter((m) => m.node === node)
          .map((m, i) => <rect key={i} {...rect(grown(m.box, 0.3))} rx={0.5} strokeWidth={0.4} />)}
    </g>
  );
}

const grown = (b: Box, by: number): Box => ({ x: b.x - by, y: b.y - by, width: b.width + 2 * by, height: b.height + 2 * by });

function Notes({ drawing, layer }: { drawing: Drawing; layer: Layer }) {
  return (
    <g>
      {drawing.tags.map((tag) => {
        const note = layer.nodes[tag.node];
        return (
          <g key={tag.node} data-node={tag.node} className="cursor-pointer">
            {layer.next === tag.node && (
              <rect {...rect(tag.box)} rx={0.6} className="fill-none stroke-primary" strokeWidth={0.35} data-next={tag.node}>
                <title>to be measured now</title>
              </rect>
            )}
            {note && <NoteText note={note} box={tag.box} />}
          </g>
        );
      })}
      {drawing.symbols.map((s) => {
        const note = layer.parts[s.part];
        if (!note) return null;
        const badge = badgeBox(
          s,
          drawing.labels.find((l) => l.part === s.part),
          note.text,
        );
        const look = note.look === "strong" ? "text-primary" : note.look === "changed" ? "text-info" : "soft";
        return (
          <g key={s.part} className={`${look} pointer-events-none`} data-note={s.part} data-look={note.look}>
            <rect
              {...frameOf(s)}
              className={note.look === "strong" ? "fill-primary" : "fill-none"}
              fillOpacity={0.22}
              stroke="currentColor"
              strokeWidth={note.look === "strong" ? 0.4 : 0.22}
              strokeDasharray={note.look === "out" || note.look === "changed" ? "0.9 0.5" : undefined}
            />
            {note.text && (
              <>
                <rect {...rect(badge)} rx={0.4} fill="var(--color-base-100)" stroke="currentColor" strokeWidth={0.14} />
                <text
                  x={badge.x + badge.width / 2}
                  y={badge.y + 1.35}
                  textAnchor="middle"
                  fontSize={1.4}
                  className="fill-current font-bold"
                >
                  {note.text}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Around a part, inside of its own label: a ring around a tube, a frame around the rest. */
function frameOf({ shape, at, box, direction }: Symbol) {
  if (shape === "triode" || shape === "pentode") return { x: at.x - 3.5, y: at.y - 3.5, width: 7, height: 7, rx: 3.5 };
  const level = direction === "left" || direction === "right";
  const trimmed = box.width < 4.5 && box.height < 4.5 ? 0.25 : 0;
  return {
    x: box.x + (level ? trimmed : 0),
    y: box.y + (level ? 0 : trimmed),
    width: box.width - (level ? 2 * trimmed : 0),
    height: box.height - (level ? 0 : 2 * trimmed),
    rx: 0.6,
  };
}

/** Where a word about a part stands: under its own label, clear of the volts at its leads. */
function badgeBox(s: Symbol, label: Label | undefined, text: string): Box {
  const size = { width: text.length * 0.95 + 0.8, height: 1.8 };
  if (s.shape === "triode" || s.shape === "pentode") return { x: s.at.x + 0.5, y: s.flipped ? s.at.y - 6.6 : s.at.y + 4.8, ...size };
  const bottom = s.box.y + s.box.height;
  if (s.direction === "left" || s.direction === "right" || !label)
    return { x: s.box.x + s.box.width / 2 - size.width / 2, y: bottom + 0.2, ...size };
  const y = Math.max(label.box.y + label.box.height, bottom - 0.6);
  return { x: label.align === "end" ? s.box.x - 0.2 - size.width : s.box.x + s.box.width + 0.2, y, ...size };
}

/** Two lines at a node: what should be there in the soft ink, what was read under it with its verdict's shape. */
function NoteText({ note, box }: { note: NodeNote; box: Box }) {
  const y = box.y + box.height / 2;
  const one = note.expected === undefined || note.read === undefined;
  return (
    <g aria-label={layerWords(note)} role="img">
      {note.expected !== undefined && (
        <text x={box.x + 0.4} y={one ? y + 0.5 : y - 0.3} fontSize={1.5} className="soft fill-current">
          {note.expected}
        </text>
      )}
      {note.read !== undefined && (
        <g className={`verdict-${note.verdict ?? "none"}`}>
          <svg x={box.x + 0.3} y={(one ? y + 0.5 : y + 1.4) - 1.2} width={1.3} height={1.3} viewBox="0 0 14 14">
            {note.verdict && note.verdict !== "none" && <VerdictShape verdict={note.verdict} />}
          </svg>
          <text x={box.x + 1.9} y={one ? y + 0.5 : y + 1.4} fontSize={1.6} className="fill-current font-bold">
            {note.read}
          </text>
        </g>
      )}
    </g>
  );
}
