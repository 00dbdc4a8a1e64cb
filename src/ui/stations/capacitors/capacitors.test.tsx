/**
 * @jest-environment jsdom
 *
 * The capacitors' tabs of Work: the table, what is read off, a substitute refused or fitted, the plan of a reforming, the kit and the stock.
 */

import { readFileSync } from "node:fs";
import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { bornBy } from "@/core/capacitor/born";
import { figuresBeside } from "@/core/capacitor/figures-beside";
import { capacitorStresses } from "@/core/capacitor/stress";
import { siliconFor } from "@/core/capacitor/substitute-rectifier";
import { alter } from "@/core/circuit/alter";
import { readCircuit } from "@/core/circuit/read";
import type { CapacitorPort } from "@/core/ports/capacitor-port";
import type { BadName } from "@/core/shop/bad-names";
import type { StockPart } from "@/core/shop/stock-parts";
import type { EventDraft } from "@/core/tape/events/event";
import { renderJob, settle, TestServer, type TestJob } from "../../job-for-tests";
import type { PartsPort } from "../../job/parts-port";
import { Work } from "../repair/work";

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

const LANTERN = readFileSync("demo/amps/lantern-15.cir", "utf8");
const circuitOf = (netlist: string) => readCircuit(netlist).circuit;
const PORT: CapacitorPort = {
  stresses: async (n, mains, set = []) => [...capacitorStresses(alter(circuitOf(n), set), mains).values()],
  born: async (n, mains) => bornBy(circuitOf(n), mains),
  beside: async (n, set, mains) => figuresBeside(circuitOf(n), set, mains),
  silicon: async (n, part, mains, offer) => siliconFor(circuitOf(n), part, mains, offer),
  cancel: () => {},
};

/** A shop's drawers and names that the test can look into. */
function shopOf(stock: StockPart[] = [], names: BadName[] = []): PartsPort & { stock: StockPart[]; known: BadName[] } {
  const shop = {
    stock,
    known: names,
    list: async () => shop.stock,
    add: async (part: Omit<StockPart, "number">) => (shop.stock = [...shop.stock, { ...part, number: shop.stock.length + 1 }]),
    pieces: async (number: number, pieces: number) => {
      const part = shop.stock.find((s) => s.number === number)!;
      if (part.pieces + pieces < 0) throw new Error(`There are ${part.pieces} pieces of number ${number}`);
      return (shop.stock = shop.stock.map((s) => (s === part ? { ...s, pieces: s.pieces + pieces } : s)));
    },
    waiting: async () => [{ job: 1009, amp: "Minor", what: "a ballast resistor", since: "2026-03-01T09:00:00Z", stock: null }],
    minimum: async (number: number, minimum: number) => (shop.stock = shop.stock.map((s) => (s.number === number ? { ...s, minimum } : s))),
    names: async () => shop.known,
    remember: async (name: Omit<BadName, "id" | "evidence"> & { evidence: { text: string } }) =>
      (shop.known = [...shop.known, { ...name, id: shop.known.length + 1, evidence: [{ ...name.evidence, at: "", who: "J.M." }] }]),
    evidence: async () => shop.known,
  };
  return shop;
}

const passed: EventDraft = { type: "gate-passed", payload: { station: "work", reason: "leads lifted, plug out", understood: true } };
async function work(tab: string, server: TestServer, more: Partial<TestJob> = {}) {
  await renderJob(<Work />, {
    server,
    netlist: LANTERN,
    solver: { expected: () => new Promise(() => {}), notLive: async () => [] },
    capacitors: PORT,
    ...more,
  });
  await userEvent.click(await screen.findByRole("tab", { name: tab }));
  for (let i = 0; i < 4; i++) await settle();
}
const last = (server: TestServer, type: string) => server.lines.findLast((l) => l.type === type)?.payload;

