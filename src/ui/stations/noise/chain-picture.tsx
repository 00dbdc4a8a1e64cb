/** The signal chain as a picture: stages in the order of the signal, their controls, the rails above them, where suspicion lies. */

import type { NoiseAnswer } from "@/core/noise/noise-answer";

const [BOX, GAP, HEIGHT] = [118, 34, 190];

/** @param suspicion by part, 0 to 1: how much of what is left lies in it. */
export function ChainPicture({ chain, suspicion }: { chain: NoiseAnswer["chain"]; suspicion(refs: string[]): number }) {
  const outputs = chain.stages.filter((s) => s.output);
  const signal = chain.stages.filter((s) => !s.output);
  const columns = [...signal.map((s) => [s]), ...(outputs.length ? [outputs] : [])];
  const width = columns.length * (BOX + GAP) + 130;
  const x = (i: number) => 34 + i * (BOX + GAP);
  const heat = (refs: string[]) => {
    const p = suspicion(refs);
    return { strokeWidth: 1 + 5 * p, stroke: p > 0.15 ? "var(--color-primary)" : "currentColor", strokeOpacity: 0.35 + 0.65 * p };
  };
  const railX = (node: string) => {
    const at = columns.findIndex((c) => c.some((s) => s.rail === node));
    return at < 0 ? undefined : x(at) + BOX / 2;
  };
  return (
    <figure className="overflow-x-auto" tabIndex={0} aria-label="Signal chain, the whole width">
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        style={{ minWidth: Math.min(width, 640) }}
        className="w-full max-w-4xl"
        role="img"
        aria-label="Signal chain"
      >
        <line x1={0} x2={width - 60} y1={122} y2={122} stroke="currentColor" strokeOpacity={0.5} />
        {chain.rails.map((r) => {
          const at = railX(r.node);
          return at === undefined ? null : (
            <g key={r.node}>
              <line x1={at} x2={at} y1={38} y2={92} stroke="currentColor" strokeOpacity={0.35} />
              <rect x={at - 46} y={8} width={92} height={30} rx={4} fill="var(--color-base-200)" {...heat(r.capacitors)} />
              <text x={at} y={28} textAnchor="middle" fontSize={13} fill="currentColor">
                {r.name} · {r.capacitors.join(", ")}
              </text>
            </g>
          );
        })}
        {columns.map((stages, i) => (
          <g key={i}>
            <rect x={x(i)} y={92} width={BOX} height={60} rx={6} fill="var(--color-base-200)" {...heat(stages.map((s) => s.envelope))} />
            <text x={x(i) + BOX / 2} y={118} textAnchor="middle" fontSize={17} fontWeight={700} fill="currentColor">
              {stages
                .map((s) => s.name)
                .slice(0, 2)
                .join(" ")}
              {stages.length > 2 ? " …" : ""}
            </text>
            <text x={x(i) + BOX / 2} y={138} textAnchor="middle" fontSize={11} fill="var(--soft)">
              {stages[0]!.label.length > 18 ? `${stages[0]!.label.slice(0, 17)}…` : stages[0]!.label}
            </text>
            {stages[0]!.control && (
              <>
                <circle cx={x(i) - GAP / 2} cy={122} r={11} fill="var(--color-base-100)" {...heat([stages[0]!.control])} />
                <text x={x(i) - GAP / 2} y={158} textAnchor="middle" fontSize={12} fill="currentColor">
                  {stages[0]!.control}
                </text>
              </>
            )}
          </g>
        ))}
        {chain.speaker && (
          <g>
            <path
              d={`M${width - 78},108h14l20,-14v56l-20,-14h-14Z`}
              fill="var(--color-base-200)"
              stroke="currentColor"
              strokeOpacity={0.5}
            />
            <text x={width - 62} y={172} textAnchor="middle" fontSize={12} fill="currentColor">
              speaker
            </text>
          </g>
        )}
        <text x={6} y={112} fontSize={12} fill="currentColor">
          in
        </text>
      </svg>
    </figure>
  );
}
