/**
 * @jest-environment jsdom
 *
 * The output stage's sheet: currents typed, targets chosen, tubes from stock, figures without a circuit.
 */

import { readFileSync } from "node:fs";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { answerAim, answerBias } from "@/core/output/answers";
import { readCircuit } from "@/core/circuit/read";
import { solveOnce } from "@/core/expectation/solve-once";
import type { NewStockTest, StockTube } from "@/core/shop/stock-tubes";
import { power, reading, renderJob, settle, TestServer, type TestJob } from "../../job-for-tests";
import type { StockPort } from "../../job/stock-port";
import { OutputStage } from "./output-stage";
import { RatioForm } from "./ratio-form";
import { StockTubes } from "./stock-tubes";
import { Typed } from "./typed";

// The sheet's parts come after the page; here they come at once, and the drawing not at all.
jest.mock("../../forms/late", () => {
  const { useEffect, useState } = jest.requireActual<typeof import("react")>("react");
  return {
    late: (load: () => Promise<React.ComponentType>) =>
      function Late(props: object) {
        const [Part, setPart] = useState<React.ComponentType>();
        useEffect(() => void load().then((part) => setPart(() => part)), []);
        return Part ? <Part {...props} /> : null;
      },
    lateInBrowser: () => () => null,
    useLateParts: () => {},
  };
});

jest.mock("next/navigation", () => ({ useRouter: () => ({ push: () => {} }) }));

const DROVER = readFileSync("demo/amps/drover-40.cir", "utf8");
const circuitOf = (netlist: string) => readCircuit(netlist).circuit;
const job = (server: TestServer, more: Partial<TestJob> = {}): TestJob => ({
  server,
  netlist: DROVER,
  solver: { expected: () => new Promise(() => {}), solve: async (n, c) => solveOnce(circuitOf(n), c), notLive: async () => [] },
  output: { bias: async (n, ask) => answerBias(circuitOf(n), ask), aim: async (n, ask) => answerAim(circuitOf(n), ask) },
  ...more,
});
const on = [power("on")];
const sheet = async (server: TestServer, more: Partial<TestJob> = {}) => {
  await renderJob(<OutputStage />, job(server, more));
  await screen.findByRole("table", { name: "Currents of the output tubes" });
  await settle();
};
const type = async (label: string, text: string) => {
  await userEvent.clear(screen.getByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), `${text}{Enter}`);
  await settle();
};

describe("currents", () => {
  test("volts across each cathode resistor become currents, watts and the way to the target", async () => {
    const server = new TestServer(on);
    await sheet(server);
    expect(screen.getByTestId("bias-verdict")).toHaveTextContent("Read the current of V5 and V6");
    await type("Reading of V5, V", "0.105");
    await type("Reading of V6, V", "112m");
    expect(server.state.readings.map((r) => [r.point, r.value])).toEqual([
      ["V5.k", 0.105],
      ["V6.k", 0.112],
    ]);
    await waitFor(() => expect(screen.getByTestId("bias-verdict")).toHaveTextContent("below the target"));
    await waitFor(() => expect(screen.getByTestId("turn-it")).toHaveTextContent(/Turn P9 from \d+ % to \d+ %/));
    expect(screen.getByTestId("open-wiper")).toHaveTextContent("lifts off its track");
  });
  test("leads the wrong way round, and millivolts taken for volts, are said and not logged; the entry stays", async () => {
    const server = new TestServer([...on, reading("V5.p", 428), reading("V5.k", 0.4)]);
    await sheet(server);
    await type("Reading of V5, V", "-0.4");
    expect(screen.getByText(/leads lie the other way round/)).toBeInTheDocument();
    expect(screen.getByLabelText("Reading of V5, V")).toHaveValue("-0.4");
    await type("Reading of V5, V", "460");
    expect(screen.getByText(/millivolts/)).toBeInTheDocument();
    expect(server.state.readings).toHaveLength(2);
  });
  test("the shunt is offered with its danger", async () => {
    await sheet(new TestServer(on));
    await userEvent.selectOptions(screen.getByLabelText("Read by"), "shunt");
    expect(screen.getByText(/The risky one/)).toBeInTheDocument();
    await type("Reading of V5, A", "36m");
    expect(screen.getByText("Plate").closest("table")).toHaveTextContent("36.0 mA");
  });
  test("the screen's drop is taken off where it was read", async () => {
    const server = new TestServer(on);
    await sheet(server);
    await userEvent.type(screen.getByLabelText("Volts across R6"), "0.94");
    await type("Reading of V5, V", "0.46");
    await waitFor(() => expect(screen.getAllByText("measured").length).toBeGreaterThan(0));
    expect(screen.getByRole("table", { name: "Currents of the output tubes" })).toHaveTextContent("44.0 mA");
  });
});

