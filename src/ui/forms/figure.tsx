/** A figure with its name, inside a `dl`. */

export function Figure({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="soft text-sm">{name}</dt>
      <dd className="font-bold tabular-nums">{value}</dd>
    </div>
  );
}
