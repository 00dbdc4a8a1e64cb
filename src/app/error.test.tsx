/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import Failed from "./error";

test("a page that failed says why and is drawn again by its button", async () => {
  let drawn = 0;
  render(<Failed error={new Error("the data folder is locked by process 12")} reset={() => drawn++} />);
  expect(screen.getByText(/the data folder is locked by process 12/)).toBeVisible();
  await userEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(drawn).toBe(1);
});

test("a part that did not come is not blamed on the data folder, and needs the whole page again", () => {
  render(<Failed error={Object.assign(new Error("Failed to load chunk 1.js"), { name: "ChunkLoadError" })} reset={() => {}} />);
  expect(screen.getByText(/The server is not reached, or it was updated/)).toBeVisible();
  expect(screen.getByRole("button", { name: "Load the page again" })).toBeVisible();
  expect(screen.queryByText(/chunk/)).toBeNull();
});
