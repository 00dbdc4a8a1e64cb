/** @jest-environment jsdom */
import { fireEvent, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { EventDraft } from "@/core/tape/events/event";
import { renderJob, TestServer, WREN } from "../job-for-tests";
import { PointPhoto } from "./point-photo";

const HASHES = ["a", "b"].map((letter) => letter.repeat(64));
const photo = (hash: string, caption: string): EventDraft => ({ type: "photo", payload: { hash, caption, station: "look" } });
const server = () => new TestServer([photo(HASHES[0]!, "front"), photo(HASHES[1]!, "underside")]);
const show = (s: TestServer) =>
  renderJob(<PointPhoto point={{ name: "V2.k" }} place="V2 pin 3" marking />, { server: s, netlist: WREN, modelId: 4 });

test("a point is marked by a click on the newest photo, and shown with its ring; the mark is taken away again", async () => {
  const s = server();
  await show(s);
  expect(screen.queryByRole("img", { name: /V2 pin 3/ })).not.toBeInTheDocument();
  await userEvent.click(screen.getByRole("button", { name: "Mark it on a photo…" }));
  expect(await screen.findByRole("dialog", { name: "Where is V2 pin 3 on the photo?" })).toBeInTheDocument();
  expect(screen.getByRole("button", { name: "Keep it" })).toBeDisabled();
  const picture = screen.getByRole("button", { name: "The photo, not marked yet" });
  picture.getBoundingClientRect = () => ({ left: 100, top: 50, width: 400, height: 200 }) as DOMRect;
  fireEvent.click(picture, { clientX: 200, clientY: 200, detail: 1 });
  await userEvent.click(screen.getByRole("button", { name: "Keep it" }));
  expect(s.places).toEqual([{ point: "V2.k", hash: HASHES[1], x: 0.25, y: 0.75 }]);
  const cut = await screen.findByRole("img", { name: "V2 pin 3 on a photo of the chassis" });
  expect(cut).toHaveAttribute("src", `/api/v1/photos/${HASHES[1]}`);
  // The place lies in the middle of the cut.
  expect(cut).toHaveStyle({ transform: "translate(-25%, -75%)" });

  await userEvent.click(screen.getByRole("button", { name: "Mark it elsewhere…" }));
  await userEvent.click(await screen.findByRole("button", { name: "Remove the mark" }));
  await waitFor(() => expect(screen.queryByRole("img", { name: /V2 pin 3/ })).not.toBeInTheDocument());
  expect(s.places).toEqual([]);
});

test("by keys alone: arrows move the mark, Shift farther, Enter keeps it; it stays on the photo", async () => {
  const s = server();
  await show(s);
  await userEvent.click(screen.getByRole("button", { name: "Mark it on a photo…" }));
  await userEvent.click(await screen.findByRole("button", { name: "front" }));
  const picture = screen.getByRole("button", { name: "The photo, not marked yet" });
  picture.focus();
  for (let i = 0; i < 30; i++) fireEvent.keyDown(picture, { key: "ArrowLeft", shiftKey: true });
  fireEvent.keyDown(picture, { key: "ArrowDown" });
  fireEvent.keyDown(picture, { key: "Enter" });
  await waitFor(() => expect(s.places).toEqual([{ point: "V2.k", hash: HASHES[0], x: 0, y: 0.505 }]));
});

test("a job without a photo says what to do; what the server refuses is said and the dialog stays", async () => {
  const s = new TestServer();
  await show(s);
  await userEvent.click(screen.getByRole("button", { name: "Mark it on a photo…" }));
  expect(await screen.findByText(/This job has no photo yet\. Take one of the open chassis at Look/)).toBeInTheDocument();
});

test("a refused mark is said, and nothing is lost", async () => {
  const s = server();
  s.port.mark = async () => Promise.reject(new Error("There is no photo here"));
  await show(s);
  await userEvent.click(screen.getByRole("button", { name: "Mark it on a photo…" }));
  const picture = await screen.findByRole("button", { name: "The photo, not marked yet" });
  fireEvent.keyDown(picture, { key: "ArrowUp" });
  await userEvent.click(screen.getByRole("button", { name: "Keep it" }));
  expect(await screen.findByText("There is no photo here")).toBeInTheDocument();
  expect(screen.getByRole("button", { name: /The photo, marked at 50 % across/ })).toBeInTheDocument();
});
