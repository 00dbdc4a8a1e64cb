/** @jest-environment jsdom */
import "@testing-library/jest-dom";
import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { AppRouterContext } from "next/dist/shared/lib/app-router-context.shared-runtime";
import type { ReactElement } from "react";
import { People } from "./people";
import { Tokens } from "./tokens";

let asked: [method: string, path: string, body: unknown][];
let refuse: string | undefined;
let refreshed: number;
beforeEach(() => {
  [asked, refuse, refreshed] = [[], undefined, 0];
  globalThis.fetch = (async (path: string, init: RequestInit) => {
    asked.push([init.method!, path, init.body ? (JSON.parse(init.body as string) as unknown) : undefined]);
    return { ok: !refuse, status: refuse ? 409 : 200, json: async () => (refuse ? { error: refuse } : { token: "scutum-once-only" }) };
  }) as unknown as typeof fetch;
});
const draw = (page: ReactElement) =>
  render(<AppRouterContext.Provider value={{ refresh: () => refreshed++ } as never}>{page}</AppRouterContext.Provider>);
const jm = { id: 1, initials: "J.M.", name: "Jonas Mell", role: "owner" as const, active: true };
const ak = { id: 2, initials: "A.K.", name: "Ada Kell", role: "apprentice" as const, active: true };

test("a role is changed, a passphrase given anew, somebody leaves; a refusal is told", async () => {
  draw(<People people={[jm, ak]} />);
  await userEvent.selectOptions(screen.getByLabelText("Role of A.K."), "technician");
  const row = screen.getByText("Ada Kell").closest("li")!;
  await userEvent.click(within(row).getByRole("button", { name: "New passphrase" }));
  await userEvent.type(screen.getByLabelText("New passphrase of A.K."), "coffee in the field{Enter}");
  expect(asked).toEqual([
    ["PUT", "/api/v1/people/2", { role: "technician" }],
    ["PUT", "/api/v1/people/2", { passphrase: "coffee in the field" }],
  ]);
  expect(refreshed).toBe(2);
  refuse = "Nobody would be left who may change the shop: make somebody else its owner first.";
  await userEvent.click(within(screen.getByText("Jonas Mell").closest("li")!).getByRole("button", { name: "Has left" }));
  expect(await screen.findByRole("alert")).toHaveTextContent(refuse);
  expect(refreshed).toBe(2);
});

test("initials that somebody has keep what was typed", async () => {
  refuse = "Somebody has the initials A.K. already.";
  draw(<People people={[jm, ak]} />);
  await userEvent.type(screen.getByLabelText("Initials"), "A.K.");
  await userEvent.type(screen.getByLabelText("Name"), "Arn Kost");
  await userEvent.type(screen.getByLabelText(/^Passphrase/), "a long enough phrase");
  await userEvent.click(screen.getByRole("button", { name: "Add this person" }));
  expect(await screen.findByText(refuse)).toBeVisible();
  expect(screen.getByLabelText("Name")).toHaveValue("Arn Kost");
});

test("a token is shown once, and revoked by its button", async () => {
  draw(<Tokens tokens={[{ id: 4, bench: "bench by the window", madeAt: "2026-03-01T09:00:00.000Z", madeBy: "J.M." }]} />);
  await userEvent.type(screen.getByLabelText("Bench"), "left bench{Enter}");
  expect(await screen.findByText("scutum-once-only")).toBeVisible();
  await userEvent.click(screen.getByRole("button", { name: "Revoke" }));
  expect(asked).toEqual([
    ["POST", "/api/v1/tokens", { bench: "left bench" }],
    ["DELETE", "/api/v1/tokens/4", undefined],
  ]);
});
