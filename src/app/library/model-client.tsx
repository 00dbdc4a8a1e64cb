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

interface ModelClientProps extends Omit<ModelPageProps, "port" | "solver" | "drawings" | "saved"> {
  /** The job that is given the model once it is stored, and by whom. */
  forJob?: { id: number; who: string };
}

/** @throws Error with the server's sentence. */
async function give({ id, who }: { id: number; who: string }, modelId: number): Promise<void> {
  const response = await fetch(`/api/v1/jobs/${id}/circuit`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ who, modelId }),
  });
  if (response.ok) return;
  const body = (await response.json().catch(() => ({}))) as { error?: string };
  throw new Error(`The model is stored, but job ${id} was not given it: ${body.error ?? `the server answered ${response.status}`}`);
}

export function ModelClient({ forJob, ...props }: ModelClientProps) {
  const router = useRouter();
  return (
    <ModelPage
      {...props}
      port={port}
      solver={solver}
      drawings={drawings}
      saved={async (head) => {
        if (forJob) {
          await give(forJob, head.id);
          // Anew: what the job's page has in hand is without a circuit.
          location.assign(`/jobs/${forJob.id}/walk`);
          return;
        }
        router.push(`/library/${head.id}`);
        router.refresh();
      }}
    />
  );
}
