/** The kinds of capacitors that a field named `list="capacitor-kinds"` offers. */

const KINDS = ["electrolytic", "paper", "polyester", "polypropylene", "mica", "ceramic"];

export function CapacitorKinds() {
  return (
    <datalist id="capacitor-kinds">
      {KINDS.map((k) => (
        <option key={k} value={k} />
      ))}
    </datalist>
  );
}
