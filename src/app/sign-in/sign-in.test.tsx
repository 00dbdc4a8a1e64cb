/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { SignedIn } from "../signed-in";
import { FirstOwner } from "./first-owner";
import { SignIn } from "./sign-in";

/** What was asked of the server, and what it answers. */
let asked: { method: string; path: string; body?: unknown }[];
let answer: { status: number; body: object } | "away";
beforeEach(() => {
  asked = [];
  answer = { status: 401, body: { error: "Initials and passphrase do not belong together." } };
  globalThis.fetch = (async (path: string, init: RequestInit) => {
    if (answer === "away") throw new TypeError("Failed to fetch");
    asked.push({ method: init.method!, path, ...(init.body ? { body: JSON.parse(init.body as string) as unknown } : {}) });
    const { status, body } = answer;
    return { ok: status < 400, status, json: async () => body };
  }) as unknown as typeof fetch;
});

test("a wrong passphrase is told, and what was typed stays for correction", async () => {
  render(<SignIn to="/jobs/1004/walk" />);
  await userEvent.type(screen.getByLabelText("Initials"), " J.M. ");
  await userEvent.type(screen.getByLabelText("Passphrase"), "a guess of mine");
  await userEvent.click(screen.getByRole("button", { name: "Sign in" }));
  expect(asked).toEqual([{ method: "POST", path: "/api/v1/session", body: { initials: "J.M.", passphrase: "a guess of mine" } }]);
  expect(await screen.findByRole("alert")).toHaveTextContent("do not belong together");
  expect(screen.getByLabelText("Passphrase")).toHaveValue("a guess of mine");
  expect(screen.getByRole("button", { name: "Sign in" })).toBeEnabled();
  answer = "away";
  await userEvent.click(screen.getByRole("button", { name: "Sign in" }));
  expect(await screen.findByText(/The server is not reached/)).toBeVisible();
});

test("two passphrases that differ are not sent", async () => {
  render(<FirstOwner code="kettle-drum" to="/" />);
  await userEvent.type(screen.getByLabelText("Initials"), "J.M.");
  await userEvent.type(screen.getByLabelText("Name"), "Jonas Mell");
  await userEvent.type(screen.getByLabelText(/^Passphrase/), "the lathe hums at night");
  await userEvent.type(screen.getByLabelText("The same again"), "the lathe hums at noon");
  await userEvent.click(screen.getByRole("button", { name: "Store and sign in" }));
  expect(await screen.findByRole("alert")).toHaveTextContent("The two passphrases are not the same.");
  expect(asked).toEqual([]);
  expect(screen.getByLabelText("Code from the terminal")).toHaveValue("kettle-drum");
});

test("somebody whose signing out did not get through is told that they are still signed in", async () => {
  answer = "away";
  render(<SignedIn person={{ id: 1, initials: "J.M.", name: "Jonas Mell", role: "owner" }} />);
  await userEvent.click(screen.getByText("J.M."));
  await userEvent.click(screen.getByRole("button", { name: "Sign out on every device" }));
  expect(await screen.findByRole("alert")).toHaveTextContent(/Not signed out\. The server is not reached/);
});
