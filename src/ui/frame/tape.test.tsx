/** @jest-environment jsdom */
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { inJob, power, reading, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { render } from "@testing-library/react";
import { Guard } from "./guard";
import { LeftOut } from "./left-out";
import { TapeColumn } from "./tape";

beforeEach(() => localStorage.clear());
const lines = () => screen.getByRole("list", { name: "Lines of the tape" });
const say = async (line: string) => {
  const entry = screen.getByLabelText("Entry line");
  fireEvent.change(entry, { target: { value: line } });
  fireEvent.keyDown(entry, { key: "Enter" });
  await settle();
};

test("a line is on the tape at once, and stored", async () => {
  const server = new TestServer();
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await say("note hum drops with V2 out");
  expect(lines()).toHaveTextContent("hum drops with V2 out");
  expect(server.lines).toMatchObject([{ type: "note", payload: { text: "hum drops with V2 out", station: "walk" } }]);
});

test("without the server lines are kept, marked, and sent once when it is back", async () => {
  const server = new TestServer();
  server.reached = false;
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await say("note one");
  await say("note two");
  expect(within(lines()).getAllByText("storing…")).toHaveLength(2);
  expect(server.lines).toHaveLength(0);
  server.reached = true;
  await waitFor(() => expect(server.lines.map((l) => (l.payload as { text: string }).text)).toEqual(["one", "two"]), { timeout: 5000 });
  await waitFor(() => expect(screen.queryByText("storing…")).not.toBeInTheDocument());
  expect(localStorage).toHaveLength(0);
});

test("a line that the server refuses is shown with its reason and can be dismissed", async () => {
  const server = new TestServer();
  server.refuse = () => "Line 4 was already replaced by line 5";
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await say("note late");
  const alert = screen.getByRole("alert");
  expect(alert).toHaveTextContent("Line 4 was already replaced by line 5");
  expect(alert).toHaveTextContent("late");
  await userEvent.click(within(alert).getByRole("button"));
  expect(screen.queryByRole("alert")).not.toBeInTheDocument();
});

test("undoing a line strikes it with its reason; nothing leaves the tape", async () => {
  const server = new TestServer([reading("B1", 31.8), reading("B2", 254)]);
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await userEvent.click(screen.getByRole("button", { name: "Undo line 1" }));
  await userEvent.type(await screen.findByLabelText("Reason for undoing line 1"), "misread the range{Enter}");
  await settle();
  expect(server.lines.at(-1)).toMatchObject({ type: "undo", supersedes: 1, reason: "misread the range" });
  expect(within(lines()).getByText(/31\.8/)).toHaveClass("line-through");
  expect(server.state.readings.map((r) => r.point)).toEqual(["B2"]);
});

test("a line that is not understood stays in the field, with what is accepted", async () => {
  const server = new TestServer();
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await say("B9 3");
  expect(screen.getByLabelText("Entry line")).toHaveValue("B9 3");
  expect(screen.getByText(/"B9" is not/)).toHaveClass("text-error");
  expect(server.lines).toHaveLength(0);
});

test("two tabs and an outage: each keeps its own lines, and all are stored once", async () => {
  const server = new TestServer();
  server.reached = false;
  const [one, two] = [render(inJob(<TapeColumn station="walk" />, { server })), render(inJob(<TapeColumn station="walk" />, { server }))];
  await settle();
  const enter = (tab: typeof one, text: string) => {
    const entry = within(tab.container).getByLabelText("Entry line");
    fireEvent.change(entry, { target: { value: text } });
    fireEvent.keyDown(entry, { key: "Enter" });
  };
  enter(one, "note from one");
  enter(two, "note from two");
  enter(one, "note from one again");
  await settle();
  expect(localStorage).toHaveLength(3);
  // The first tab is closed before the server is back: the other delivers what it left.
  one.unmount();
  server.reached = true;
  await waitFor(() => expect(server.lines).toHaveLength(3), { timeout: 5000 });
  expect(server.lines.map((l) => (l.payload as { text: string }).text)).toEqual(["from one", "from two", "from one again"]);
  expect(localStorage).toHaveLength(0);
});

test("a browser whose storage is full keeps the line in the page and still sends it", async () => {
  const server = new TestServer();
  server.reached = false;
  const full = jest.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
    throw new DOMException("full", "QuotaExceededError");
  });
  try {
    await renderJob(<TapeColumn station="walk" />, { server });
    await say("note nowhere else");
    expect(lines()).toHaveTextContent("nowhere else");
    const leave = new Event("beforeunload", { cancelable: true });
    act(() => void window.dispatchEvent(leave));
    expect(leave.defaultPrevented).toBe(true);
    server.reached = true;
    await waitFor(() => expect(server.lines).toHaveLength(1), { timeout: 5000 });
  } finally {
    full.mockRestore();
  }
});

