"use client";
export default function Failed({ error, reset }: { error: Error; reset(): void }) {
  return (
    <main className="p-8">
      <p className="text-2xl font-bold">This page failed.</p>
      <p className="mt-2 max-w-2xl">
        Nothing that was stored is lost.{" "}
        {error.message && !error.message.includes("omitted in production")
          ? error.message
          : "The server's log says more: a data folder that is locked, damaged or full is named there."}
      </p>
      <button className="btn btn-primary mt-4" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
