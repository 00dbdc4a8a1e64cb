"use client";
/** Hands a model's page its way to the server and its solver. */

import { useRouter } from "next/navigation";
import { workerDrawings } from "@/workers/drawing";
import { workerSolver } from "@/workers/solver";
import { ModelPage, type ModelPageProps } from "@/ui/library/model-page";
import type { LibraryPort, ModelHead } from "@/ui/library/library-port";

const solver = workerSolver();
const drawings = workerDrawings();

const port: LibraryPort = {
  async save(netlist) {
    const response = await fetch("/api/v1/models", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ netlist }),
    });
    const body = (await response.json().catch(() => ({}))) as ModelHead & { error?: string };
    if (!response.ok) throw new Error(body.error ?? `the server answered ${response.status}`);
    return body;
  },
  async netlist(id) {
    const response = await fetch(`/api/v1/models/${id}/netlist`);
    if (!response.ok) throw new Error(`the server answered ${response.status}`);
    return response.text();
  },
};

export function ModelClient(props: Omit<ModelPageProps, "port" | "solver" | "drawings" | "saved">) {
  const router = useRouter();
  return (
    <ModelPage
      {...props}
      port={port}
      solver={solver}
      drawings={drawings}
      saved={(head) => {
        router.push(`/library/${head.id}`);
        router.refresh();
      }}
    />
  );
}