describe("the table", () => {
  test("every capacitor with what it bears and what is to be done, and why", async () => {
    await work("Capacitors", new TestServer(), { settings: { capacitorSchool: "replace" } });
    const row = await screen.findByRole("row", { name: /^C1 / });
    expect(row).toHaveTextContent("first capacitor after the rectifier");
    expect(row).toHaveTextContent(/tubes out 382 V/);
    expect(row).toHaveTextContent("replaces electrolytics of that age");
    // No brief: the owner has to be asked.
    await userEvent.click(within(row).getByRole("button", { name: "Note as asked" }));
    expect(row).toHaveTextContent("asked, no answer yet");
  });
  test("old markings are read, 32 alone is asked about, a slip is kept for correction", async () => {
    const server = new TestServer();
    await work("Capacitors", server);
    await userEvent.click(screen.getByRole("button", { name: "C1: read off, tests" }));
    const form = screen.getByRole("form", { name: "Read off C1" });
    await userEvent.type(within(form).getByLabelText("Capacitance"), "32");
    expect(form).toHaveTextContent("32 µF or 32 pF?");
    await userEvent.type(within(form).getByLabelText("Capacitance"), " MFD");
    await userEvent.type(within(form).getByLabelText("Year"), "59");
    await userEvent.click(within(form).getByRole("button", { name: "Log what it says" }));
    expect(within(form).getByRole("alert")).toHaveTextContent("59; 1900 to 2100 is accepted");
    expect(within(form).getByLabelText("Capacitance")).toHaveValue("32 MFD");
    await userEvent.clear(within(form).getByLabelText("Year"));
    await userEvent.type(within(form).getByLabelText("Year"), "1959{Enter}");
    await settle();
    expect(last(server, "capacitor")).toEqual({ part: "C1", farads: 32e-6, year: 1959 });
  });
  test("leakage is logged with its volts, and never above the rating", async () => {
    const server = new TestServer();
    await work("Capacitors", server);
    await userEvent.click(screen.getByRole("button", { name: "C1: read off, tests" }));
    const form = screen.getByRole("form", { name: "Tests of C1" });
    expect(form).toHaveTextContent(/Allowed: 1.58 mA at 500 V/);
    await userEvent.type(within(form).getByLabelText("Leakage"), "6 mA{Enter}");
    expect(within(form).getByRole("alert")).toHaveTextContent("At which volts?");
    await userEvent.type(within(form).getByLabelText("at volts"), "700{Enter}");
    expect(within(form).getByRole("alert")).toHaveTextContent("rated for 500 V");
    await userEvent.clear(within(form).getByLabelText("at volts"));
    await userEvent.type(within(form).getByLabelText("at volts"), "400{Enter}");
    await settle();
    expect(last(server, "capacitor-test")).toEqual({ part: "C1", kind: "leakage", value: 0.006, volts: 400 });
    expect(screen.getByRole("row", { name: /^C1 / })).toHaveTextContent("leaks 6.00 mA");
  });
  test("a bad name is remembered and marks its parts", async () => {
    const shop = shopOf();
    await work("Capacitors", new TestServer(), { parts: shop });
    const form = screen.getByRole("form", { name: "A bad name" });
    await userEvent.type(within(form).getByLabelText("Words on it, kind"), "paper");
    await userEvent.click(within(form).getByRole("button", { name: "Remember" }));
    expect(within(form).getByRole("alert")).toHaveTextContent("What does it do");
    await userEvent.type(within(form).getByLabelText("What it does"), "leaks{Enter}");
    for (let i = 0; i < 3; i++) await settle();
    expect(shop.known).toMatchObject([{ words: "paper", does: "leaks" }]);
    expect(screen.getByRole("row", { name: /^C8 / })).toHaveTextContent("a bad name in this shop: leaks (seen once)");
  });
});

