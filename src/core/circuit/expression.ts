/** Arithmetic in braces, `{2*RK+1k}`: a recursive-descent reader. Nothing is ever evaluated as code. */

import { parseSpiceNumber } from "./spice-number";

const FUNCTIONS: Record<string, (...args: number[]) => number> = {
  sqrt: Math.sqrt,
  abs: Math.abs,
  exp: Math.exp,
  ln: Math.log,
  log10: Math.log10,
  min: Math.min,
  max: Math.max,
  pow: Math.pow,
};

/** Deeper brackets than anyone writes; keeps hostile input from exhausting the stack. */
const DEEPEST = 50;

export class ExpressionError extends Error {}

/**
 * Value of an arithmetic expression over named parameters (names case-insensitive, upper-case in `params`).
 * @throws ExpressionError naming what was found where something else was expected.
 */
export function evaluate(text: string, params: ReadonlyMap<string, number>): number {
  const tokens = text.match(/\d+\.?\d*(?:e[+-]?\d+)?[a-zµ]*|\.\d+(?:e[+-]?\d+)?[a-zµ]*|[a-z_]\w*|\*\*|[-+*/^(),]|\S/gi) ?? [];
  let at = 0;
  const peek = () => tokens[at];
  const take = () => tokens[at++];
  const expected = (what: string): never => {
    throw new ExpressionError(`${what} in {${text.slice(0, 60)}}, found ${peek() === undefined ? "the end" : `"${peek()}"`}`);
  };

  function sum(depth: number): number {
    let value = product(depth);
    while (peek() === "+" || peek() === "-") value = take() === "+" ? value + product(depth) : value - product(depth);
    return value;
  }
  function product(depth: number): number {
    let value = power(depth);
    while (peek() === "*" || peek() === "/") value = take() === "*" ? value * power(depth) : value / power(depth);
    return value;
  }
  function power(depth: number): number {
    const base = signed(depth);
    if (peek() !== "^" && peek() !== "**") return base;
    take();
    if (depth > DEEPEST) expected("fewer powers of powers");
    return base ** power(depth + 1);
  }
  function signed(depth: number): number {
    let sign = 1;
    while (peek() === "-" || peek() === "+") if (take() === "-") sign = -sign;
    return sign * atom(depth);
  }
  function atom(depth: number): number {
    if (depth > DEEPEST) expected(`at most ${DEEPEST} nested brackets`);
    const token = take();
    if (token === "(") {
      const value = sum(depth + 1);
      if (take() !== ")") {
        at--;
        expected("a closing bracket");
      }
      return value;
    }
    if (token !== undefined && /^[\d.]/.test(token)) {
      const number = parseSpiceNumber(token);
      if (number.ok) return number.value;
    }
    if (token !== undefined && /^[a-z_]/i.test(token)) {
      if (peek() === "(") {
        const f = Object.hasOwn(FUNCTIONS, token.toLowerCase()) ? FUNCTIONS[token.toLowerCase()] : undefined;
        if (!f) {
          at--;
          expected(`one of the functions ${Object.keys(FUNCTIONS).join(", ")}`);
        }
        take();
        const args = [sum(depth + 1)];
        while (peek() === ",") {
          take();
          args.push(sum(depth + 1));
        }
        if (take() !== ")") {
          at--;
          expected("a closing bracket");
        }
        return f!(...args);
      }
      const value = params.get(token.toUpperCase());
      if (value !== undefined) return value;
      at--;
      expected("a parameter that .param has set");
    }
    at--;
    return expected("a number, a parameter or a bracket");
  }

  const value = sum(0);
  if (peek() !== undefined) expected("an operator");
  if (!Number.isFinite(value)) throw new ExpressionError(`a finite result of {${text.slice(0, 60)}}, found ${value}`);
  return value;
}
