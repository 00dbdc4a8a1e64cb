"use client";
export default function Failed({ error, reset }: { error: Error; reset(): void }) {
  // What was not loaded once is not asked for again by drawing anew.
  const missing = error.name === "ChunkLoadError";
  return (
    <main className="p-8">
      <p className="text-2xl font-bold">{missing ? "A part of this page could not be loaded." : "This page failed."}</p>
      <p className="mt-2 max-w-2xl">
        Nothing that was stored is lost.{" "}
        {missing
          ? "The server is not reached, or it was updated."
          : error.message && !error.message.includes("omitted in production")
            ? error.message
            : "The server's log says more: a data folder that is locked, damaged or full is named there."}
      </p>
      <button className="btn btn-primary mt-4" onClick={missing ? () => location.reload() : reset}>
        {missing ? "Load the page again" : "Try again"}
      </button>
    </main>
  );
}
