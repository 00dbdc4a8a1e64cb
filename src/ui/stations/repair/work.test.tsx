/** @jest-environment jsdom */
/** The plan, the ledger, the cure, approvals and quotes, by hand and by keyboard. */

import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { inJob, renderJob, settle, TestServer, WREN, type TestJob } from "../../job-for-tests";
import type { EventDraft } from "@/core/tape/events/event";
import { BeyondAgreed } from "../../frame/beyond-agreed";
import { TimerStrip } from "../../frame/timer-strip";
import { EntryLine } from "../../frame/entry-line";
import { DEFAULT_SETTINGS } from "@/core/shop/settings";
import { Approvals } from "./approvals";
import { readOptions } from "./ask-owner";
import { ChangeForm } from "./change-form";
import { Cure } from "./cure";
import { Ledger } from "./ledger";
import { Plan } from "./plan";
import { QuoteTab } from "./quote";
import { readParts } from "./task-form";
import { TaskToLogProvider } from "./task-to-log";

const user = userEvent.setup();
const settings = { currency: "kr", money: { ...DEFAULT_SETTINGS.money, hourly: 60, marginPercent: 50 } };
const show = (what: React.ReactNode, server: TestServer, more: Partial<TestJob> = {}) =>
  renderJob(what, { server, netlist: WREN, settings, ...more });
const last = (server: TestServer, type: string) => server.lines.findLast((l) => l.type === type)?.payload;
const finding = (place: string, action: string): EventDraft => ({
  type: "finding",
  payload: { station: "look", place, text: "bad", action, severity: "fault", brief: "allowed" },
});
const planned = (position: string, more: object = {}): EventDraft => ({
  type: "planned",
  payload: { position, what: "renew", phase: "power off", from: "technician", minutes: 30, reversible: true, ...more },
});
const change = (position: string, more: object = {}): EventDraft => ({
  type: "change",
  payload: { position, kind: "replacement", newPart: "new", reversible: true, ...more },
});
const original: EventDraft = { type: "brief", payload: { order: ["originality"] } };

