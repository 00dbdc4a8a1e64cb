/** A circuit file as it was chosen or dropped. */

const MOST_BYTES = 1_000_000;

/** Its text with plain line ends. @throws Error for a file that is too large to be one. */
export async function loadCircuit(file: File): Promise<string> {
  if (file.size > MOST_BYTES) throw new Error(`${file.name} has ${file.size} bytes; at most ${MOST_BYTES} are accepted`);
  return (await file.text()).replace(/\r\n?/g, "\n");
}
