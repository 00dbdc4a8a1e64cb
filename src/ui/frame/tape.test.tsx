/** @jest-environment jsdom */
import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { inJob, power, reading, renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { render } from "@testing-library/react";
import { Guard } from "./guard";
import { LeftOut } from "./left-out";
import type { EventDraft } from "@/core/tape/events/event";
import { useJob } from "../job/job-context";
import { TapeColumn } from "./tape";
import { throughLine, type Tape } from "../job/use-tape";

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
  expect(within(lines()).getByText(/^B1 31\.8/)).toHaveClass("line-through");
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

const other = (seq: number, text: string) => ({
  seq,
  id: `00000000-0000-4000-8000-0000000001${String(seq).padStart(2, "0")}`,
  at: new Date().toISOString(),
  who: "P.Q.",
  type: "note",
  payload: { text },
});

test("a line of ours that is stored behind lines of others does not hide them", async () => {
  const server = new TestServer([reading("B1", 318)]);
  const asked: number[] = [];
  const { since } = server.port;
  server.port.since = (seq) => {
    asked.push(seq);
    return since(seq);
  };
  server.reached = false;
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  await say("note ours");
  // Meanwhile another bench has logged two lines; ours comes after them.
  server.lines.push(other(2, "theirs one") as never, other(3, "theirs two") as never);
  server.reached = true;
  await waitFor(() => expect(lines()).toHaveTextContent("theirs two"), { timeout: 8000 });
  await waitFor(() => expect(screen.queryByText("storing…")).not.toBeInTheDocument(), { timeout: 5000 });
  expect(asked.every((seq) => seq <= 4)).toBe(true);
  expect(lines()).toHaveTextContent(/theirs one.*theirs two.*ours/s);
  // What is kept for the time without the server is all of it.
  await waitFor(() => expect(server.kept.map((l) => l.seq)).toEqual([1, 2, 3, 4]));
});

test("throughLine is the last line before which none is missing", () => {
  const at = (...seqs: number[]) => throughLine(seqs.map((seq) => other(seq, "") as never));
  expect([at(), at(1), at(1, 2, 3), at(1, 2, 5), at(2, 3)]).toEqual([0, 1, 3, 2, 0]);
});

test("lines that another person has left unsent wait until that person signs in", async () => {
  const server = new TestServer();
  const line = {
    id: "00000000-0000-4000-8000-000000000196",
    at: new Date().toISOString(),
    who: "P.Q.",
    type: "note",
    payload: { text: "x" },
  };
  localStorage.setItem("scutum-unsent:7:1-0:00000000-0000-4000-8000-000000000196", JSON.stringify(line));
  await renderJob(<Guard />, { server, role: "technician" });
  expect(screen.getByText(/Lines of P\.Q\. are kept in this browser: they are sent when P\.Q\. signs in here/)).toBeInTheDocument();
  expect(server.lines).toHaveLength(0);
  expect(localStorage).toHaveLength(1);
});

test("another circuit for this job is said, with the way to load it", async () => {
  const server = new TestServer();
  await renderJob(<Guard />, { server, netlist: WREN });
  const [listener] = [...server.listeners];
  act(() => listener!.circuit(null));
  expect(screen.queryByText(/was given another circuit/)).not.toBeInTheDocument();
  act(() => listener!.circuit(5));
  expect(screen.getByText(/was given another circuit/)).toHaveAttribute("role", "alert");
  expect(screen.getByRole("button", { name: "Load it" })).toBeInTheDocument();
});

describe("proven dead while the server is not reached", () => {
  const proof = (): EventDraft[] => {
    const meter: EventDraft = { type: "meter-check", payload: { source: "9 V battery", expected: 9, read: 9 } };
    const read = ["C1", "C2", "C3"].map((reservoir): EventDraft => ({ type: "discharge-reading", payload: { reservoir, volts: 0.2 } }));
    return [power("off"), meter, ...read, ...read, meter];
  };
  const provenServer = () => {
    const server = new TestServer(proof(), Date.now() - 1000_000);
    server.lines.forEach((l, i) => (l.at = new Date(Date.now() - 1000_000 + i * 30_000).toISOString()));
    return server;
  };
  const energy = () => screen.getByRole("status", { name: "Energy state" }).dataset.energy;

  test("what others measured counts no longer, until it is reached again", async () => {
    const server = provenServer();
    await renderJob(<Guard />, { server, netlist: WREN });
    expect(energy()).toBe("proven-dead");
    server.reached = false;
    act(() => void window.dispatchEvent(new Event("offline")));
    await waitFor(() => expect(energy()).toBe("unknown"));
    expect(screen.getByRole("status", { name: "Energy state" })).toHaveTextContent("others may have switched it on since");
    server.reached = true;
    act(() => void window.dispatchEvent(new Event("online")));
    await waitFor(() => expect(energy()).toBe("proven-dead"));
  });

  test("a server that cannot store, but tells what others log, takes nothing away", async () => {
    const server = provenServer();
    server.port.append = async () => {
      throw new Error("The disk is full.");
    };
    await renderJob(
      <>
        <Guard />
        <TapeColumn station="walk" />
      </>,
      { server, netlist: WREN },
    );
    await say("note not stored");
    await waitFor(() => expect(screen.getByText(/The disk is full\./)).toBeInTheDocument());
    act(() => void window.dispatchEvent(new Event("online")));
    await settle();
    expect(screen.getByText(/The disk is full\./)).toBeInTheDocument();
    expect(energy()).toBe("proven-dead");
  });

  test("a page that is drawn from what the browser keeps does not show it either", async () => {
    const server = provenServer();
    server.reached = false;
    await renderJob(<Guard />, { server, netlist: WREN, keptAt: new Date().toISOString() });
    expect(energy()).toBe("unknown");
    expect(screen.getByText(/This is the job as it was here on/)).toBeInTheDocument();
  });

  test("who has measured at this page knows", async () => {
    const server = new TestServer([power("off")], Date.now() - 1000_000);
    server.reached = false;
    let tape: Tape;
    const Say = () => ((tape = useJob().tape), null);
    jest.useFakeTimers({ advanceTimers: true });
    try {
      render(
        inJob(
          <>
            <Guard />
            <Say />
          </>,
          { server, netlist: WREN, keptAt: new Date().toISOString() },
        ),
      );
      for (const draft of proof().slice(1)) {
        act(() => tape!.say(draft));
        act(() => jest.advanceTimersByTime(65_000));
      }
      await waitFor(() => expect(energy()).toBe("proven-dead"));
      expect(screen.getByText(/8 lines are kept in this browser/)).toBeInTheDocument();
    } finally {
      jest.useRealTimers();
    }
  });
});

test("a line about power that comes too late is marked on the tape", async () => {
  const server = new TestServer([power("on"), power("off")]);
  server.lines[1]!.at = new Date(Date.parse(server.lines[0]!.at) - 60_000).toISOString();
  await renderJob(<TapeColumn station="walk" />, { server, netlist: WREN });
  expect(screen.getByText(/Made before the amp was last switched on and stored after it: counts for nothing/)).toBeInTheDocument();
});
