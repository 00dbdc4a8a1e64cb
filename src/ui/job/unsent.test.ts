import fc from "fast-check";
import "@/fixed-draws-for-tests";
import type { Outgoing } from "./job-port";
import { UnsentLines, type LineStorage } from "./unsent";

/** A browser's storage with room for so many entries. */
function storage(room = Infinity): LineStorage & { map: Map<string, string> } {
  const map = new Map<string, string>();
  return {
    map,
    getItem: (k) => map.get(k) ?? null,
    setItem: (k, v) => {
      if (!map.has(k) && map.size >= room) throw new Error("QuotaExceededError");
      map.set(k, v);
    },
    removeItem: (k) => void map.delete(k),
    key: (i) => [...map.keys()][i] ?? null,
    get length() {
      return map.size;
    },
  };
}
const line = (id: string) => ({ id, at: "2026-03-02T09:00:00Z", who: "J.M.", type: "note", payload: { text: id } }) as Outgoing;
const ids = (lines: Outgoing[]) => lines.map((l) => l.id);

test("kept in order, gone when removed, of this job alone", () => {
  const browser = storage();
  const [here, other] = [new UnsentLines(1, browser), new UnsentLines(11, browser)];
  for (const id of ["c", "a", "b"]) here.add(line(id));
  other.add(line("x"));
  expect(ids(here.all())).toEqual(["c", "a", "b"]);
  here.remove("a");
  expect(ids(here.all())).toEqual(["c", "b"]);
  expect(ids(other.all())).toEqual(["x"]);
});

test("a page that is opened anew finds what the last one left", () => {
  const browser = storage();
  new UnsentLines(1, browser).add(line("left"));
  expect(ids(new UnsentLines(1, browser).all())).toEqual(["left"]);
});

test("what storage does not take is kept in the page and counted", () => {
  const kept = new UnsentLines(1, storage(1));
  for (const id of ["a", "b", "c"]) kept.add(line(id));
  expect(ids(kept.all())).toEqual(["a", "b", "c"]);
  expect(kept.onlyInPage).toBe(2);
  kept.remove("b");
  expect([kept.onlyInPage, ids(kept.all())]).toEqual([1, ["a", "c"]]);
  expect(new UnsentLines(1, undefined).all()).toEqual([]);
});

test("the one list of an older program is taken over; a damaged one is left where it is", () => {
  const browser = storage();
  browser.map.set("scutum-pending-1", JSON.stringify([line("old-1"), line("old-2")]));
  browser.map.set("scutum-pending-2", "{broken");
  expect(ids(new UnsentLines(1, browser).all())).toEqual(["old-1", "old-2"]);
  expect(browser.map.has("scutum-pending-1")).toBe(false);
  expect(new UnsentLines(2, browser).all()).toEqual([]);
  expect(browser.map.get("scutum-pending-2")).toBe("{broken");
});

test("an entry that cannot be read does not hide the others", () => {
  const browser = storage();
  const kept = new UnsentLines(1, browser);
  kept.add(line("good"));
  browser.map.set("scutum-unsent:1:0-0:bad", "{broken");
  expect(ids(kept.all())).toEqual(["good"]);
});

test("whatever two tabs add and remove, in whatever order, none is lost and none comes back", () => {
  const step = fc.record({ tab: fc.integer({ min: 0, max: 1 }), id: fc.integer({ min: 0, max: 20 }), add: fc.boolean() });
  fc.assert(
    fc.property(fc.array(step, { maxLength: 60 }), fc.integer({ min: 0, max: 6 }), (steps, room) => {
      const browser = storage(room);
      const tabs = [new UnsentLines(1, browser), new UnsentLines(1, browser)];
      // By tab: what storage would not take is that tab's own.
      const expected = [new Set<string>(), new Set<string>()];
      for (const { tab, id, add } of steps) {
        const name = `${tab}-${id}`;
        if (add && !expected[tab]!.has(name)) {
          tabs[tab]!.add(line(name));
          expected[tab]!.add(name);
        } else if (!add) {
          tabs[tab]!.remove(name);
          expected[tab]!.delete(name);
        }
      }
      const held = new Set([...ids(tabs[0]!.all()), ...ids(tabs[1]!.all())]);
      expect(held).toEqual(new Set([...expected[0]!, ...expected[1]!]));
    }),
  );
});
