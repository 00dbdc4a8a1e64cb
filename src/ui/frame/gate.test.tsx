/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { EventDraft } from "@/core/tape/events/event";
import { power, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { Gate } from "./gate";
import { Guard } from "./guard";

beforeEach(() => localStorage.clear());
const inside = () => screen.getByText("hands go in").parentElement!;
const gate = (lines: EventDraft[], at = Date.now()) => {
  const server = new TestServer(lines, at);
  const shown = (
    <Gate station="work">
      <p>hands go in</p>
    </Gate>
  );
  return renderJob(shown, { server, netlist: WREN }).then(() => server);
};

test("an amp that is not proven dead shuts what is inside; a reason opens it and is on the tape", async () => {
  const server = await gate([power("off")]);
  expect(inside()).toHaveAttribute("inert");
  const reason = screen.getByLabelText(/reason, kept on the tape/);
  await userEvent.type(reason, "ok{Enter}");
  await settle();
  expect(inside()).toHaveAttribute("inert");
  await userEvent.type(reason, ", chassis still closed{Enter}");
  await settle();
  expect(server.lines.at(-1)).toMatchObject({ type: "gate-passed", payload: { station: "work", reason: "ok, chassis still closed" } });
  expect(inside()).not.toHaveAttribute("inert");
});

test("no reason opens it while the amp is live", async () => {
  await gate([power("on")]);
  expect(inside()).toHaveAttribute("inert");
  expect(screen.queryByLabelText(/reason, kept on the tape/)).toBeNull();
});

test("nor one for an amp that was left on and nobody watched: it is logged as off first", async () => {
  await gate([power("on")], Date.now() - 3_600_000);
  expect(inside()).toHaveAttribute("inert");
  expect(screen.queryByLabelText(/reason, kept on the tape/)).toBeNull();
});

test("a reason given before power went on again holds no more", async () => {
  await gate([
    power("off"),
    { type: "gate-passed", payload: { station: "work", reason: "looking only", understood: true } } as EventDraft,
    power("on"),
    power("off"),
  ]);
  expect(inside()).toHaveAttribute("inert");
});

test("a reason for one station opens no other", async () => {
  await gate([power("off"), { type: "gate-passed", payload: { station: "look", reason: "looking only", understood: true } } as EventDraft]);
  expect(inside()).toHaveAttribute("inert");
});

describe("the guard", () => {
  const mains = () => screen.getByLabelText(/now, V/);

  test("volts are logged as read; what is none stays with the reason, and is not logged", async () => {
    const server = new TestServer([power("on")]);
    await renderJob(<Guard />, { server, netlist: WREN });
    await userEvent.type(mains(), "high{Enter}");
    expect(mains()).toHaveAttribute("aria-invalid", "true");
    expect(server.lines).toHaveLength(1);
    await userEvent.clear(mains());
    await userEvent.type(mains(), "600{Enter}");
    expect(screen.getByText(/accepted 0 to 500 V/)).toBeVisible();
    await userEvent.clear(mains());
    await userEvent.type(mains(), "231.5{Enter}");
    await settle();
    expect(server.lines.at(-1)).toMatchObject({ type: "mains", payload: { volts: 231.5 } });
  });

  test("it says LIVE, and switching off is the one thing offered", async () => {
    const server = new TestServer([power("on")], Date.now());
    await renderJob(<Guard />, { server, netlist: WREN });
    const state = () => screen.getByRole("status", { name: "Energy state" });
    expect(state()).toHaveTextContent("LIVE");
    expect(screen.queryByRole("button", { name: "Power on…" })).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "Off, plug out" }));
    await settle();
    expect(server.lines.at(-1)).toMatchObject({ type: "power", payload: { state: "off", plug: "out" } });
    expect(state()).not.toHaveTextContent("LIVE");
  });

  test("a server out of reach is said, with how many lines wait", async () => {
    const server = new TestServer([power("on")]);
    await renderJob(<Guard />, { server, netlist: WREN });
    server.reached = false;
    await userEvent.click(screen.getByRole("button", { name: "Off, plug out" }));
    await settle();
    expect(screen.getByRole("alert")).toHaveTextContent(/1 lines? (is|are) kept in this browser/);
  });
});
