"use client";
/** Picks or takes a photo, stores it at once and hands its hash on. What was refused is said with its reason. */

import { Camera } from "lucide-react";
import { FileField, PHOTO_FILES } from "./file-field";
import { useJob } from "../job/job-context";

export function PhotoField({ label = "Photo", onStored }: { label?: string; onStored(hash: string, name: string): void }) {
  const { port } = useJob();
  return (
    <FileField
      label={label}
      accept={PHOTO_FILES}
      className="btn btn-outline"
      icon={<Camera aria-hidden className="size-5" />}
      busy={(name) => `Storing ${name}…`}
      take={async (file) => onStored(await port.photo(file), file.name)}
    />
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