test("a line of another bench appears as it is told, and who else has the job open is named", async () => {
  const server = new TestServer([reading("B1", 318)]);
  await renderJob(
    <>
      <Guard />
      <TapeColumn station="walk" />
    </>,
    { server, netlist: WREN },
  );
  const [listener] = [...server.listeners];
  const other = {
    ...server.lines[0]!,
    seq: 2,
    id: "00000000-0000-4000-8000-000000000099",
    who: "P.Q.",
    payload: { ...reading("B2", 254).payload },
  };
  act(() => {
    listener!.joined(true);
    listener!.lines([other as never]);
    listener!.lines([other as never]);
    listener!.present([
      { screen: "a", who: "P.Q." },
      { screen: "b", who: "P.Q." },
    ]);
  });
  expect(within(lines()).getAllByText(/B2 254/)).toHaveLength(1);
  expect(screen.getByText("Also open on 2 other screens: P.Q.")).toBeInTheDocument();
  act(() =>
    listener!.lines([{ ...other, seq: 3, id: "00000000-0000-4000-8000-000000000098", type: "power", payload: { state: "on" } } as never]),
  );
  expect(screen.getByText(/P\.Q\. has this LIVE amp open on 2 other screens/)).toHaveAttribute("role", "alert");
  act(() => listener!.joined(false));
  expect(screen.queryByText(/P\.Q\. has this LIVE amp/)).not.toBeInTheDocument();
});

test("the warning stays while an amp that was on has not been watched: nobody knows that it is off", async () => {
  const server = new TestServer([power("on")]);
  server.lines[0]!.at = new Date(Date.now() - 3600_000).toISOString();
  await renderJob(<Guard />, { server, netlist: WREN });
  expect(screen.getByRole("status", { name: "Energy state" })).toHaveAttribute("data-energy", "unknown");
  act(() => [...server.listeners][0]!.present([{ screen: "a", who: "P.Q." }]));
  expect(screen.getByText(/P\.Q\. has this LIVE amp open on another screen/)).toBeInTheDocument();
});

test("a line that cannot be understood is shown as such, counts for nothing and can be undone", async () => {
  const server = new TestServer([reading("B1", 318)]);
  server.lines.push({
    ...server.lines[0]!,
    seq: 2,
    id: "00000000-0000-4000-8000-000000000097",
    type: "unreadable",
    payload: { type: "reading", why: "conditions: an object is wanted" },
  } as never);
  await renderJob(
    <>
      <LeftOut />
      <TapeColumn station="walk" />
    </>,
    { server, netlist: WREN },
  );
  expect(lines()).toHaveTextContent("This line (reading) cannot be understood and counts for nothing: conditions: an object is wanted");
  expect(screen.getByText(/A line of this tape cannot be understood and counts for nothing: line 2/)).toBeInTheDocument();
  expect(server.state.readings).toHaveLength(1);
  await userEvent.click(screen.getByRole("button", { name: "Undo line 2" }));
  await userEvent.type(await screen.findByLabelText("Reason for undoing line 2"), "logged anew{Enter}");
  await settle();
  expect(screen.queryByText(/A line of this tape cannot/)).not.toBeInTheDocument();
});
