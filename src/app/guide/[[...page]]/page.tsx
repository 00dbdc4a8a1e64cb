import Link from "next/link";
import { notFound } from "next/navigation";
import Markdown from "react-markdown";
import remarkGfm from "remark-gfm";
import { words } from "@/core/language/language";
import { STATIONS } from "@/core/tape/stations";
import { Strip } from "@/app/strip";
import { db } from "@/server/db";
import { guidePage } from "@/server/guide";
import { getSettings } from "@/server/settings";

type Props = { params: Promise<{ page?: string[] }> };

export async function generateMetadata({ params }: Props) {
  return { title: `Guide${(await params).page ? ` · ${(await params).page!.join(" ")}` : ""} · Scutum` };
}

/** A page of the user guide, with the list of all at the left. */
export default async function GuidePage({ params }: Props) {
  const [name = "index", ...more] = (await params).page ?? [];
  const text = more.length === 0 ? guidePage(name) : undefined;
  if (!text) notFound();
  const pages = [["index", "Start here"], ...STATIONS.map((s) => [s.id, s.name]), ["probe-mode", "Probe mode"]];
  return (
    <>
      <Strip settings={await getSettings(await db())} />
      <div className="mx-auto flex max-w-6xl flex-col gap-6 px-4 py-4 md:flex-row">
        <nav aria-label="Pages of the guide" className="flex shrink-0 flex-wrap gap-1 md:w-44 md:flex-col">
          {pages.map(([id, title]) => (
            <Link
              key={id}
              href={id === "index" ? "/guide" : `/guide/${id}`}
              aria-current={id === name ? "page" : undefined}
              className={`min-h-11 px-2 py-2 ${id === name ? "border-l-4 border-primary bg-base-200 font-bold" : "border-l-4 border-transparent hover:bg-base-200"}`}
            >
              {title}
            </Link>
          ))}
        </nav>
        <main className="guide min-w-0 flex-1" aria-label="Guide">
          <Markdown remarkPlugins={[remarkGfm]}>{words(text)}</Markdown>
        </main>
      </div>
    </>
  );
}
