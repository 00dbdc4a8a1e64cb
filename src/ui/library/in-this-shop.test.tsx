/** @jest-environment jsdom */
/** What the shop knows of a model, as it is read in the library. */

import "@testing-library/jest-dom";
import { render, screen, within } from "@testing-library/react";
import { remembered } from "@/core/memory/digest-for-tests";
import { modelMemory } from "@/core/memory/shop-memory";
import { InThisShop } from "./in-this-shop";

const c6 = { position: "C6", says: "leaked; measured 4 µA", line: 9, series: "paper capacitor" };

test("complaints with what cured them, what was replaced, what is normal at a mains, makings; every figure with its jobs", () => {
  const memory = modelMemory([
    remembered(1001, {
      complaint: "hoarse",
      cured: true,
      proved: true,
      cures: [c6],
      replaced: [c6],
      had: { "paper capacitor": 3 },
      normal: { B1: { volts: 230, mains: 230 } },
      worked: 90,
    }),
    remembered(1002, { complaint: "hums", worked: 30 }),
  ]);
  render(<InThisShop memory={memory} mains={115} />);
  expect(screen.getByText(/^2 jobs/)).toHaveTextContent("2 jobs, half of them done within 1 h");
  const [second, first] = within(screen.getByRole("region", { name: /What was complained of/ })).getAllByRole("listitem");
  expect(first).toHaveTextContent("job 1001 “hoarse”● Cured, shown: C6: leaked; measured 4 µA · 1 h 30 min");
  expect(second).toHaveTextContent("not cured yet");
  expect(screen.getByRole("region", { name: "What was replaced" })).toHaveTextContent("C6 1 of 2");
  expect(screen.getByRole("row", { name: "B1 115 V 115 V 115 V 1" })).toBeVisible();
  expect(screen.getByRole("region", { name: "Makings of parts" })).toHaveTextContent("paper capacitor: 1 of 3 were replaced");
});

test("without a job it says what will come", () => {
  render(<InThisShop memory={modelMemory([])} />);
  expect(screen.getByText(/No job with this model yet/)).toBeVisible();
});
