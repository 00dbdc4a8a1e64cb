/** What the keys do now, along the foot of the screen. "press" and "hold" are the one key: space, Enter, or a foot switch. */

export function Keys({ keys }: { keys: [key: string, does: string][] }) {
  return (
    <dl className="flex flex-wrap items-center gap-x-8 gap-y-1 border-t border-base-300 bg-base-200 px-6 py-3 text-lg">
      {keys.map(([key, does]) => (
        <div key={key} className="flex items-baseline gap-2">
          <dt className="rounded border border-base-content px-2 font-mono font-bold">{key}</dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  );
}
