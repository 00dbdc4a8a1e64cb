/** JSON from outside, read with the bounds that every text of Scutum keeps. */

import { isPrintable } from "@/core/checks/accepted";
import { UserError } from "./errors";

/** Deeper than any text of Scutum goes: event, payload, list, object, field. */
const MOST_DEPTH = 12;
/** Names by which a program could be made to change its own objects. */
const REFUSED_KEYS = new Set(["__proto__", "constructor", "prototype"]);

/**
 * Reads JSON text.
 * @param what names the text in an error.
 * @throws UserError 400 when it is no JSON, is nested too deeply, or holds a character or a key that nothing can hold.
 */
export function parseJson(text: string, what = "The request"): unknown {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new UserError(400, `${what} is not JSON; it starts ${JSON.stringify(text.slice(0, 40))}.`);
  }
  const stack: { at: unknown; depth: number }[] = [{ at: value, depth: 0 }];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const { at, depth } = next;
    if (typeof at === "string" && !isPrintable(at))
      throw new UserError(
        400,
        `${what} holds a control character or half a character in ${JSON.stringify(at.slice(0, 40))}; text is wanted.`,
      );
    if (typeof at !== "object" || at === null) continue;
    if (depth >= MOST_DEPTH) throw new UserError(400, `${what} is nested more than ${MOST_DEPTH} deep.`);
    for (const key of Object.keys(at)) {
      if (REFUSED_KEYS.has(key) || !isPrintable(key))
        throw new UserError(400, `${what} has a field named ${JSON.stringify(key.slice(0, 40))}; none is.`);
      stack.push({ at: (at as Record<string, unknown>)[key], depth: depth + 1 });
    }
  }
  return value;
}
