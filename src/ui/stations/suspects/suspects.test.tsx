/** @jest-environment jsdom */
import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { SuspectsAnswer } from "@/core/ports/solver-port";
import type { Suspect } from "@/core/suspects/rank";
import { power, reading, renderJob, settle, TestServer, WREN } from "../../job-for-tests";
import { Suspects } from "./suspects";

beforeEach(() => localStorage.clear());

const suspect = (fault: string, probability: number, more: Partial<Suspect> = {}): Suspect =>
  ({
    fault,
    refs: [fault.split(" ")[0]!],
    probability,
    groupProbability: probability,
    group: [fault],
    groupRefs: [[fault.split(" ")[0]!]],
    explains: [],
    against: [],
    predicted: [],
    ...more,
  }) as Suspect;
const answerOf = (suspects: Suspect[], more: Partial<SuspectsAnswer> = {}): SuspectsAnswer => ({
  suspects,
  notYetTestable: [],
  next: [],
  recheck: [],
  slips: {},
  standsAlone: [],
  circuitDoubtful: false,
  evidence: [],
  ms: 1,
  ...more,
});
const live = () => new TestServer([power("on"), { type: "mains", payload: { volts: 230 } }, reading("V2.g", 2.1)]);
const advice = () => screen.getByRole("region", { name: "What to do now" });
const idle = { expected: () => new Promise<never>(() => {}) };

test("the list in its order, with what speaks for each and against it", async () => {
  const suspects = async () =>
    answerOf([
      suspect("C6 leaky", 0.72, { explains: ["V2.g"] }),
      suspect("R8 open", 0.2, { against: ["V2.g"] }),
      suspect("R1 high", 0.001),
      suspect("R2 high", 0.001),
    ]);
  await renderJob(<Suspects />, { server: live(), netlist: WREN, solver: { ...idle, suspects } });
  const list = within(screen.getByRole("region", { name: "Suspects" }));
  const items = list.getAllByRole("listitem");
  expect(items.map((i) => i.textContent)).toEqual([expect.stringContaining("C6 leaky"), expect.stringContaining("R8 open")]);
  expect(items[0]).toHaveTextContent("72 %");
  expect(items[0]).toHaveTextContent("explains V2.g");
  expect(items[1]).toHaveTextContent("does not explain V2.g");
  expect(list.getByText(/2 more under 2 % each/)).toHaveTextContent("R1 high, R2 high");
});

test("nothing is named before it is sure: the next measurement is the headline", async () => {
  const suspects = async () =>
    answerOf([suspect("C6 leaky", 0.6), suspect("R8 open", 0.3)], {
      next: [{ point: "V2.k", kind: "dcv", gainBits: 0.8, cost: 1, why: "C6 leaky would give about 12 V, R8 open 8 V" }],
    });
  await renderJob(<Suspects />, { server: live(), netlist: WREN, solver: { ...idle, suspects } });
  expect(advice()).toHaveTextContent("Next: volts at V2.k");
  expect(advice()).not.toHaveTextContent("C6 leaky %");
});

test("several readings that nothing explains: that is the answer, no part is named", async () => {
  const suspects = async () =>
    answerOf([suspect("none of the faults known here", 0.9, { refs: [], unknown: true, against: ["B1", "V2.g"] } as Partial<Suspect>)], {
      recheck: ["B1", "V2.g"],
    });
  await renderJob(<Suspects />, { server: live(), netlist: WREN, solver: { ...idle, suspects } });
  expect(advice()).toHaveTextContent("None of the faults known here explains this");
  expect(advice()).toHaveTextContent("B1, V2.g fit no fault on the list");
});

test("a reading logged here goes to the point that was asked for, as a typed event", async () => {
  const server = live();
  const suspects = async () =>
    answerOf([suspect("C6 leaky", 0.6)], { next: [{ point: "V2.k", kind: "dcv", gainBits: 0.8, cost: 1, why: "it tells them apart" }] });
  await renderJob(<Suspects />, { server, netlist: WREN, solver: { ...idle, suspects } });
  await userEvent.type(screen.getByLabelText("Reading, V"), "8.1{Enter}");
  await settle();
  expect(server.lines.at(-1)).toMatchObject({ type: "reading", payload: { point: "V2.k", kind: "dcv", value: 8.1 } });
});

test("an answer for older evidence is dropped, a failure is said", async () => {
  const server = live();
  const waiting: { points: string[]; give(a: SuspectsAnswer): void; fail(e: Error): void }[] = [];
  const suspects = (_: string, evidence: { point: string }[]) =>
    new Promise<SuspectsAnswer>((give, fail) => waiting.push({ points: evidence.map((e) => e.point), give, fail }));
  await renderJob(<Suspects />, { server, netlist: WREN, solver: { ...idle, suspects } });
  server.lines.push({
    ...server.lines[2]!,
    seq: 4,
    id: "from another tab",
    payload: { point: "V2.k", kind: "dcv", value: 12, conditions: { mains: 230 } },
  } as never);
  await waitFor(() => expect(waiting).toHaveLength(2), { timeout: 5000 });
  expect(waiting.map((w) => w.points)).toEqual([["V2.g"], ["V2.g", "V2.k"]]);
  waiting[1]!.give(answerOf([suspect("C6 leaky", 0.7)]));
  await settle();
  waiting[0]!.give(answerOf([suspect("R8 open", 0.9)]));
  await settle();
  expect(screen.getByRole("region", { name: "Suspects" })).toHaveTextContent("C6 leaky");
  expect(screen.queryByText("R8 open")).not.toBeInTheDocument();
});

test("without a circuit it says what is missing and where to get it", async () => {
  await renderJob(<Suspects />, { server: live() });
  expect(screen.getByRole("link", { name: /Intake/ })).toHaveAttribute("href", expect.stringContaining("/jobs/7/intake"));
});
