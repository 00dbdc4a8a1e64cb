/** Which places of a network's matrix can be other than zero. */

import type { Network } from "./network";

/** Numbers of the places that a pattern has, in order. */
export function placesOf(pattern: Uint8Array): Int32Array {
  let count = 0;
  for (const there of pattern) count += there;
  const out = new Int32Array(count);
  for (let k = 0, next = 0; k < pattern.length; k++) if (pattern[k]) out[next++] = k;
  return out;
}

/** 1 for each place of the matrix that any analysis can fill: parts, windings, capacitors, devices, and the diagonal. */
export function patternOf(network: Network): Uint8Array {
  const n = network.size;
  const pattern = new Uint8Array(n * n);
  const among = (...unknowns: number[]) => {
    for (const r of unknowns) for (const c of unknowns) if (r >= 0 && c >= 0) pattern[r * n + c] = 1;
  };
  for (let k = 0; k < n; k++) pattern[k * n + k] = 1;
  for (const { a, b } of network.conductors) among(a, b);
  for (const { a, b } of network.capacitors) among(a, b);
  for (const { first, second } of network.inductances) pattern[first * n + second] = 1;
  for (const { a, b, index, control } of network.branches) {
    for (const node of [a, b])
      if (node >= 0) {
        pattern[node * n + index] = 1;
        pattern[index * n + node] = 1;
      }
    if (control && control.node >= 0) pattern[index * n + control.node] = 1;
  }
  for (const { at } of network.devices) among(...at);
  return pattern;
}