describe("a substitute", () => {
  const choose = async (part: string) => {
    await userEvent.selectOptions(screen.getByRole("combobox", { name: "Position" }), part);
    for (let i = 0; i < 4; i++) await settle();
  };
  const check = async () => {
    await userEvent.click(screen.getAllByRole("button", { name: "Check it" })[0]!);
    for (let i = 0; i < 4; i++) await settle();
  };
  test("one below what it sees is named, and goes in only with a reason", async () => {
    const server = new TestServer([passed]);
    await work("Substitute", server);
    await choose("C6");
    await userEvent.clear(screen.getByLabelText("Rated volts"));
    await userEvent.type(screen.getByLabelText("Rated volts"), "250");
    await check();
    expect(screen.getByTestId("may-stand")).toHaveTextContent("It may not.");
    const fit = screen.getByRole("button", { name: /Log as fitted/ });
    expect(fit).toBeDisabled();
    await userEvent.type(screen.getByLabelText(/Fit it all the same because/), "one evening's test");
    await userEvent.click(fit);
    await settle();
    expect(last(server, "change")).toMatchObject({
      position: "C6",
      kind: "replacement",
      reason: expect.stringContaining("one evening's test") as unknown,
      set: expect.arrayContaining(["C6.volts=250"]) as unknown,
    });
    expect((last(server, "change") as { checks: string[] }).checks.join()).toContain("below what it sees");
  });
  test("with the amp not proven dead nothing is fitted", async () => {
    await work("Substitute", new TestServer());
    await choose("C6");
    await check();
    expect(screen.getByTestId("may-stand")).toHaveTextContent("It may stand there.");
    expect(screen.getByRole("button", { name: /Log as fitted/ })).toBeDisabled();
    expect(screen.getByText(/not proven dead/, { selector: "p" })).toBeInTheDocument();
  });
  test("a can wants a lug for each section", async () => {
    await work("Substitute", new TestServer([passed]));
    await choose("C1");
    await check();
    expect(screen.getByRole("alert")).toHaveTextContent("A section has no lug yet");
    expect(screen.queryByRole("button", { name: /Log as fitted/ })).toBeNull();
  });
  test("a resistor, a tube, a control and silicon each have their checks", async () => {
    await work("Substitute", new TestServer([passed]));
    await choose("R2");
    await check();
    expect(screen.getByRole("table", { name: "Checks" })).toHaveTextContent("flameproof");
    await choose("V4");
    await userEvent.selectOptions(screen.getByLabelText("In its place"), "EL84");
    await settle();
    expect(screen.getByRole("table", { name: "Checks" })).toHaveTextContent("other pins");
    await choose("P1");
    await userEvent.selectOptions(screen.getByLabelText("Taper"), "linear");
    await check();
    expect(screen.getByRole("img", { name: /audio before, linear after/ })).toBeInTheDocument();
    await choose("V6");
    await check();
    expect(screen.getByText(/in series: .* without it/)).toBeInTheDocument();
  });
  test("a choke and a power transformer: what rises and which winding is missing", async () => {
    await work("Substitute", new TestServer([passed]));
    await choose("R1");
    await userEvent.click(screen.getAllByRole("button", { name: "Check it" })[1]!);
    for (let i = 0; i < 4; i++) await settle();
    expect(screen.getByRole("table", { name: "The amp with it" })).toHaveTextContent("B2 ripple");
    await choose("V6");
    await userEvent.clear(screen.getByLabelText("Heater windings"));
    await userEvent.type(screen.getByLabelText("Heater windings"), "6.3 V plenty");
    await userEvent.click(screen.getByRole("button", { name: "Check the transformer" }));
    expect(screen.getByRole("alert")).toHaveTextContent("6.3 V plenty; accepted: 6.3 V 3 A");
    await userEvent.clear(screen.getByLabelText("Heater windings"));
    await userEvent.type(screen.getByLabelText("Heater windings"), "6.3 V 3 A");
    await userEvent.click(screen.getByRole("button", { name: "Check the transformer" }));
    for (let i = 0; i < 4; i++) await settle();
    expect(screen.getByRole("table", { name: "Checks" })).toHaveTextContent("no such winding");
  });
});

describe("reforming", () => {
  test("what is in the way is said; with the plug in it cannot begin", async () => {
    const server = new TestServer([passed, { type: "capacitor", payload: { part: "C1", caseLead: "minus" } }]);
    await work("Reform", server);
    await userEvent.click(screen.getByRole("checkbox", { name: /^C1 / }));
    await userEvent.click(screen.getByLabelText(/test voltage on the negative lead/));
    await userEvent.click(screen.getByLabelText(/still wired in the amp/));
    expect(screen.getByRole("alert")).toHaveTextContent("every screw of it would stand at the test volts");
    expect(screen.getByRole("button", { name: /^Supply on/ })).toBeDisabled();
    await userEvent.click(screen.getByLabelText(/no connection to earth/));
    await userEvent.type(screen.getByLabelText(/Go on all the same because/), "can stands on glass");
    await userEvent.click(screen.getByRole("button", { name: /^Supply on/ }));
    await settle();
    expect(last(server, "reform-begun")).toMatchObject({ lifted: false, note: expect.stringContaining("can stands on glass") as unknown });
    expect(await screen.findByTestId("reforming-next")).toHaveTextContent("Go on.");
  });
});

