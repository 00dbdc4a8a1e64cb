/** @jest-environment jsdom */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { power, renderJob, settle, TestServer } from "../../job-for-tests";
import { NameReservoir } from "./reservoirs";

beforeEach(() => localStorage.clear());
const field = (label: string) => screen.getByLabelText(label);

async function station(settings = {}) {
  const server = new TestServer([power("off")]);
  await renderJob(<NameReservoir />, { server, settings });
  return () => server.lines.slice(1).map((l) => ({ type: l.type, ...(l.payload as object) }) as Record<string, unknown>);
}

test("a job without a circuit gets its reservoirs by name, size and rating", async () => {
  const logged = await station();
  await userEvent.type(field("Name"), "big can");
  await userEvent.type(field("Size"), "32u");
  await userEvent.type(field("Rated, V"), "450{Enter}");
  await settle();
  expect(logged()).toEqual([{ type: "reservoir", name: "big can", farads: expect.closeTo(32e-6, 12), volts: 450 }]);
});

test.each([
  ["", "32u", "450", /Give it a name/],
  ["C1", "big", "450", /^Size: .*accepted: 32u/],
  ["C1", "32", "450", /32 µF or 32 pF\?/],
  ["C1", "2F", "450", /read 2.*accepted: 0.1 pF to 1 F/],
  ["C1", "32u", "9000", /1 to 3000 V/],
])("%p %p %p is refused by the field that is wrong, and kept", async (name, size, volts, why) => {
  const logged = await station();
  if (name) await userEvent.type(field("Name"), name);
  await userEvent.type(field("Size"), size);
  await userEvent.type(field("Rated, V"), `${volts}{Enter}`);
  expect(screen.getByRole("alert")).toHaveTextContent(why);
  expect(field("Size")).toHaveValue(size);
  expect(logged()).toEqual([]);
});

test("in a shop that writes 0,5 a size is read so", async () => {
  const logged = await station({ decimal: "," });
  await userEvent.type(field("Name"), "C1");
  await userEvent.type(field("Size"), "0,5u");
  await userEvent.type(field("Rated, V"), "630{Enter}");
  await settle();
  expect(logged()[0]).toMatchObject({ farads: expect.closeTo(0.5e-6, 12) });
});
