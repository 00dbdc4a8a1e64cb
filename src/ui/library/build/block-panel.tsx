"use client";
/** What can be done with the block in hand: its options, its tubes, where it hangs, another kind, a block behind it, away with it. */

import { useState } from "react";
import { ArrowLeft, ArrowRight, Trash2 } from "lucide-react";
import { blocksOf, type Block, type BlockFile } from "@/core/blocks/block-file";
import { addBlock } from "@/core/blocks/add-block";
import { canBecome, setOption, setPort, setTube, turnBlock } from "@/core/blocks/change-block";
import { freeTubes } from "@/core/blocks/free-tubes";
import { usualOptions } from "@/core/blocks/kind";
import { moveBlock, removeBlock } from "@/core/blocks/move-block";
import type { Judged } from "@/core/blocks/judge-block";
import { findKind, KINDS } from "@/core/blocks/kinds";
import { findTubeType } from "@/core/tubes/library";
import { kindName, optionName, portName, valueName } from "@/core/texts/block-names";
import { words } from "@/core/language/language";

interface BlockPanelProps {
  file: BlockFile;
  block: Block;
  judged?: Judged;
  /** Told the changed file, and which block is in hand then. */
  change(file: BlockFile, inHand: string | undefined): void;
}

export function BlockPanel({ file, block, judged, change }: BlockPanelProps) {
  const kind = findKind(block.kind)!;
  const others = canBecome(block);
  const blocks = blocksOf(file);
  const rails = blocks.filter((b) => findKind(b.kind)!.group === "supply").flatMap((b) => (b.ports.out ? [b.ports.out] : []));
  const loops = blocks.filter((b) => b.kind === "feedback").map((b) => b.ports.to!);
  const biases = blocks
    .filter((b) => ["bias-supply", "back-bias", "bias-adjuster", "tremolo-bias"].includes(b.kind))
    .flatMap((b) => [b.ports.out!, ...(b.ports.out2 && b.ports.out2 !== b.ports.out ? [b.ports.out2] : [])]);
  const choicesFor = (use: string) =>
    use === "feed" ? rails : use === "feedback" ? ["0", ...loops] : use === "bias" ? ["0", ...biases] : [];

  return (
    <section
      aria-label={`Block ${block.id}`}
      className="flex flex-wrap items-end gap-x-3 gap-y-1 rounded border border-base-300 bg-base-200 px-3 py-2 text-sm"
    >
      {kind.options.map((o) => (
        <Choose
          key={o.key}
          label={optionName(o.key)}
          value={block.options[o.key]!}
          values={o.values.map((v) => [v, valueName(o.key, v)])}
          pick={(v) => change(setOption(file, block.id, o.key, v), block.id)}
        />
      ))}
      {Object.entries(block.tubes).map(([role, t]) => (
        <TubeField
          key={role}
          role={words(Object.keys(block.tubes).length > 1 ? role : "Tube")}
          tube={t}
          taken={blocks}
          put={(tube) => change(setTube(file, block.id, role, tube), block.id)}
        />
      ))}
      {kind.ports
        .filter((p) => choicesFor(p.use).length > 1 && p.name !== "minus")
        .map((p) => (
          <Choose
            key={p.name}
            label={portName(p.name)}
            value={block.ports[p.name]!}
            values={[...new Set([block.ports[p.name]!, ...choicesFor(p.use)])]
              .sort()
              .map((n) => [n, n === "0" ? "ground" : n.toUpperCase()])}
            pick={(n) => change(setPort(file, block.id, p.name, n), block.id)}
          />
        ))}
      {others.length > 0 && (
        <Choose
          label="Turn into"
          value=""
          values={[["", kindName(block.kind)], ...others.map((k): [string, string] => [k.kind, kindName(k.kind)])]}
          pick={(k) => k && change(turnBlock(file, block.id, k), block.id)}
        />
      )}
      <AddBlock file={file} after={block.id} change={change} />
      <span className="flex gap-1">
        <button
          className="btn btn-ghost px-2"
          aria-label="Towards the input"
          title="Towards the input"
          onClick={() => change(moveBlock(file, block.id, -1), block.id)}
        >
          <ArrowLeft aria-hidden className="size-5" />
        </button>
        <button
          className="btn btn-ghost px-2"
          aria-label="Towards the output"
          title="Towards the output"
          onClick={() => change(moveBlock(file, block.id, 1), block.id)}
        >
          <ArrowRight aria-hidden className="size-5" />
        </button>
        <button
          className="btn btn-ghost px-2"
          aria-label={`Take ${block.id} out`}
          title="Take it out"
          onClick={() => change(removeBlock(file, block.id), undefined)}
        >
          <Trash2 aria-hidden className="size-5" />
        </button>
      </span>
      {(judged?.wrong.length ?? 0) > 0 && (
        <ul className="verdict-out basis-full" aria-label="What cannot be right">
          {judged!.wrong.slice(0, 3).map((w) => (
            <li key={w}>■ {w}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

function AddBlock({ file, after, change }: { file: BlockFile; after: string; change: BlockPanelProps["change"] }) {
  const add = (kindName: string) => {
    const kind = findKind(kindName)!;
    const tubes = freeTubes(blocksOf(file), file.circuit, kind.tubes?.(usualOptions(kind)) ?? []);
    const { file: next, id } = addBlock(file, kindName, after, tubes);
    change(next, id);
  };
  return (
    <Choose
      label="Add behind it"
      value=""
      values={[
        ["", "…"],
        ...KINDS.filter((k) => k.kind !== "heaters" || !blocksOf(file).some((b) => b.kind === "heaters")).map((k): [string, string] => [
          k.kind,
          kindName(k.kind),
        ]),
      ]}
      pick={(k) => k && add(k)}
    />
  );
}

function Choose({
  label,
  value,
  values,
  pick,
}: {
  label: string;
  value: string;
  values: readonly (readonly [string, string])[];
  pick(value: string): void;
}) {
  return (
    <label className="block">
      <span className="soft block text-xs">{label}</span>
      <select aria-label={label} className="select min-h-11 w-auto pr-8" value={value} onChange={(e) => pick(e.target.value)}>
        {values.map(([v, name]) => (
          <option key={v} value={v}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** "V1A 12AX7": the section and its type, read when the field is left. */
function TubeField({
  role,
  tube,
  taken,
  put,
}: {
  role: string;
  tube: { name: string; type: string };
  taken: readonly Block[];
  put(tube: { name: string; type: string }): void;
}) {
  const whole = `${tube.name} ${tube.type}`;
  const [typed, setTyped] = useState<string>();
  const [why, setWhy] = useState("");
  const read = () => {
    if (typed === undefined || typed.trim() === whole) return setTyped(undefined);
    const [, name = "", typeName = ""] = /^\s*(V\d+[A-D]?)\s+(\S+)\s*$/i.exec(typed) ?? [];
    const type = findTubeType(typeName);
    const owner = taken.find((b) => Object.values(b.tubes).some((t) => t.name === name.toUpperCase() && t.name !== tube.name));
    if (!type) return setWhy(words(`${typed}: a socket and a tube type are accepted, such as V1A 12AX7`));
    if (owner) return setWhy(`${name.toUpperCase()} is in block ${owner.id} already`);
    if (type.kind !== findTubeType(tube.type)?.kind)
      return setWhy(words(`${type.type} is no ${findTubeType(tube.type)?.kind ?? "tube"} of that kind`));
    setWhy("");
    setTyped(undefined);
    put({ name: name.toUpperCase(), type: type.type });
  };
  return (
    <label className="block">
      <span className="soft block text-xs">{role}</span>
      <input
        className="input w-32"
        spellCheck={false}
        value={typed ?? whole}
        aria-invalid={why !== ""}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={read}
        onKeyDown={(e) => e.key === "Enter" && read()}
      />
      {why && (
        <span role="alert" className="block text-error">
          {why}
        </span>
      )}
    </label>
  );
}