test("an amp that is switched off with its plug in is one switch away from live: no supply goes to its parts", async () => {
  const server = new TestServer([
    { type: "power", payload: { state: "off", plug: "in" } },
    passed,
    { type: "capacitor", payload: { part: "C1", caseLead: "minus" } },
  ]);
  await work("Reform", server);
  await userEvent.click(screen.getByRole("checkbox", { name: /^C1 / }));
  expect(screen.getByRole("alert")).toHaveTextContent("plug is in");
  expect(screen.queryByLabelText(/Go on all the same/)).toBeNull();
  expect(screen.getByRole("button", { name: /^Supply on/ })).toBeDisabled();
});

describe("the kit", () => {
  const part = (more: Partial<StockPart>): StockPart => ({
    number: 1,
    letter: "C",
    value: 22e-9,
    rating: 630,
    kind: "polypropylene",
    price: 1.3,
    pieces: 9,
    ...more,
  });
  test("takes what is good from the drawer, adds up, and a fitted piece leaves it", async () => {
    const shop = shopOf([part({})]);
    const server = new TestServer([passed]);
    await work("Kit", server, { parts: shop, settings: { capacitorSchool: "replace", currency: "cr" } });
    const kit = screen.getByRole("table", { name: "Kit" });
    const row = within(kit).getByRole("row", { name: /^C8, C10, C13 / });
    expect(row).toHaveTextContent("9, number 1");
    expect(screen.getByTestId("kit-says")).toHaveTextContent("3.90 cr");
    await userEvent.click(within(row).getByRole("button", { name: "Fitted…" }));
    await userEvent.click(screen.getByRole("button", { name: "Log as fitted: C8, C10, C13" }));
    for (let i = 0; i < 3; i++) await settle();
    // The server takes them out of the drawer with the first line, in one act.
    expect(server.lines.filter((l) => l.type === "change").map((l) => (l.payload as { pieces?: number }).pieces)).toEqual([3, 0, 0]);
  });
  test("what is typed for the stock is checked and kept; what is taken in can be used", async () => {
    const shop = shopOf();
    await work("Kit", new TestServer(), { parts: shop });
    const form = screen.getByRole("form", { name: "A part for the stock" });
    await userEvent.type(within(form).getByLabelText("Capacitance, sections"), "32u + 32u");
    await userEvent.click(within(form).getByRole("button", { name: "Take in" }));
    expect(within(form).getByRole("alert")).toHaveTextContent("Rated volts are wanted");
    await userEvent.type(within(form).getByLabelText("Price,", { exact: false }), "-3");
    await userEvent.type(within(form).getByLabelText("Volts"), "500{Enter}");
    expect(within(form).getByRole("alert")).toHaveTextContent("Price: zero or more");
    await userEvent.clear(within(form).getByLabelText("Price,", { exact: false }));
    await userEvent.type(within(form).getByLabelText("Volts"), "{Enter}");
    for (let i = 0; i < 3; i++) await settle();
    expect(shop.stock).toMatchObject([{ sections: [32e-6, 32e-6], rating: 500, pieces: 1 }]);
  });

  test("each place of the kit becomes a task with its part, once; a minimum says what to order, and who waits", async () => {
    const shop = shopOf([part({ pieces: 2 })]);
    const server = new TestServer([passed]);
    await work("Kit", server, { parts: shop, settings: { capacitorSchool: "replace", currency: "cr" } });
    await userEvent.click(screen.getByRole("button", { name: /^Plan all \d+$/ }));
    for (let i = 0; i < 3; i++) await settle();
    expect(server.state.planned.find((p) => p.position === "C8")).toMatchObject({
      from: "capacitor",
      phase: "power off",
      // Three are wanted and two are there.
      parts: [{ pieces: 1, cost: 1.3, stock: 1, state: "to order" }],
    });
    expect(screen.getByText("All of it is on the plan.")).toBeVisible();
    const least = screen.getByLabelText("At least of number 1");
    await userEvent.type(least, "lots{Enter}");
    expect(screen.getByText(/read “lots”; a whole number is accepted/)).toBeVisible();
    await userEvent.clear(least);
    await userEvent.type(least, "6{Enter}");
    for (let i = 0; i < 3; i++) await settle();
    const order = screen.getByRole("region", { name: "To order" });
    expect(order).toHaveTextContent("4 × 22 nF 630 V polypropylene number 1: 2 there, at least 6 wanted");
    expect(order).toHaveTextContent("a ballast resistor for job 1009, Minor");
  });
});

