"use client";
/** Hands the library's list its way to the server. */

import { useRouter } from "next/navigation";
import { LibraryList, type LibraryRow } from "@/ui/library/library-list";
import { askServer } from "../ask-server";

export function LibraryClient({ rows }: { rows: LibraryRow[] }) {
  const router = useRouter();
  return (
    <LibraryList
      rows={rows}
      remove={async (id) => {
        await askServer("DELETE", `/api/v1/models/${id}`);
        router.refresh();
      }}
    />
  );
}
