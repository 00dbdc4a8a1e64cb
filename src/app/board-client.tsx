"use client";
import { useRouter } from "next/navigation";
import { useEffect } from "react";
import { Board, type BoardProps } from "@/ui/board/board";
import type { BoardCard } from "@/ui/board/board-card";

async function search(text: string): Promise<BoardCard[]> {
  const response = await fetch(`/api/v1/search?q=${encodeURIComponent(text)}`);
  if (!response.ok) throw new Error("The search is not answered: the server is not reached. It tries again with the next letter.");
  return ((await response.json()) as { jobs: BoardCard[] }).jobs;
}

export function BoardClient(props: Omit<BoardProps, "search">) {
  const router = useRouter();
  useEffect(() => {
    let source: EventSource | undefined;
    let soon: ReturnType<typeof setTimeout> | undefined;
    // Several lines at once are one look.
    const look = () => (soon ??= setTimeout(() => ((soon = undefined), router.refresh()), 300));
    const turn = () => {
      source?.close();
      source = undefined;
      if (document.hidden) return;
      source = new EventSource("/api/v1/live");
      source.addEventListener("changed", look);
      // What came while the stream was broken was not told.
      let joined = false;
      source.onopen = () => {
        if (joined) look();
        joined = true;
      };
    };
    document.addEventListener("visibilitychange", turn);
    turn();
    return () => {
      document.removeEventListener("visibilitychange", turn);
      clearTimeout(soon);
      source?.close();
    };
  }, [router]);
  return <Board {...props} search={search} />;
}
