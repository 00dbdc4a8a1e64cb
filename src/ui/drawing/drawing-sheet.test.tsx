/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { readCircuit } from "@/core/circuit/read";
import { drawCircuit } from "@/core/drawing/draw-circuit";
import type { Drawing } from "@/core/drawing/geometry";
import { layoutHere } from "@/core/drawing/layout-for-tests";
import type { InHand } from "../job/job-context";
import { power, reading, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { ModelDrawing } from "../library/model-drawing";
import { DrawingSheet } from "./drawing-sheet";
import { walkLayer } from "./layers";
import { StationDrawing } from "./station-drawing";

const { circuit } = readCircuit(WREN);
let drawing: Drawing;
beforeAll(async () => {
  drawing = await drawCircuit(circuit, layoutHere);
  window.matchMedia = (() => ({ matches: true })) as never;
});
beforeEach(() => localStorage.clear());

const layer = {
  says: "Soft: what should be there.",
  nodes: { k2: { expected: "7.92 V", read: "9.81 V", verdict: "out" as const } },
  parts: { C6: { text: "93 %", look: "strong" as const } },
  next: "g2",
};

function Sheet({ picked }: { picked?(at: InHand): void }) {
  const [inHand, setInHand] = useState<InHand>();
  return (
    <DrawingSheet
      drawing={drawing}
      circuit={circuit}
      school="boxes"
      layer={layer}
      inHand={inHand}
      setInHand={setInHand}
      large={false}
      picked={picked}
    />
  );
}
const aside = () => within(screen.getByRole("complementary", { name: "What is known of it" }));

test("every part is drawn once, with the volts and the marks of the layer", () => {
  const { container } = render(<Sheet />);
  for (const e of circuit.elements)
    expect(container.querySelectorAll(`g[data-part="${e.letter === "X" ? `X${e.name}` : e.name}"]`)).toHaveLength(1);
  expect(container.querySelector("[data-node=k2] [role=img]")).toHaveAttribute("aria-label", "expected 7.92 V, read 9.81 V, out");
  expect(container.querySelector("[data-note=C6]")).toHaveTextContent("93 %");
  expect(container.querySelector("[data-next]")).toHaveAttribute("data-next", "g2");
});

test("a part that is clicked says what is known of it, and leads to its ends", async () => {
  const picked = jest.fn();
  const { container } = render(<Sheet picked={picked} />);
  fireEvent.click(container.querySelector("g[data-part=R4] path")!);
  expect(aside().getByText("R4, 180 Ω")).toBeInTheDocument();
  expect(aside().getByText("from V2 cathode to chassis")).toBeInTheDocument();
  expect(picked).toHaveBeenLastCalledWith({ part: "R4" });
  await userEvent.click(aside().getByRole("button", { name: "V2.k" }));
  expect(aside().getByText("V2 pin 3")).toBeInTheDocument();
  await userEvent.click(aside().getByRole("button", { name: "V2, EL84" }));
  expect(aside().getByText(/^Faults it can have: \d+$/)).toBeInTheDocument();
  // Beside all of it: nothing is in hand.
  fireEvent.click(screen.getByTestId("schematic"));
  expect(screen.queryByRole("complementary")).toBeNull();
});

test("arrow keys go from part to part, Enter takes it, Escape lets go", async () => {
  const picked = jest.fn();
  const { container } = render(<Sheet picked={picked} />);
  const sheet = screen.getByRole("application");
  fireEvent.click(container.querySelector("g[data-part=XV1A] path")!);
  sheet.focus();
  await userEvent.keyboard("{ArrowDown}");
  expect(aside().getByText("R9, 1.5 kΩ")).toBeInTheDocument();
  await userEvent.keyboard("{Enter}");
  expect(picked).toHaveBeenLastCalledWith({ part: "R9" });
  await userEvent.keyboard("{Escape}");
  expect(screen.queryByRole("complementary")).toBeNull();
});

test("a name that is not there is said and kept for correction", async () => {
  render(<Sheet />);
  const field = screen.getByLabelText("Find a part or point");
  await userEvent.type(field, "R77{Enter}");
  expect(screen.getByRole("alert")).toHaveTextContent("No part or point is called “R77”.");
  expect(field).toHaveValue("R77");
  await userEvent.type(field, "{Backspace}{Enter}");
  expect(screen.queryByRole("alert")).toBeNull();
  expect(aside().getByText("R7, 1.5 kΩ")).toBeInTheDocument();
});

test("plus, minus and nought zoom; the wheel alone scrolls the page past it", async () => {
  render(<Sheet />);
  const svg = screen.getByTestId("schematic");
  const box = { x: 0, y: 0, width: 800, height: 400, top: 0, left: 0, right: 800, bottom: 400, toJSON: () => ({}) };
  svg.getBoundingClientRect = () => box;
  const scale = () => Number(/scale\(([\d.]+)\)/.exec(svg.querySelector("g")!.getAttribute("transform") ?? "scale(1)")![1]);
  screen.getByRole("application").focus();
  await userEvent.keyboard("0");
  const whole = scale();
  // As large as it goes in without being cut.
  expect(whole).toBeCloseTo(Math.min(800 / drawing.width, 400 / drawing.height), 3);
  await userEvent.keyboard("+");
  expect(scale()).toBeCloseTo(whole * 1.4, 2);
  await userEvent.keyboard("-");
  expect(scale()).toBeCloseTo(whole, 2);
  const wheel = new WheelEvent("wheel", { deltaY: -100, cancelable: true, bubbles: true });
  svg.dispatchEvent(wheel);
  expect([wheel.defaultPrevented, scale()]).toEqual([false, expect.closeTo(whole, 2)]);
});

test("the same as a table, for who does not see it", async () => {
  render(<Sheet />);
  await userEvent.click(screen.getByText("The same as a table: 26 parts"));
  const parts = screen.getByRole("table", { name: "Parts of the circuit" });
  expect(within(parts).getAllByRole("row")).toHaveLength(27);
  expect(within(parts).getByRole("row", { name: /C6, 22 nF 93 %/ })).toBeInTheDocument();
  expect(
    within(screen.getByRole("table", { name: "Points of the circuit" })).getByRole("row", {
      name: /V2\.k .* expected 7\.92 V, read 9\.81 V, out/,
    }),
  ).toBeInTheDocument();
});

test("a layout that fails leaves the list, with the reason", async () => {
  const drawings = { draw: () => Promise.reject(new Error("the layout took longer than 20 seconds")) };
  render(<ModelDrawing circuit={circuit} netlist={WREN} school="boxes" drawings={drawings} />);
  expect(await screen.findByText(/The circuit could not be drawn: the layout took longer than 20 seconds/)).toBeInTheDocument();
  expect(screen.getByRole("table", { name: "Parts of the circuit" })).toBeInTheDocument();
});

describe("in a job", () => {
  const draw = async (netlist: string) => drawCircuit(readCircuit(netlist).circuit, layoutHere);
  const solver = { expected: () => new Promise<never>(() => {}), solve: () => new Promise<never>(() => {}) };
  const open = (server: TestServer) =>
    renderJob(<StationDrawing layer={walkLayer([])} />, { server, netlist: WREN, solver, drawings: { draw } });

  test("what the tape says of a part stands beside it", async () => {
    const server = new TestServer([power("on"), reading("V2.g", 2.1), { type: "note", payload: { text: "R5 looks burnt" } }]);
    const { container } = await open(server);
    await screen.findByTestId("schematic");
    fireEvent.click(container.querySelector("g[data-part=R5] path")!);
    expect(screen.getByRole("region", { name: "In this job" })).toHaveTextContent("R5 looks burnt");
  });

  test("a node that is no test point becomes one, and stands on the tape", async () => {
    const server = new TestServer([power("on")]);
    const { container } = await open(server);
    await screen.findByTestId("schematic");
    fireEvent.click(container.querySelector("path[data-node=g1b]")!);
    await userEvent.click(screen.getByRole("button", { name: "Make it a test point of this job" }));
    await settle();
    expect(server.lines.at(-1)).toMatchObject({ type: "point", payload: { name: "V1B.g", node: "g1b", label: "V1B grid" } });
    expect(screen.queryByRole("button", { name: /Make it a test point/ })).toBeNull();
  });

  test("one key makes it large and back; in a field with figures in it the key is a letter", async () => {
    await open(new TestServer());
    await screen.findByTestId("schematic");
    await userEvent.keyboard("d");
    expect(screen.getByRole("dialog", { name: "The drawing, large" })).toBeInTheDocument();
    await userEvent.click(screen.getByLabelText("Find a part or point"));
    await userEvent.keyboard("d");
    expect(screen.getByLabelText("Find a part or point")).toHaveValue("d");
    screen.getByRole("application").focus();
    await userEvent.keyboard("d");
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  test("a tube that is out is so on the sheet", async () => {
    const { container } = await open(new TestServer([power("on", { without: ["V1"] })]));
    await screen.findByTestId("schematic");
    expect(container.querySelectorAll("[data-look=out]")).toHaveLength(2);
  });
});