describe("the plan", () => {
  test("what the findings ask for is planned at one click, with bias and tests after it", async () => {
    const server = new TestServer([finding("C6", "renew it"), finding("output tubes", "fit a new pair")]);
    await show(<Plan />, server);
    await user.click(screen.getByRole("button", { name: "Plan all 4" }));
    await settle();
    expect(server.state.planned.map((p) => [p.position, p.phase])).toEqual([
      ["C6", "power off"],
      ["output tubes", "power off"],
      ["output stage", "adjustment"],
      ["whole amp", "final tests"],
    ]);
    expect(within(screen.getByRole("list", { name: "Tasks" })).getAllByRole("button", { name: /^Move / })).toHaveLength(4);
    expect(screen.queryByRole("region", { name: "Proposed" })).toBeNull();
  });

  test("an order against the work is named, and put right by what depends on what", async () => {
    const server = new TestServer([planned("bias", { phase: "adjustment", what: "set it" }), planned("V2")]);
    await show(<Plan />, server);
    expect(screen.getByText(/bias: set it stands before V2: renew: after that it has to be set again/)).toBeVisible();
    await user.click(screen.getByRole("button", { name: "Order by what depends on what" }));
    await settle();
    expect(last(server, "plan-order")).toEqual({ order: [2, 1] });
    expect(screen.queryByText(/has to be set again/)).toBeNull();
  });

  test("the timer of a task runs on every station, and stops when the task is done", async () => {
    const server = new TestServer([planned("C6"), { type: "brief", payload: { order: ["cost"], spendingLimit: 20 } }]);
    await show(
      <>
        <TimerStrip />
        <Plan />
      </>,
      server,
    );
    expect(screen.queryByRole("status", { name: "Timer" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "Start the timer of C6: renew" }));
    await settle();
    const strip = screen.getByRole("status", { name: "Timer" });
    expect(strip).toHaveTextContent("Timer: C6: renew, just started, 30 min estimated");
    // Half an hour at 60 an hour is more than the owner's 20.
    expect(strip).toHaveTextContent(/it comes to 30.00.kr; the owner's limit is 20.00.kr/);
    await user.click(screen.getByRole("button", { name: "C6: renew is done" }));
    await settle();
    expect(server.lines.slice(-2).map((l) => l.type)).toEqual(["timer", "planned-ended"]);
    expect(screen.queryByRole("status", { name: "Timer" })).toBeNull();
    await user.click(screen.getByRole("button", { name: "Open again" }));
    await settle();
    expect(server.state.planned[0]!.ended).toBeUndefined();
  });

  test("a task that was planned with parts asks what was fitted: the change is logged for it, or nothing was", async () => {
    const parts = [{ text: "22 nF 630 V", pieces: 1, cost: 3, state: "in stock" }];
    const server = new TestServer([planned("C6", { parts }), planned("C5", { parts })]);
    await show(
      <TaskToLogProvider>
        <Plan />
        <ChangeForm />
      </TaskToLogProvider>,
      server,
    );
    await user.click(screen.getByRole("button", { name: "C6: renew is done" }));
    const asked = within(screen.getByRole("group", { name: "What was fitted at C6" }));
    expect(asked.getByRole("button", { name: "Log the change" })).toHaveFocus();
    expect(last(server, "planned-ended")).toBeUndefined();
    await user.click(asked.getByRole("button", { name: "Log the change" }));
    const form = within(screen.getByRole("form", { name: "A change" }));
    expect(form.getByLabelText("Position")).toHaveValue("C6");
    expect(form.getByLabelText("New part and its ratings")).toHaveValue("22 nF 630 V");
    await user.click(screen.getByRole("button", { name: "C5: renew is done" }));
    await user.click(
      within(screen.getByRole("group", { name: "What was fitted at C5" })).getByRole("button", { name: "Nothing was fitted" }),
    );
    await settle();
    expect(last(server, "planned-ended")).toEqual({ planned: 2, how: "done", nothingChanged: true });
  });

  test("a task as it is typed: parts line by line; what cannot be read stays for correction", async () => {
    const server = new TestServer([planned("R9")]);
    await show(<Plan />, server);
    const form = screen.getByRole("form", { name: "A new task" });
    const type = async (label: RegExp | string, text: string) => user.type(within(form).getByLabelText(label), text);
    await type("Position", "C6");
    await type("What is to be done", "renew the coupling capacitor");
    await type("Minutes", "20");
    await type("What has to come off first", "chassis out, board up");
    await type(/^Parts/, "2 × 22 nF 630 V film = 1,234");
    await user.click(within(form).getByLabelText("R9: renew"));
    await user.click(within(form).getByRole("button", { name: "Plan the task" }));
    expect(within(form).getByRole("alert")).toHaveTextContent("can be 1234 or 1.234");
    await user.clear(within(form).getByLabelText(/^Parts/));
    await type(/^Parts/, "2 × 22 nF 630 V film = 1.20 (here)");
    await user.click(within(form).getByRole("button", { name: "Plan the task" }));
    await settle();
    expect(last(server, "planned")).toEqual({
      position: "C6",
      what: "renew the coupling capacitor",
      phase: "power off",
      from: "technician",
      minutes: 20,
      reach: ["chassis out", "board up"],
      needs: [1],
      parts: [{ text: "22 nF 630 V film", pieces: 2, cost: 1.2, state: "here" }],
      reversible: true,
    });
    expect(readParts("0 × screw", 2)).toMatch(/one piece or more/);
    expect(readParts("screw = -1", 2)).toMatch(/cannot be negative/);
    expect(readParts("\n nut \n", 2)).toEqual([{ text: "nut", pieces: 1, state: "to order" }]);
  });

  test("a task that is changed keeps its place, its time and its number", async () => {
    const server = new TestServer([planned("C6"), { type: "time", payload: { minutes: 7, planned: 1 } }]);
    await show(<Plan />, server);
    await user.click(screen.getByRole("button", { name: "Change C6: renew" }));
    const form = screen.getByRole("form", { name: "Change a task" });
    await user.clear(within(form).getByLabelText("Minutes"));
    await user.type(within(form).getByLabelText("Minutes"), "45{Enter}");
    await settle();
    expect(server.state.planned).toMatchObject([{ root: 1, seq: 3, minutes: 45 }]);
    expect(screen.getByRole("list", { name: "Tasks" })).toHaveTextContent("45 min, 7 min worked");
  });

  test("tasks are moved with the keyboard", async () => {
    const server = new TestServer([planned("C6"), planned("C7")]);
    await show(<Plan />, server);
    // jsdom lays nothing out: each row is given its place.
    const rows = within(screen.getByRole("list", { name: "Tasks" })).getAllByRole("listitem");
    rows.forEach(
      (row, i) =>
        (row.getBoundingClientRect = () => ({
          x: 0,
          y: i * 60,
          top: i * 60,
          left: 0,
          width: 500,
          height: 50,
          right: 500,
          bottom: i * 60 + 50,
          toJSON: () => "",
        })),
    );
    screen.getByRole("button", { name: "Move C6: renew" }).focus();
    await user.keyboard(" ");
    await settle();
    await user.keyboard("{ArrowDown}");
    await settle();
    await user.keyboard(" ");
    await waitFor(() => expect(last(server, "plan-order")).toEqual({ order: [2, 1] }));
  });
});

describe("changes", () => {
  const log = async () => user.click(screen.getByRole("button", { name: "Log the change" }));
  test("a change with where it comes from and how it is fixed, from a task of the plan", async () => {
    const server = new TestServer([
      planned("C6", { parts: [{ text: "22 nF 630 V film", pieces: 1, cost: 1.2, state: "here" }], reason: "leaks" }),
    ]);
    await show(<ChangeForm />, server);
    await user.selectOptions(screen.getByLabelText("Task of the plan"), "C6: renew");
    await user.selectOptions(screen.getByLabelText("New part comes from"), "stock");
    await user.type(screen.getByLabelText("Batch or date code"), "2610");
    await user.type(screen.getByLabelText("Minutes, if no timer ran"), "12");
    await user.click(screen.getByLabelText("hooked before solder"));
    await user.click(screen.getByLabelText("off the board"));
    await log();
    await settle();
    expect(last(server, "change")).toEqual({
      position: "C6",
      kind: "replacement",
      newPart: "22 nF 630 V film",
      oldPart: "22 nF 400 V paper",
      reason: "leaks",
      reversible: true,
      source: "stock",
      batch: "2610",
      cost: 1.2,
      minutes: 12,
      fixings: ["hooked before solder", "off the board"],
      planned: 1,
      oldWent: "bag for the owner",
      // The circuit follows what was typed; without the solver it says that nothing was checked.
      set: ["C6=22nF", "C6.volts=630", "C6.kind=film", `C6.year=${new Date().getFullYear()}`],
      checks: ["not checked in its place: what bears on it is not solved"],
    });
  });
  test("beyond what was agreed it wants a reason; negative and unclear prices are refused; nothing typed is lost", async () => {
    const server = new TestServer([original]);
    await show(<ChangeForm />, server);
    await user.type(screen.getByLabelText("Position"), "C6");
    await user.type(screen.getByLabelText("New part and its ratings"), "22 nF film");
    await user.type(screen.getByLabelText("Costs the shop, kr"), "-3");
    await log();
    expect(screen.getByRole("alert")).toHaveTextContent("Cost: read “-3”: this cannot be negative");
    await user.clear(screen.getByLabelText("Costs the shop, kr"));
    await log();
    expect(screen.getByRole("alert")).toHaveTextContent(/C6 goes beyond what was agreed \(originality comes first/);
    expect(last(server, "change")).toBeUndefined();
    await user.type(screen.getByLabelText(/say why it was done all the same/), "it smoked");
    await log();
    await settle();
    expect(last(server, "change")).toMatchObject({ position: "C6", newPart: "22 nF film", unagreed: "it smoked" });
  });
  test("a part that is fitted twice is pointed at, while it is typed and in the ledger", async () => {
    const server = new TestServer([change("C6"), change("c6")]);
    await show(
      <>
        <Ledger />
        <ChangeForm />
      </>,
      server,
    );
    expect(screen.getByText(/c6 is in line 1 too \(J\.M\.\)\. If it is the same part, undo one of them/)).toBeVisible();
    await user.type(screen.getByLabelText("Position"), "C6");
    expect(screen.getByText(/was changed in line 2 already \(new\)/)).toBeVisible();
  });
  test("put back and fitted again in one click each; the circuit in use follows", async () => {
    const server = new TestServer([change("R9", { kind: "experiment", outcome: "open", set: ["R9=2k"] })]);
    const drawn = await show(<Ledger />, server);
    await user.type(screen.getByLabelText("After the experiment"), "no better");
    await user.click(screen.getByRole("button", { name: "Put back" }));
    await settle();
    expect(last(server, "change")).toMatchObject({ outcome: "reverted", after: "no better", set: ["R9=2k"] });
    await user.click(screen.getByRole("button", { name: "Fit R9 again" }));
    await settle();
    expect(server.state.changes).toMatchObject([{ seq: 1, outcome: "open" }]);
    drawn.rerender(inJob(<Ledger />, { server, netlist: WREN }));
    await user.click(screen.getByRole("button", { name: "Kept" }));
    await settle();
    expect(server.state.changes[0]).toMatchObject({ outcome: "kept" });
  });
  test("from the entry line it is held, and becomes a question to the owner", async () => {
    const server = new TestServer([original]);
    await show(
      <>
        <EntryLine station="work" />
        <BeyondAgreed />
      </>,
      server,
    );
    await user.type(screen.getByRole("combobox", { name: "Entry line" }), "fit C6 22n 630V film, leaks{Enter}");
    const dialog = await screen.findByRole("dialog");
    expect(dialog).toHaveTextContent("C6 goes beyond what the owner agreed to");
    expect(within(dialog).getByRole("button", { name: "Log it with this reason" })).toBeDisabled();
    await user.click(within(dialog).getByRole("button", { name: /Ask the owner first/ }));
    await settle();
    expect(last(server, "approval")).toEqual({ what: "C6: 22 nF 630 V film", answer: "asked", consequence: "leaks" });
    expect(last(server, "planned")).toMatchObject({ position: "C6", what: "22 nF 630 V film" });
    expect(last(server, "change")).toBeUndefined();
    // With a reason it goes through, and the reason stands on the tape.
    await user.type(screen.getByRole("combobox", { name: "Entry line" }), "fit C7 22n 630V film{Enter}");
    await user.type(await screen.findByLabelText(/It is done already/), "found smoking");
    await user.click(screen.getByRole("button", { name: "Log it with this reason" }));
    await settle();
    expect(last(server, "change")).toMatchObject({
      position: "C7",
      unagreed: "found smoking",
      set: ["C7=22nF", "C7.volts=630", "C7.kind=film", `C7.year=${new Date().getFullYear()}`],
    });
  });
});

test("three changes resolved to the one that cured, put back in the order that tells soonest", async () => {
  const server = new TestServer(["C1", "C2", "R9"].map((p) => change(p, { kind: "experiment", outcome: "open" })));
  await show(<Cure />, server);
  /** True cure: the first. */
  const isBack = () => server.state.changes.some((c) => c.position === "C1" && c.outcome === "reverted");
  for (let i = 0; i < 3 && !screen.queryByText("C1 cured it"); i++) {
    await user.click(screen.getByRole("button", { name: "It is done: log it" }));
    await settle();
    await user.click(screen.getByRole("button", { name: isBack() ? "The fault is back" : "It is still cured" }));
    await settle();
  }
  expect(screen.getByText("C1 cured it")).toBeVisible();
  const others = screen.queryByRole("button", { name: /not the cure/ });
  if (others) await user.click(others);
  await settle();
  const again = screen.queryByRole("button", { name: "Fit C1 again" });
  if (again) await user.click(again);
  await settle();
  expect(server.state.changes.filter((c) => c.outcome !== "reverted").map((c) => c.position)).toEqual(["C1"]);
});

describe("approvals and quotes", () => {
  test("an apprentice takes down an answer to what costs nothing; what has a price is the technician's", async () => {
    const asked = (what: string, more: object = {}): EventDraft => ({ type: "approval", payload: { what, answer: "asked", ...more } });
    const server = new TestServer([asked("May the chassis be drilled?"), asked("May C6 be renewed?", { cost: 60 })]);
    await show(<Approvals />, server, { role: "apprentice" });
    const item = (what: string) => within(screen.getByText(what).closest("li")!);
    expect(item("May C6 be renewed?").getByText("An apprentice agrees no cost with the owner: ask the technician.")).toBeVisible();
    expect(item("May C6 be renewed?").queryByRole("button", { name: "Owner says yes" })).toBeNull();
    await user.click(item("May the chassis be drilled?").getByRole("button", { name: "Owner says yes" }));
    await settle();
    expect(last(server, "approval")).toMatchObject({ answer: "yes", asks: 1 });
  });

  test("a question with its price, consequence, ways and evidence; each answer with day, way and name", async () => {
    const server = new TestServer([
      { type: "job-opened", payload: { owner: "Osric Venn", amp: "Wren 5" } },
      { type: "reading", payload: { point: "V2.g", kind: "dcv", value: 9, conditions: {} } },
      planned("C6"),
      planned("C7"),
    ]);
    await show(<Approvals />, server);
    const form = screen.getByRole("form", { name: "A question" });
    await user.type(within(form).getByLabelText("Ask the owner"), "May both be renewed?");
    await user.type(within(form).getByLabelText("It costs, kr"), "60");
    await user.type(within(form).getByLabelText(/What it means for the owner/), "they leak");
    await user.type(within(form).getByLabelText(/Ways to choose from/), "make it last: new ones = 60: for years");
    await user.click(within(form).getByLabelText("C6: renew"));
    await user.click(within(form).getByLabelText("C7: renew"));
    await user.click(within(form).getByText(/Evidence from the tape/));
    await user.click(within(form).getByLabelText(/2: V2\.g 9/));
    await user.click(within(form).getByRole("button", { name: "Note it as asked" }));
    await settle();
    expect(last(server, "approval")).toEqual({
      what: "May both be renewed?",
      answer: "asked",
      cost: 60,
      consequence: "they leak",
      options: [{ name: "new ones", aim: "make it last", cost: 60, consequence: "for years" }],
      evidence: [2],
      planned: [3, 4],
    });
    expect(screen.getByRole("button", { name: "Owner agrees in part" })).toBeDisabled();
    const out = screen.getByRole("group", { name: "Leave out, for an answer in part" });
    await user.click(within(out).getByLabelText("C7: renew"));
    expect(screen.getByRole("button", { name: "Owner says yes" })).toBeDisabled();
    await user.selectOptions(screen.getByLabelText("By"), "letter");
    await user.click(screen.getByRole("button", { name: "Owner agrees in part" }));
    await settle();
    expect(last(server, "approval")).toMatchObject({ answer: "part", asks: 5, declined: [4], by: "letter", said: "Osric Venn", option: 0 });
    await user.click(screen.getByRole("button", { name: "Owner takes it back" }));
    await settle();
    expect(screen.getByText(/yes, then taken back/)).toBeVisible();
  });
  test("ways that cannot be read are said", () => {
    expect(readOptions("new ones = ten", 2)).toMatch(/Options, new ones: read “ten”/);
    expect(readOptions("a\nb\nc\nd\ne\nf", 2)).toMatch(/five at most/);
    expect(readOptions("make it work: used = 60", 2)).toEqual([{ name: "used", aim: "make it work", cost: 60 }]);
    expect(readOptions("leave it", 2)).toEqual([{ name: "leave it" }]);
  });
  test("a quote of two ways from the plan, priced as it is put together; a part without a price is named", async () => {
    const server = new TestServer([planned("C6"), planned("V2", { parts: [{ text: "EL84", pieces: 2, state: "to order" }] })]);
    await show(<QuoteTab />, server);
    expect(screen.getByText(/Without a price, so at nothing: V2: renew: EL84/)).toBeVisible();
    await user.click(screen.getByRole("button", { name: "Another way beside it" }));
    const second = screen.getByRole("group", { name: "Way 2" });
    await user.click(within(second).getByLabelText(/V2: renew/));
    expect(second).toHaveTextContent("30.00");
    await user.click(screen.getByRole("button", { name: "Make the quote" }));
    await settle();
    const quote = last(server, "quote") as { options: { name: string; sum: { total: number } }[] };
    expect(quote.options.map((o) => [o.name, o.sum.total])).toEqual([
      ["Make it last", 60],
      ["Make it work", 30],
    ]);
  });
});
