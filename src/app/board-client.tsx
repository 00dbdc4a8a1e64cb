"use client";
import { Board, type BoardProps } from "@/ui/board/board";
import type { BoardCard } from "@/ui/board/board-card";

async function search(text: string): Promise<BoardCard[]> {
  const response = await fetch(`/api/v1/search?q=${encodeURIComponent(text)}`);
  if (!response.ok) throw new Error("The search is not answered: the server is not reached. It tries again with the next letter.");
  return ((await response.json()) as { jobs: BoardCard[] }).jobs;
}

export function BoardClient(props: Omit<BoardProps, "search">) {
  return <Board {...props} search={search} />;
}
