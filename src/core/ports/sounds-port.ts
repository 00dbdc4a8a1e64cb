/** What screens ask about recordings, wherever it is worked out. No engine code is imported here. */

import type { Analysed } from "../sound/sounds";

/** Every call rejects with an Error whose message can be shown. */
export interface SoundsPort {
  /** Reads and names a recording; one too long is looked at in its first ten minutes. */
  analyse(file: Blob, mains: number | undefined, progress?: (part: number) => void): Promise<Analysed>;
  cancel(): void;
}
