/** A verdict by shape, then colour, then word: ● in band, ▲ watch, ■ out, ○ not taken. Drawn, so that every machine shows the same. */

import { VERDICT_WORD, type Verdict } from "@/core/expectation/expectation";

export function VerdictMark({ verdict, word = false, size = 14 }: { verdict: Verdict; word?: boolean; size?: number }) {
  return (
    <span className={`verdict-${verdict} inline-flex items-center gap-1.5 whitespace-nowrap`}>
      <svg
        width={size}
        height={size}
        viewBox="0 0 14 14"
        role={word ? undefined : "img"}
        aria-label={word ? undefined : VERDICT_WORD[verdict]}
        aria-hidden={word || undefined}
      >
        <VerdictShape verdict={verdict} />
      </svg>
      {word && VERDICT_WORD[verdict]}
    </span>
  );
}

/** The shape alone, for a drawing of fourteen by fourteen. */
export function VerdictShape({ verdict }: { verdict: Verdict }) {
  return (
    <>
      {verdict === "in" && <circle cx="7" cy="7" r="5.5" fill="currentColor" />}
      {verdict === "watch" && <path d="M7 1 13.5 12.5H.5Z" fill="currentColor" />}
      {verdict === "out" && <rect x="1.5" y="1.5" width="11" height="11" fill="currentColor" />}
      {verdict === "none" && <circle cx="7" cy="7" r="5" fill="none" stroke="currentColor" strokeWidth="1.8" />}
    </>
  );
}
