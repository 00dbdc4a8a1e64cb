"use client";
/** Picks or takes a photo, stores it at once and hands its hash on. What was refused is said with its reason. */

import { useState } from "react";
import { Camera } from "lucide-react";
import { useJob } from "../frame/job-context";

export function PhotoField({ label = "Photo", onStored }: { label?: string; onStored(hash: string, name: string): void }) {
  const { port } = useJob();
  const [says, setSays] = useState<{ text: string; bad: boolean }>();
  async function take(file: File | undefined) {
    if (!file) return;
    setSays({ text: `Storing ${file.name}…`, bad: false });
    try {
      onStored(await port.photo(file), file.name);
      setSays(undefined);
    } catch (error) {
      setSays({ text: `${file.name}: ${(error as Error).message}`, bad: true });
    }
  }
  return (
    <div className="inline-flex flex-wrap items-center gap-2">
      <label className="btn btn-outline">
        <Camera aria-hidden className="size-5" /> {label}
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          className="sr-only"
          onChange={(e) => {
            void take(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
      </label>
      {says && (
        <span role={says.bad ? "alert" : "status"} className={says.bad ? "max-w-md text-sm text-error" : "soft text-sm"}>
          {says.text}
        </span>
      )}
    </div>
  );
}

export function Thumbnail({ hash, caption }: { hash: string; caption: string }) {
  return (
    <a href={`/api/v1/photos/${hash}`} target="_blank" rel="noreferrer" className="block w-36">
      {/* A photo of the shop's own database: the image optimiser has nothing to add to it. */}
      <img src={`/api/v1/photos/${hash}`} alt={caption || "Photo"} className="h-24 w-36 rounded border border-base-300 object-cover" />
      <span className="soft block truncate text-xs">{caption}</span>
    </a>
  );
}
