/** @jest-environment jsdom */
import { act, fireEvent, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { CapacitorPort } from "@/core/ports/capacitor-port";
import { useJob } from "../job/job-context";
import { Refused, useTypedForm } from "../forms/typed-form";
import { renderJob, settle, TestServer, WREN } from "../job-for-tests";
import { EntryLine } from "./entry-line";
import { NotLogged } from "./not-logged";

beforeEach(() => localStorage.clear());

/** C2 of the Wren: 240 V at work, 340 V with the mains up and the tubes cold, as its chart and its winding have it. */
const STRESS = { part: "C2", loaded: 240, unloaded: 310, highLoaded: 264, highUnloaded: 340, worst: 340, ripple: 0.01, backwards: false };
const field = () => screen.getByLabelText("Entry line");
const enter = async (text: string) => {
  await userEvent.type(field(), `${text}{Enter}`);
  await settle();
};
const fits = (server: TestServer) => server.lines.filter((l) => l.type === "change").map((l) => l.payload);
const bench = (stresses: CapacitorPort["stresses"]) => {
  const server = new TestServer();
  return renderJob(<EntryLine station="work" />, { server, netlist: WREN, capacitors: { stresses } }).then(() => server);
};

describe("a part that is fitted at the entry line is checked in its place", () => {
  test("good enough: the tape says what was checked", async () => {
    const server = await bench(async () => [STRESS]);
    await enter("fit C2 33u 450V electrolytic");
    expect(fits(server)).toMatchObject([
      { position: "C2", checks: expect.arrayContaining([expect.stringMatching(/^checked: .*volts/)]) as string[] },
    ]);
    expect(field()).toHaveValue("");
  });
  test("200 V where 340 V can stand: refused without a reason, logged with one", async () => {
    const server = await bench(async () => [STRESS]);
    await enter("fit C2 33u 200V electrolytic");
    expect(fits(server)).toEqual([]);
    expect(screen.getByText(/It may not stand there: .*volts/)).toBeVisible();
    expect(field()).toHaveValue("fit C2 33u 200V electrolytic");
    await enter(", nothing else at hand until Monday");
    expect(fits(server)).toMatchObject([
      {
        reason: "nothing else at hand until Monday",
        checks: expect.arrayContaining([expect.stringContaining("volts: 200 V")]) as string[],
      },
    ]);
  });
  test("Enter before the check is there: logged once it is, with what it says", async () => {
    let solved: (answer: (typeof STRESS)[]) => void = () => {};
    const server = await bench(() => new Promise((resolve) => (solved = resolve)));
    await enter("fit C2 33u 450V electrolytic");
    expect(fits(server)).toEqual([]);
    expect(screen.getByText(/checking it in its place/)).toBeVisible();
    await act(async () => solved([STRESS]));
    await settle();
    expect(fits(server)).toMatchObject([{ checks: expect.arrayContaining([expect.stringMatching(/^checked: /)]) as string[] }]);
  });
  test("without its kind it is logged, and the tape says that it was not checked", async () => {
    const server = await bench(async () => [STRESS]);
    await enter("fit C2 33u 450V");
    expect(fits(server)).toMatchObject([{ checks: [expect.stringContaining("not checked in its place")] }]);
  });
});

describe("what may not be logged now", () => {
  const RETURNED = { type: "returned", payload: { to: "the owner", oldPartsHanded: true } } as const;
  function PowerButton() {
    const { say } = useJob();
    return <button onClick={() => say({ type: "power", payload: { state: "on", through: "variable" } })}>on</button>;
  }
  function FitForm() {
    const { say } = useJob();
    const { field, onSubmit, refused } = useTypedForm({ part: "" }, ({ part }) =>
      say({ type: "change", payload: { position: part, kind: "replacement", newPart: "new", reversible: true } }),
    );
    return (
      <form onSubmit={onSubmit}>
        <input aria-label="part" {...field("part")} />
        <Refused>{refused}</Refused>
      </form>
    );
  }
  test("by a button: the top of the screen says why, until something else is logged", async () => {
    const server = new TestServer([RETURNED]);
    await renderJob(
      <>
        <NotLogged />
        <PowerButton />
        <EntryLine station="work" />
      </>,
      { server, netlist: WREN },
    );
    fireEvent.click(screen.getByText("on"));
    expect(screen.getByRole("alert")).toHaveTextContent(/Not logged.*line 1/);
    expect(server.lines).toHaveLength(1);
    await enter("note the owner rang");
    expect(screen.queryByRole("alert")).toBeNull();
  });
  test("in a form: it says why in its place, and what was typed stays", async () => {
    const server = new TestServer([RETURNED]);
    await renderJob(
      <>
        <NotLogged />
        <FitForm />
      </>,
      { server, netlist: WREN },
    );
    await userEvent.type(screen.getByLabelText("part"), "C2{Enter}");
    await settle();
    expect(screen.getAllByRole("alert")).toHaveLength(1);
    expect(screen.getByRole("alert")).toHaveTextContent(/line 1/);
    expect(screen.getByLabelText("part")).toHaveValue("C2");
    expect(server.lines).toHaveLength(1);
  });
});
