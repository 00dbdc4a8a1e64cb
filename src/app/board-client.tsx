"use client";
import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { seenStream } from "./seen-stream";
import { Board, type BoardProps, type Found } from "@/ui/board/board";

async function search(text: string): Promise<Found> {
  const response = await fetch(`/api/v1/search?q=${encodeURIComponent(text)}`);
  if (!response.ok) throw new Error("The search is not answered: the server is not reached. It tries again with the next letter.");
  return (await response.json()) as Found;
}

/** @param seen state of the shop that the page was drawn with. */
export function BoardClient({ seen, ...props }: Omit<BoardProps, "search"> & { seen: string }) {
  const router = useRouter();
  useEffect(() => {
    let soon: ReturnType<typeof setTimeout> | undefined;
    // Several lines at once are one look.
    const look = () => (soon ??= setTimeout(() => ((soon = undefined), router.refresh()), 300));
    const stop = seenStream(() => {
      // Joined again after a break it says the same, and is told that the page is old.
      const source = new EventSource(`/api/v1/live?seen=${seen}`);
      source.addEventListener("changed", look);
      return source;
    });
    return () => {
      clearTimeout(soon);
      stop();
    };
  }, [router, seen]);
  return <Board {...props} search={search} />;
}
