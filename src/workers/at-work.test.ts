/** @jest-environment jsdom */
import { workBegins } from "./at-work";

const computing = () => document.documentElement.hasAttribute("data-computing");

test("the page says so from the first work that begins to the last that ends, each of which ends once", () => {
  const [first, second] = [workBegins(), workBegins()];
  expect(computing()).toBe(true);
  first();
  first();
  expect(computing()).toBe(true);
  second();
  expect(computing()).toBe(false);
});
