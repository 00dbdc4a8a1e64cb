/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { Board, type Found } from "./board";
import { chargeWords, type BoardCard } from "./board-card";

const mockRouter = { push: jest.fn() };
jest.mock("next/navigation", () => ({ useRouter: () => mockRouter }));
beforeEach(() => mockRouter.push.mockClear());

const NOW = Date.parse("2026-03-10T09:00:00Z");
const card = (id: number, more: Partial<BoardCard> = {}): BoardCard => ({
  id,
  owner: `Owner ${id}`,
  amp: `Amp ${id}`,
  serial: "",
  complaint: "",
  waitingOn: "you",
  waitingWhat: "",
  waitingUntil: "",
  waitingSince: "2026-03-01T09:00:00Z",
  nextStep: `Step ${id}`,
  nextStation: "walk",
  dueDate: "",
  openFindings: 0,
  readings: 0,
  openedAt: "2026-03-01T09:00:00Z",
  technician: "J.M.",
  lastAt: "2026-03-09T09:00:00Z",
  energy: "proven-dead",
  ...more,
});
const none = async () => ({ jobs: [], elsewhere: [] });
const show = (cards: BoardCard[], search: (text: string) => Promise<Found> = none, done = 0) =>
  render(<Board cards={cards} done={done} now={NOW} today={new Date(NOW).toISOString().slice(0, 10)} search={search} />);
const rows = () => within(screen.getByRole("table")).getAllByRole("row").slice(1);

test("each job with its next step as a way there, and how long it has waited for whom", () => {
  show([card(7, { waitingOn: "part", waitingWhat: "EL84 pair", dueDate: "2026-03-08" })]);
  const [row] = rows();
  expect(within(row!).getByRole("link", { name: "Step 7" })).toHaveAttribute("href", "/jobs/7/walk");
  expect(row).toHaveTextContent("2 days late");
  expect(row).toHaveTextContent("a part");
  expect(row).toHaveTextContent("9 days");
});

test("the buttons count what waits for whom, and show only that", async () => {
  show([card(1), card(2, { waitingOn: "owner" }), card(3)]);
  expect(screen.getByRole("button", { name: /^To do 2/ })).toBeVisible();
  await userEvent.click(screen.getByRole("button", { name: /^Owner's approval 1/ }));
  expect(rows()).toHaveLength(1);
  expect(rows()[0]).toHaveTextContent("Amp 2");
  await userEvent.click(screen.getByRole("button", { name: /^Soak test 0/ }));
  expect(screen.getByText("No open job waits for that.")).toBeVisible();
});

test("a heading sorts by its column, and back", async () => {
  show([card(1, { dueDate: "2026-03-20" }), card(2, { dueDate: "2026-03-11" }), card(3)]);
  const order = () => rows().map((r) => /Amp (\d)/.exec(r.textContent!)![1]);
  expect(order()).toEqual(["1", "2", "3"]);
  await userEvent.click(screen.getByRole("button", { name: /Promised/ }));
  expect(order()).toEqual(["2", "1", "3"]);
});

test("an empty shop says how to begin, one whose jobs are all returned does not", () => {
  const { unmount } = show([]);
  expect(screen.getByRole("link", { name: /guide/i })).toBeVisible();
  unmount();
  show([], none, 3);
  expect(screen.queryByRole("link", { name: /guide/i })).toBeNull();
  expect(screen.getByText(/3 returned jobs are not listed/)).toBeVisible();
});

test("a search that finds nothing says so; one that fails says why; clearing it brings the board back", async () => {
  const search = jest.fn(async (text: string): Promise<Found> => {
    if (text.includes("broken")) throw new Error("the server did not answer");
    if (!text.includes("5")) return { jobs: [], elsewhere: [] };
    return { jobs: [card(5, { found: "fit C6 22n" })], elsewhere: [{ kind: "part in stock", says: "number 5, 22 nF 630 V film" }] };
  });
  show([card(1)], search);
  const field = screen.getByRole("searchbox");
  await userEvent.type(field, "nobody");
  await waitFor(() => expect(screen.getByRole("status")).toHaveTextContent("No job contains “nobody”"));
  await userEvent.clear(field);
  await userEvent.type(field, "c5");
  await waitFor(() => expect(rows()[0]).toHaveTextContent("found: fit C6 22n"));
  expect(screen.getByRole("region", { name: "Found in the shop" })).toHaveTextContent("part in stock: number 5, 22 nF 630 V film");
  await userEvent.type(field, " broken");
  await waitFor(() => expect(screen.getByRole("alert")).toHaveTextContent("the server did not answer"));
  await userEvent.clear(field);
  await waitFor(() => expect(rows()[0]).toHaveTextContent("Amp 1"));
});

test("a slow answer to an older search does not replace the newer one", async () => {
  const open: ((found: Found) => void)[] = [];
  const search = () => new Promise<Found>((give) => open.push(give));
  show([card(1)], search);
  const field = screen.getByRole("searchbox");
  await userEvent.type(field, "a");
  await waitFor(() => expect(open).toHaveLength(1));
  await userEvent.type(field, "b");
  await waitFor(() => expect(open).toHaveLength(2));
  open[1]!({ jobs: [card(2)], elsewhere: [] });
  await waitFor(() => expect(rows()[0]).toHaveTextContent("Amp 2"));
  open[0]!({ jobs: [card(9)], elsewhere: [] });
  await waitFor(() => expect(rows()[0]).toHaveTextContent("Amp 2"));
});

test("a charge that is gone by estimate says what is missing for the proof, not a voltage of nothing", () => {
  const volts = (v: number) => `${v.toFixed(0)} V`;
  const missing = "prove the meter";
  expect(chargeWords({ kind: "stored", since: "", volts: 0.2, missing }, volts)).toBe(
    "discharged by estimate, but not proven. Still to do: prove the meter",
  );
  expect(chargeWords({ kind: "stored", since: "", volts: 310, missing }, volts)).toContain("about 310 V by estimate");
  expect(chargeWords({ kind: "live", since: "" }, volts)).toContain("not logged off");
});

test("Enter opens the one job that is found, also where the answer comes after the key; of several it opens none", async () => {
  const search = async (text: string): Promise<Found> => ({ jobs: text === "venn" ? [card(12)] : [card(1), card(2)], elsewhere: [] });
  show([card(1)], search);
  const field = screen.getByRole("searchbox");
  await userEvent.type(field, "venn{Enter}");
  await waitFor(() => expect(mockRouter.push).toHaveBeenCalledWith("/jobs/12"));
  await userEvent.clear(field);
  await userEvent.type(field, "amp{Enter}");
  expect(await screen.findByText("2 jobs found")).toBeVisible();
  expect(mockRouter.push).toHaveBeenCalledTimes(1);
});