describe("targets", () => {
  test("label and manual that disagree want a reason; both are kept with the choice", async () => {
    const server = new TestServer(on);
    await sheet(server);
    await waitFor(() => expect(screen.getByRole("table", { name: "Targets by school" })).toBeInTheDocument());
    const form = screen.getByRole("form", { name: "Figures of label and manual" });
    await userEvent.type(within(form).getByLabelText(/Label/), "38");
    await userEvent.type(within(form).getByLabelText(/Manual/), "45{Enter}");
    expect(screen.getByText(/Label and manual disagree/)).toBeInTheDocument();
    await userEvent.type(within(form).getByLabelText(/Reason/), "the label is of this revision{Enter}");
    await settle();
    expect(server.state.biasFigures.at(-1)).toMatchObject({
      labelMilliamps: 38,
      manualMilliamps: 45,
      reason: "the label is of this revision",
    });
    await waitFor(() => expect(screen.getByRole("radio", { name: "Label" })).toBeInTheDocument());
    await userEvent.click(screen.getByRole("radio", { name: "Label" }));
    expect(screen.getByRole("table", { name: "Targets by school" })).toHaveTextContent("38.0 mA");
  });
  test("the table is logged as it was found, with the rails beside what was computed", async () => {
    const server = new TestServer([...on, reading("B1", 444), reading("V5.k", 0.105), reading("V6.k", 0.112)]);
    await sheet(server);
    await waitFor(() => expect(screen.getByRole("button", { name: "Log as found" })).toBeEnabled());
    await userEvent.click(screen.getByRole("button", { name: "Log as found" }));
    await settle();
    const [bias] = server.state.biases;
    expect(bias).toMatchObject({ when: "before", stage: "T1" });
    expect(bias!.rows.map((r) => r.tube)).toEqual(["V5", "V6"]);
    expect(bias!.rails.find((r) => r.point === "B1")!.predicted).toBeGreaterThan(430);
  });
});

