/** Which known names a mistyped one is nearest to. */

/** Edits by which a name may be off: one in short names, two in longer ones. */
const most = (name: string) => (name.length < 5 ? 1 : 2);

/** Letters to put in, take out or change to make one name of the other. Source: V. I. Levenshtein, Soviet Physics Doklady 10, 1966. */
export function editsBetween(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) next.push(Math.min(next[j - 1]! + 1, row[j]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)));
    row = next;
  }
  return row[b.length]!;
}

/** Names that begin with what was typed or are a slip away from it, the nearest first; case does not matter. */
export function nearestNames(typed: string, names: readonly string[]): string[] {
  const wanted = typed.toUpperCase().slice(0, 40);
  if (wanted.length < 2) return [];
  return names
    .map((name) => {
      const upper = name.toUpperCase();
      const begins = upper.startsWith(wanted) || wanted.startsWith(upper);
      return { name, off: begins ? 0.5 : editsBetween(wanted, upper) };
    })
    .filter((n) => n.off <= most(wanted))
    .sort((a, b) => a.off - b.off || a.name.length - b.name.length)
    .map((n) => n.name);
}
