"use client";
/** Teaches the next step where an amp has no circuit. */

export function NoCircuit({ what }: { what: string }) {
  return (
    <div className="rounded border border-dashed border-base-content/50 p-6">
      <p className="text-lg font-bold">{what}</p>
      <p className="mt-1">
        This job was opened without a circuit file. Readings can still be logged at the entry line: a name with a number in it and a value,
        such as <code className="font-mono">TP4 12m</code> or <code className="font-mono">R7 ohm 118k</code>. Reservoirs are named by hand
        at Make safe.
      </p>
    </div>
  );
}
