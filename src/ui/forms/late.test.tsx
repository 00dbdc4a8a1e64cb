/** @jest-environment jsdom */
import { act, render, screen } from "@testing-library/react";
import { Component, type ReactNode } from "react";
import { late, lateInBrowser, useLateParts } from "./late";

beforeEach(() => {
  jest.useFakeTimers();
  jest.spyOn(console, "warn").mockImplementation(() => {});
});
afterEach(() => jest.useRealTimers());

const notThere = () => Object.assign(new Error("Failed to load chunk part.js"), { name: "ChunkLoadError" });
const later = (milliseconds: number) => act(() => jest.advanceTimersByTimeAsync(milliseconds));

test("a part whose file does not come says that it waits, is asked for again, and appears when it is there", async () => {
  let reached = false;
  let asked = 0;
  const Part = late(async () => {
    asked++;
    if (!reached) throw notThere();
    return () => <p>The part</p>;
  });
  render(<Part />);
  await later(100);
  expect(screen.getByRole("status").textContent).toBe("");
  await later(900);
  expect(screen.getByRole("status").textContent).toMatch(/^Loading… If the server is not reached/);
  reached = true;
  await later(2500);
  expect(screen.getByText("The part")).toBeTruthy();
  expect(screen.queryByRole("status")).toBeNull();
  expect(asked).toBe(2);
  expect(console.warn).toHaveBeenCalledTimes(1);
});

test("what a page loads late is fetched before it is opened, once", async () => {
  let asked = 0;
  const Part = lateInBrowser(async () => {
    asked++;
    return () => <p>The part</p>;
  });
  function Page({ open }: { open: boolean }) {
    useLateParts();
    return open ? <Part /> : null;
  }
  const { rerender } = render(<Page open={false} />);
  await later(3000);
  expect(asked).toBe(1);
  rerender(<Page open />);
  await later(10);
  expect(screen.getByText("The part")).toBeTruthy();
  expect(asked).toBe(1);
});

test("a fault of the program is not taken for a file that did not come", async () => {
  jest.useRealTimers();
  jest.spyOn(console, "error").mockImplementation(() => {});
  let asked = 0;
  const Part = late(async (): Promise<() => null> => {
    asked++;
    throw new TypeError("cannot read properties of undefined");
  });
  render(
    <Boundary>
      <Part />
    </Boundary>,
  );
  expect(await screen.findByText("cannot read properties of undefined")).toBeTruthy();
  expect(asked).toBe(1);
});

class Boundary extends Component<{ children: ReactNode }> {
  override state: { failed?: Error } = {};
  static getDerivedStateFromError(failed: Error) {
    return { failed };
  }
  override render() {
    return this.state.failed ? <p>{this.state.failed.message}</p> : this.props.children;
  }
}
