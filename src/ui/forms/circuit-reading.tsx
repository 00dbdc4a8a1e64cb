/** What the reader made of a circuit file: how much it holds, or every line that it cannot read. */

import type { ReadResult } from "@/core/circuit/read";

export function CircuitReading({ result, name }: { result: ReadResult; name?: string }) {
  const { circuit, errors, warnings } = result;
  return (
    <div className="mt-1 text-sm" aria-live="polite">
      {errors.length === 0 ? (
        <p className="verdict-in">
          ● {name ? `${name}: ` : ""}
          {circuit.elements.length} parts, {circuit.points.length} test points read
        </p>
      ) : (
        <>
          <p className="text-error">
            ■ {name ? `${name}: ` : ""}
            {errors.length} {errors.length === 1 ? "line" : "lines"} cannot be read
          </p>
          <ul className="max-h-48 overflow-y-auto font-mono text-xs">
            {errors.slice(0, 50).map((e, i) => (
              <li key={i}>
                line {e.line}: found {e.found}; expected {e.expected}
              </li>
            ))}
          </ul>
        </>
      )}
      {warnings.slice(0, 10).map((w, i) => (
        <p key={i} className="text-warning">
          ▲ line {w.line}: {w.found}; expected {w.expected}
        </p>
      ))}
    </div>
  );
}
