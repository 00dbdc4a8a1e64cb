import Link from "next/link";
import { energyOf } from "@/core/job/job-view";
import type { BoardJob } from "@/core/job/summary";
import { board } from "@/server/board";
import { backupState } from "@/server/daily-backup";
import { db } from "@/server/db";
import type { Sql } from "@/server/database";
import { live } from "@/server/live";
import { shopDay } from "@/core/shop/day";
import { getSettings } from "@/server/settings";
import { viewOf, wholeJob } from "@/server/shop";
import type { BoardCard } from "@/ui/board/board-card";
import { stepWords, uncapital } from "@/ui/job/words";
import { BoardClient } from "./board-client";
import { Strip } from "./strip";

export default async function BoardPage() {
  const sql = await db();
  const seen = live().state;
  const [settings, { jobs, done }, backups] = [await getSettings(sql), await board(sql), await backupState(sql)];
  const cards: BoardCard[] = [];
  for (const job of jobs) cards.push({ ...job, charge: await chargeOf(sql, job) });
  return (
    <>
      <Strip settings={settings} />
      <main>
        {backups?.failure && (
          <p role="alert" className="mx-4 mt-3 rounded border-2 border-error px-3 py-2 text-sm">
            ▲ The daily backup failed: {backups.failure} See{" "}
            <Link className="underline" href="/settings">
              Settings
            </Link>
            .
          </p>
        )}
        <BoardClient seen={seen} cards={cards} done={done} now={Date.now()} today={shopDay(Date.now(), settings.timeZone)} />
      </main>
    </>
  );
}

/** What was left live or charged is looked at as of now; the rest need no look. */
async function chargeOf(sql: Sql, job: BoardJob): Promise<BoardCard["charge"]> {
  if (job.energy !== "live" && job.energy !== "stored") return undefined;
  const energy = energyOf(viewOf(await wholeJob(sql, job.id)), Date.now());
  if (energy.kind === "live")
    return { kind: "live", since: energy.since, ...(energy.reforming ? { reforming: energy.reforming.parts.join(", ") } : {}) };
  if (energy.kind === "stored") {
    const next = energy.proof.missing[0];
    return { kind: "stored", since: energy.since, volts: energy.volts, missing: next && uncapital(stepWords(next)) };
  }
  return undefined;
}
