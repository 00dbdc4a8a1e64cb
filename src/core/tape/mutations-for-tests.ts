/** Changes a JSON value at random: what a broken program, an older one or an attacker could send. The same random numbers give the same change. */

/** Gives a number from 0 up to 1. */
export type Random = () => number;

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const HASH = "0123456789abcdef".repeat(4);
const ODD: readonly Json[] = [
  ...[null, true, false, [], {}, [null], [[]], [{}], { a: 1 }, { length: 5 }],
  ...[0, -0, -1, 0.5, 1, 2, 12, 1e-320, -1e-9, 1e6, 1e9, 1e12, 1e15, 1e308, -1e308, 2147483648, 4294967296, 9007199254740993],
  ...[
    "",
    " ",
    "\t",
    "a",
    "\u0000",
    "a\u0000b",
    "\ud800",
    "\udfff\ud800",
    "\u202eabc",
    "\u001b[31m",
    "é",
    "🎸",
    "x".repeat(81),
    "x".repeat(4001),
  ],
  ...["9999-99-99", "2026-02-30", "2026-12-24", "0000-00-00", "2026-11-26T99:99", "2026-11-26T10:00", "275760-09-13"],
  ...["__proto__", "constructor", "toString", "NaN", "Infinity", "1e999", "null", "undefined", "=1+1", "-1", "@SUM(A1)"],
  ...[
    "<script>alert(1)</script>",
    "'; drop table events; --",
    "${7*7}",
    "../../etc/passwd",
    "%00",
    "%ff",
    "a:b",
    "0:0",
    "V1 pin 3",
    "R4",
    "C1",
    "VR1",
    "V1",
    "B1",
  ],
  ...[HASH, HASH.toUpperCase(), "R4=", "R4=1e308", "R4=-1", "C1=open", "V1=out", "R4=0", "B1=short"],
];

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

function odd(random: Random, was: Json, words: readonly string[]): Json {
  const kind = random();
  if (typeof was === "number" && kind < 0.6) return was * pick(random, [-1, 0, 0.001, 0.5, 1.5, 2, 10, 1000, 1e6, 1e-6]);
  if (typeof was === "string" && kind < 0.5) return pick(random, words);
  if (typeof was === "string" && kind < 0.55) return was.repeat(3);
  return pick(random, ODD);
}

/**
 * A copy with one place changed: a value replaced, a field taken away, added or renamed, a list emptied, doubled or lengthened.
 * @param words texts that some field of some type takes, so that a change is often one that is accepted.
 */
export function mutate(random: Random, value: Json, words: readonly string[] = []): Json {
  if (typeof value !== "object" || value === null) return odd(random, value, words);
  if (random() < 0.04) return pick(random, ODD);
  if (Array.isArray(value)) {
    const how = random();
    if (value.length === 0 || how < 0.1) return [...value, pick(random, ODD)];
    if (how < 0.2) return [];
    if (how < 0.3) return [...value, ...value];
    if (how < 0.33) return Array.from({ length: 300 }, (_, i) => value[i % value.length]!);
    const at = Math.floor(random() * value.length);
    return value.map((v, i) => (i === at ? mutate(random, v, words) : v));
  }
  const keys = Object.keys(value);
  const how = random();
  if (keys.length === 0 || how < 0.05)
    return { ...value, [pick(random, ["extra", "payload", "hasOwnProperty", "type", "unreadable"])]: pick(random, ODD) };
  const key = pick(random, keys);
  if (how < 0.2) return Object.fromEntries(Object.entries(value).filter(([k]) => k !== key));
  if (how < 0.23) return Object.fromEntries(Object.entries(value).map(([k, v]) => (k === key ? [`${k}s`, v] : [k, v])));
  return { ...value, [key]: mutate(random, value[key]!, words) };
}

/** Every text that stands anywhere in a value. */
export function wordsIn(value: unknown): string[] {
  if (typeof value === "string") return [value];
  return typeof value === "object" && value !== null ? Object.values(value).flatMap(wordsIn) : [];
}
