/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { readFileSync } from "node:fs";
import { render, screen } from "@testing-library/react";
import { socketOf } from "@/core/anatomy/sockets";
import { readCircuit } from "@/core/circuit/read";
import { SocketView } from "./socket-view";

const { circuit } = readCircuit(readFileSync("demo/amps/halberd-120.cir", "utf8"));
const centre = (pin: number) => {
  const circle = document.querySelector(`[data-pin="${pin}"] circle`)!;
  return [Number(circle.getAttribute("cx")), Number(circle.getAttribute("cy"))] as const;
};

test("an octal socket from below: the key at the bottom, pin 1 left of it, counted clockwise; the pin to probe is filled", () => {
  const socket = socketOf(circuit, "V5")!;
  const words = new Map([
    [3, { what: "plate", volts: "481 V", expected: true }],
    [5, { what: "grid", volts: "−41.4 V", expected: false }],
  ]);
  render(<SocketView socket={socket} pin={5} words={words} />);
  expect(screen.getByRole("img", { name: "Socket of V5, EL34, from below: probe pin 5, grid" })).toBeInTheDocument();
  expect([...document.querySelectorAll("[data-probe]")].map((g) => g.getAttribute("data-pin"))).toEqual(["5"]);
  expect(document.querySelectorAll("[data-pin]")).toHaveLength(8);
  // Left and right of the key at the bottom.
  expect(centre(1)[0]).toBeLessThan(0);
  expect(centre(8)[0]).toBeGreaterThan(0);
  expect(centre(1)[1]).toBeGreaterThan(0);
  // Clockwise on a screen whose y grows downwards: the cross product of each step is positive.
  for (let p = 1; p < 8; p++) {
    const [[x1, y1], [x2, y2]] = [centre(p), centre(p + 1)];
    expect(x1 * y2 - y1 * x2).toBeGreaterThan(0);
  }
  expect(screen.getByText("481 V?")).toBeInTheDocument();
  expect(screen.getByText("−41.4 V")).toBeInTheDocument();
});