test("a part typed into the ledger is checked in its place: out wants a word, the circuit follows", async () => {
  const server = new TestServer([passed]);
  await work("Changes", server);
  await userEvent.type(screen.getByLabelText("Position"), "C1");
  await userEvent.type(screen.getByLabelText("New part and its ratings"), "32 µF 350 V electrolytic");
  for (let i = 0; i < 3; i++) await settle();
  const check = screen.getByRole("status", { name: "Check of the new part" });
  expect(check).toHaveTextContent("It may not stand there");
  expect(check).toHaveTextContent("volts: 350 V, wanted 421 V at least");
  await userEvent.click(screen.getByRole("button", { name: "Log the change" }));
  expect(screen.getByText(/It may not stand there: take another part, or say under Why/)).toBeVisible();
  await userEvent.type(screen.getByLabelText("Why"), "only for one evening");
  await userEvent.click(screen.getByRole("button", { name: "Log the change" }));
  for (let i = 0; i < 3; i++) await settle();
  expect(last(server, "change")).toMatchObject({
    position: "C1",
    set: expect.arrayContaining(["C1.volts=350"]) as unknown,
    checks: expect.arrayContaining([expect.stringMatching(/^volts: 350 V/)]) as unknown,
  });
});

describe("in a job without a circuit", () => {
  const bare = (server: TestServer) => renderJob(<Work />, { server });
  const named = (name: string, farads: number, volts: number): EventDraft => ({ type: "reservoir", payload: { name, farads, volts } });

  test("a capacitor is named by what stands on it, its test is judged by that, and a reservoir named at Make safe is there already", async () => {
    const server = new TestServer([named("C1", 32e-6, 450)]);
    await bare(server);
    await userEvent.click(screen.getByRole("tab", { name: "Capacitors" }));
    const row = (name: string) => screen.getByRole("row", { name: new RegExp(`^${name} `) });
    // An old can of unknown age is tested first: the rule of the shop, with nothing said of what it bears.
    expect(row("C1")).toHaveTextContent(/32 µF.*450 V.*test/);
    const form = within(screen.getByRole("form", { name: "Name a capacitor" }));
    await userEvent.type(form.getByLabelText("Name"), "C6");
    await userEvent.type(form.getByLabelText("Size"), "22n 400V");
    await userEvent.type(form.getByLabelText("Kind"), "paper");
    await userEvent.type(form.getByLabelText("Year"), "1961{Enter}");
    await settle();
    expect(server.lines.at(-1)!.payload).toEqual({ part: "C6", farads: 22e-9, volts: 400, kind: "paper", year: 1961 });
    // The same name again is asked about and kept.
    await userEvent.type(form.getByLabelText("Name"), "c6");
    await userEvent.type(form.getByLabelText("Size"), "22n{Enter}");
    expect(form.getByRole("alert")).toHaveTextContent("c6 is there already");
    expect(form.getByLabelText("Name")).toHaveValue("c6");
    await userEvent.click(screen.getByRole("button", { name: "C6: read off, tests" }));
    const tests = within(screen.getByRole("form", { name: "Tests of C6" }));
    await userEvent.type(tests.getByLabelText("Leakage"), "40u");
    await userEvent.type(tests.getByLabelText("at volts"), "400{Enter}");
    await settle();
    // By hand: new paper of 22 nF insulates 3 GΩ (the smaller of 3 GΩ and 1000 s / 22 nF), 0.13 µA at 400 V; 40 µA is far out.
    expect(row("C6")).toHaveTextContent(/replace/);
  });

  test("it is formed to its rating, through a resistor, with the limit of its size", async () => {
    await bare(new TestServer([named("C1", 32e-6, 450)]));
    await userEvent.click(screen.getByRole("tab", { name: "Reform" }));
    // K·C + 0.3 mA with K 0.04 mA/µF above 350 V: 1.58 mA.
    expect(await screen.findByRole("row", { name: /C1/ })).toHaveTextContent(/450 V.*450 V.*1\.58 mA/);
    expect(screen.queryByRole("tab", { name: "Substitute" })).toBeNull();
  });
});
