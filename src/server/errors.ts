/** An error whose message is for the person at the bench: what was read, and what is accepted. */

export class UserError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details?: { field?: string; line?: number; message: string }[],
  ) {
    super(message);
    this.name = "UserError";
  }

  /** The bundler gives routes and start-up each a copy of this class; an error of the other copy is one all the same. */
  static [Symbol.hasInstance](value: unknown): boolean {
    return value instanceof Error && value.name === "UserError";
  }
}

/** Turns what a database or a disk throws into words; what it does not know is given back as it came. */
export function explain(error: unknown): unknown {
  const code = (error as { code?: string } | null)?.code;
  const text = error instanceof Error ? error.message : String(error);
  if (code === "ENOSPC" || code === "53100" || /no space left|could not extend file|disk full/i.test(text)) {
    return new UserError(507, "The disk is full: nothing was stored. What you typed is kept here; make room and it will be sent again.");
  }
  if (code === "EACCES" || code === "EROFS") return new UserError(500, "The data folder cannot be written to. Check its permissions.");
  if ((code && (/^(08|57P)/.test(code) || code === "ECONNREFUSED" || code === "ECONNRESET")) || /Connection terminated/.test(text))
    return new UserError(503, "The database is not reached. What you typed is kept here and will be sent again.");
  // Values that no column can hold; whatever let them come this far should have said so in better words.
  if (code && /^22(P02|P05|003|007|008|021)$/.test(code))
    return new UserError(400, `A value was sent that cannot be stored (${text.slice(0, 120)}).`);
  return error;
}
