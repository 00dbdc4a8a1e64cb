/** The stored model on paper, at the mains that is typed above. */
export function BenchSheet({ id, mains }: { id: number; mains: number | undefined }) {
  return (
    <span className="flex items-center gap-1">
      <span className="soft text-sm">Bench sheet</span>
      {["A4", "A3"].map((paper) => (
        <a
          key={paper}
          className="btn btn-outline"
          target="_blank"
          aria-label={`Bench sheet as PDF, ${paper}`}
          href={`/api/v1/models/${id}/bench-sheet?paper=${paper.toLowerCase()}${mains === undefined ? "" : `&mains=${mains}`}`}
        >
          {paper}
        </a>
      ))}
    </span>
  );
}