describe("stock", () => {
  const stockOf = (tubes: StockTube[]): StockPort & { tubes: StockTube[] } => ({
    tubes,
    async list() {
      return [...this.tubes];
    },
    async add(tube) {
      const number = this.tubes.length + 1;
      this.tubes = [
        ...this.tubes,
        { number, type: tube.type, tests: [], moves: [{ at: "2026-11-27T10:00:00.000Z", who: "J.M.", place: tube.place }] },
      ];
      return { number, tubes: this.tubes };
    },
    async test(number, test: NewStockTest) {
      this.tubes = this.tubes.map((t) =>
        t.number === number
          ? { ...t, tests: [...t.tests, { ...test, id: t.tests.length + 1, at: "2026-11-27T10:00:00.000Z", who: "J.M." }] }
          : t,
      );
      return this.tubes;
    },
    async move(number, place) {
      this.tubes = this.tubes.map((t) =>
        t.number === number ? { ...t, moves: [...t.moves, { at: "2026-11-27T10:00:00.000Z", who: "J.M.", place }] } : t,
      );
      return this.tubes;
    },
  });
  const kt66 = (number: number, milliamps: number): StockTube => ({
    number,
    type: "KT66",
    tests: [{ id: number, at: "2026-11-01T10:00:00.000Z", who: "J.M.", milliamps, plateVolts: 250, screenVolts: 250, gridVolts: -15 }],
    moves: [{ at: "2026-11-01T10:00:00.000Z", who: "J.M.", place: "drawer" }],
  });
  test("tubes are taken in and tested; what has no figures is refused with what is accepted", async () => {
    const stock = stockOf([]);
    await renderJob(<StockTubes />, job(new TestServer(), { stock }));
    expect(screen.getByText(/No tubes in stock yet/)).toBeInTheDocument();
    await userEvent.type(screen.getByLabelText("Tube type"), "EL84");
    await userEvent.click(screen.getByRole("button", { name: "Take into stock" }));
    await waitFor(() => expect(screen.getByText("not tested")).toBeInTheDocument());
    await userEvent.click(screen.getByRole("button", { name: "Test or move no. 1" }));
    // The data sheet's point stands there to begin with.
    expect(screen.getByLabelText("Grid, V")).toHaveValue("-7.3");
    await userEvent.type(screen.getByLabelText("Plate, mA"), "lots{Enter}");
    expect(screen.getByText(/Plate mA: .*accepted/)).toBeInTheDocument();
    await userEvent.clear(screen.getByLabelText("Plate, mA"));
    await userEvent.type(screen.getByLabelText("Plate, mA"), "46{Enter}");
    await waitFor(() => expect(stock.tubes[0]!.tests[0]).toMatchObject({ milliamps: 46, gridVolts: -7.3 }));
  });
  test("the closest pair is found; tubes of other volts are not mixed in", async () => {
    const far = { ...kt66(4, 84), tests: [{ ...kt66(4, 84).tests[0]!, plateVolts: 400 }] };
    const stock = stockOf([kt66(1, 84), kt66(2, 60), kt66(3, 85), far]);
    await renderJob(<StockTubes />, job(new TestServer(), { stock }));
    await waitFor(() => expect(screen.getByRole("list", { name: "Matched groups" })).toHaveTextContent("no. 1, no. 3"));
    expect(screen.getAllByText(/% apart/)).toHaveLength(1);
    await userEvent.click(screen.getByRole("button", { name: "Labels for the boxes" }));
    expect(screen.getByRole("region", { name: "Labels" })).toHaveTextContent("KT66 · pair · 1 %");
  });
});

describe("without a circuit", () => {
  test("bias from typed figures, by hand: 0.45 V over 10 Ω at 415 V is 45 mA of cathode current", async () => {
    await renderJob(<Typed />, { server: new TestServer() });
    await userEvent.selectOptions(screen.getByLabelText("Tube type"), "KT66");
    await userEvent.type(screen.getByLabelText("Plate to chassis, V"), "415");
    await userEvent.type(screen.getByLabelText("Across the cathode resistor, V"), "0.45");
    await userEvent.type(screen.getByLabelText("Cathode resistor, Ω"), "10");
    // 45 mA less the sheet's 6.3 of 91.3 is 41.9 mA; at 414.55 V it is 17.4 W.
    expect(screen.getByTestId("typed-bias")).toHaveTextContent("41.9 mA plate current, 17.4 W");
  });
  test("a wrong load shows by the turns ratio", async () => {
    await renderJob(<RatioForm wanted={6600} />, { server: new TestServer() });
    fireEvent.change(screen.getByLabelText("On the primary, V"), { target: { value: "100" } });
    fireEvent.change(screen.getByLabelText("On the secondary, V"), { target: { value: "4.92" } });
    await userEvent.type(screen.getByLabelText("Load, Ω"), "4{Enter}");
    expect(screen.getByTestId("ratio")).toHaveTextContent("25 % of the 6.60 kΩ wanted");
    expect(screen.getByTestId("ratio")).toHaveTextContent("16 Ω is right");
    await userEvent.clear(screen.getByLabelText("On the secondary, V"));
    await userEvent.type(screen.getByLabelText("On the secondary, V"), "none{Enter}");
    expect(screen.getByText(/Secondary: /)).toBeInTheDocument();
  });
});
