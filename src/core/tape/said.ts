/** Payloads without what nobody said. */

/**
 * The fields that hold something: without undefined, empty texts, empty lists.
 * @example said({ what: "C6", note: "", cost: undefined, parts: [] }) // { what: "C6" }
 */
export function said<T extends object>(fields: T): T {
  return Object.fromEntries(
    Object.entries(fields).flatMap(([key, value]: [string, unknown]) => {
      const told = typeof value === "string" ? value.trim() : value;
      return told === undefined || told === "" || (Array.isArray(told) && told.length === 0) ? [] : [[key, told]];
    }),
  ) as T;
}
