"use client";
/** What a station is for, the way to its page in the guide, and its keys. */

import Link from "next/link";
import { Dialog, DialogPanel, DialogTitle } from "@headlessui/react";
import type { Station, StationId } from "@/core/tape/stations";

const EVERYWHERE: [string, string][] = [
  ["?", "this help"],
  ["e", "to the entry line; from a field Esc first"],
  ["F2", "from any field to the entry line, and back"],
  ["[ ]", "the station before, the one after"],
  ["g 6", "to a station by its number"],
  ["Enter", "logs what is in the field"],
  ["Ctrl Enter", "stores the form, from any of its fields"],
];
const PROBE: [string, string] = ["p", "probe mode"];
const DRAWING: [string, string] = ["d", "the drawing large, and back"];
const HERE: Partial<Record<StationId, [string, string][]>> = {
  walk: [["↑ ↓", "to the point before, to the next"], PROBE, DRAWING],
  suspects: [PROBE, DRAWING],
  "cold-checks": [PROBE, DRAWING],
  signal: [DRAWING],
  noise: [DRAWING],
  work: [DRAWING],
  "output-stage": [DRAWING],
};

export function HelpDialog({ station: { id, name, purpose }, close }: { station: Station; close(): void }) {
  return (
    <Dialog open onClose={close} className="relative z-50">
      <div className="fixed inset-0 bg-black/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel className="w-full max-w-lg rounded border border-base-300 bg-base-100 p-5">
          <DialogTitle className="text-xl font-bold">{name}</DialogTitle>
          <p className="mt-1">{purpose}.</p>
          <p className="mt-2">
            <Link className="underline" href={`/guide/${id}`}>
              Read the guide to {name}
            </Link>
          </p>
          <table className="mt-3 w-full" aria-label="Keys">
            <tbody>
              {[...(HERE[id] ?? []), ...EVERYWHERE].map(([key, does]) => (
                <tr key={key} className="border-t border-base-300">
                  <td className="w-28 py-1.5">
                    <kbd className="rounded bg-base-300 px-2 font-mono">{key}</kbd>
                  </td>
                  <td>{does}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <button className="btn btn-primary mt-4" onClick={close}>
            Close
          </button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
