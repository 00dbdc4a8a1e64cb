/** The owner's report as it prints from the screen: the blocks of the report, painted. */

import type { ReactNode } from "react";
import type { Block, Cell, Column } from "@/core/papers/block";
import { SpectrumChart } from "../charts/spectrum-chart";
import { LineworkView } from "../drawing/linework-view";
import { Staircase } from "../charts/staircase";
import { WaveChart } from "../charts/wave-chart";
import { VerdictMark } from "../forms/verdict-mark";

/** @param photosAt where the photos are fetched, each by its hash. */
export function ReportPaper({ blocks, photosAt = "/api/v1/photos" }: { blocks: Block[]; photosAt?: string }) {
  return (
    <article className="report mx-auto max-w-4xl px-8 py-8">
      {sections(blocks).map(([heading, ...rest], i) =>
        heading!.block === "heading" ? (
          <section key={i} className="mt-5" aria-label={heading!.text}>
            <h2 className="mb-1 border-b border-base-300 text-base font-bold">{heading!.text}</h2>
            {rest.map((block, k) => (
              <Painted key={k} block={block} photosAt={photosAt} />
            ))}
          </section>
        ) : (
          <Painted key={i} block={heading!} photosAt={photosAt} />
        ),
      )}
    </article>
  );
}

/** Each heading with what stands under it; what comes before the first heading stands alone. */
function sections(blocks: Block[]): Block[][] {
  const out: Block[][] = [];
  for (const block of blocks) {
    if (block.block === "heading" || out.at(-1)?.[0]?.block !== "heading") out.push([block]);
    else out.at(-1)!.push(block);
  }
  return out;
}

const LOOK = { quote: "text-lg", small: "soft mt-2 text-sm", strong: "mt-1 font-bold" } as const;

function Painted({ block: b, photosAt }: { block: Block; photosAt: string }): ReactNode {
  switch (b.block) {
    case "title":
      return (
        <header className="border-b-2 border-base-content pb-3">
          <p className="text-2xl font-bold">{b.shop}</p>
          <p className="soft text-sm">{b.address}</p>
          <h1 className="mt-4 text-xl font-bold">{b.title}</h1>
          {b.facts.map((fact) => (
            <p key={fact} className="soft">
              {fact}
            </p>
          ))}
        </header>
      );
    case "heading":
      return null;
    case "page":
      return <div className="break-after-page" aria-hidden />;
    case "text":
      return <p className={b.look && LOOK[b.look]}>{b.text}</p>;
    case "list":
      return (
        <ul className="list-disc pl-5">
          {b.items.map((item, i) => (
            <li key={i}>{item}</li>
          ))}
        </ul>
      );
    case "table":
      return <Table {...b} />;
    case "stairs":
      return (
        <div className="mb-3 grid grid-cols-2 gap-6">
          <Staircase steps={b.before} title="Supply before" axis={b.axis} />
          <Staircase steps={b.after} title="Supply after" axis={b.axis} />
        </div>
      );
    case "spectrum":
      return (
        <SpectrumChart
          mains={b.hertz}
          curves={[...(b.after ? [{ name: "after", curve: [...b.after] }] : []), { name: "before", curve: [...b.before] }]}
        />
      );
    case "waves":
      return (
        <WaveChart
          milliseconds={1}
          traces={[
            ...(b.before ? [{ name: "before", wave: b.before, look: "soft" as const }] : []),
            ...(b.after ? [{ name: "after", wave: b.after, look: "now" as const }] : []),
          ]}
        />
      );
    case "drawing":
      return (
        <figure className="my-3 break-inside-avoid">
          <LineworkView {...b} />
          {b.caption && <figcaption className="soft text-sm">{b.caption}</figcaption>}
        </figure>
      );
    case "photos":
      return (
        <div className="grid grid-cols-2 gap-4">
          {b.photos.map((p) => (
            <figure key={p.hash} className="break-inside-avoid">
              <img src={`${photosAt}/${p.hash}`} alt={p.caption} className="w-full border border-base-300" />
              <figcaption className="soft text-sm">{p.caption}</figcaption>
            </figure>
          ))}
        </div>
      );
  }
}

function Table({ columns, rows, totals = [] }: { columns: Column[]; rows: Cell[][]; totals?: Cell[][] }) {
  const line = (cells: Cell[]) =>
    cells.map((cell, k) => (
      <td key={k} className={`py-1 pr-3 ${k === 0 ? "font-bold" : ""} ${columns[k]!.align === "right" ? "text-right tabular-nums" : ""}`}>
        {typeof cell === "string" ? (
          cell
        ) : (
          <span className="inline-flex items-center gap-1.5 font-mono whitespace-nowrap">
            <VerdictMark verdict={cell.verdict} size={11} /> {cell.text}
          </span>
        )}
      </td>
    ));
  return (
    <table className="w-full text-sm">
      <thead>
        <tr className="soft text-left">
          {columns.map((c) => (
            <th key={c.title} scope="col" className={`pr-3 pb-1 font-normal ${c.align === "right" ? "text-right" : ""}`}>
              {c.title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((cells, i) => (
          <tr
            key={i}
            className={`border-b border-base-300 align-top ${totals.length > 0 && i === rows.length - 1 ? "break-after-avoid" : ""}`}
          >
            {line(cells)}
          </tr>
        ))}
        {totals.map((total, i) => (
          <tr key={i} className="break-before-avoid font-bold">
            {line(total)}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
