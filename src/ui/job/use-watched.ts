"use client";
/** Whether anybody watched while the amp was live: a page that was closed meanwhile knows nothing of it. */

import { useEffect, useState } from "react";

/** The pages of a job say that they are there this often; a gap longer than the other is an absence. */
const BEAT_MS = 1000;
const GAP_MS = 8000;
/** Something that came on the tape so lately was entered by somebody who stood there, on whatever machine. */
const LATELY_MS = 60_000;

/**
 * @param live true while the tape says that the amp is on. @param lastAt time of the tape's last line, ISO.
 * @param answered line numbers of the answers so far: a new one ends the question.
 * @returns seconds for which nobody watched; undefined when there is nothing to ask.
 */
export function useWatched(jobId: number, live: boolean, lastAt: string | undefined, answered: number): number | undefined {
  const [away, setAway] = useState<{ seconds: number; answered: number }>();
  // Once, as the page opens: what the last page of this job left behind.
  useEffect(() => {
    if (!live) return;
    const left = Number(localStorage.getItem(keyOf(jobId))) || undefined;
    const gap = left === undefined ? undefined : Date.now() - left;
    const tapeGap = lastAt === undefined ? Infinity : Date.now() - Date.parse(lastAt);
    if (gap === undefined ? tapeGap > LATELY_MS : gap > GAP_MS) setAway({ seconds: Math.round((gap ?? tapeGap) / 1000), answered });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what stood there when the page opened
  }, [jobId]);
  const asking = live && away !== undefined && away.answered === answered;
  useEffect(() => {
    if (!live) return localStorage.removeItem(keyOf(jobId));
    // Who has not answered yet does not count as watching: another page opened now asks as well.
    if (asking) return;
    const beat = () => localStorage.setItem(keyOf(jobId), String(Date.now()));
    beat();
    const timer = setInterval(beat, BEAT_MS);
    return () => clearInterval(timer);
  }, [jobId, live, asking]);
  return asking ? away.seconds : undefined;
}

const keyOf = (jobId: number) => `scutum-watched-${jobId}`;
