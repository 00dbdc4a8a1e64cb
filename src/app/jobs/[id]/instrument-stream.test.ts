import { sharedStream } from "./instrument-stream";

class FakeSource {
  static made: FakeSource[] = [];
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  closed = false;
  constructor(readonly address: string) {
    FakeSource.made.push(this);
  }
  close() {
    this.closed = true;
  }
}
const page = { hidden: false, turn: undefined as (() => void) | undefined };

beforeEach(() => {
  FakeSource.made = [];
  page.hidden = false;
  Object.assign(globalThis, {
    EventSource: FakeSource,
    document: {
      get hidden() {
        return page.hidden;
      },
      addEventListener: (_: string, turn: () => void) => (page.turn = turn),
      removeEventListener: () => (page.turn = undefined),
    },
  });
});
const listener = () => {
  const heard: (string | boolean)[] = [];
  return { heard, line: (text: string) => heard.push(text), state: (joined: boolean) => heard.push(joined) };
};

test("all that listens on a page shares one stream; the last one that leaves ends it", () => {
  const join = sharedStream("/bench");
  const [a, b] = [listener(), listener()];
  const leaveA = join(a);
  const [source] = FakeSource.made;
  source!.onopen!();
  source!.onmessage!({ data: "meter n=1" });
  source!.onmessage!({ data: "mains n=1" });
  source!.onmessage!({ data: "meter n=2" });
  // Who comes later is told what stands now, and not what went before.
  const leaveB = join(b);
  expect(b.heard).toEqual([true, "meter n=2", "mains n=1"]);
  source!.onmessage!({ data: "gone meter" });
  expect([a.heard.at(-1), b.heard.at(-1)]).toEqual(["gone meter", "gone meter"]);
  const c = listener();
  const leaveC = join(c);
  expect(c.heard).toEqual([true, "mains n=1", "gone meter"]);
  expect(FakeSource.made).toHaveLength(1);
  leaveA();
  leaveB();
  expect(source!.closed).toBe(false);
  leaveC();
  expect(source!.closed).toBe(true);
});

test("a hidden page holds no stream, and joins again when it is seen", () => {
  const leave = sharedStream("/bench")(listener());
  page.hidden = true;
  page.turn!();
  expect(FakeSource.made[0]!.closed).toBe(true);
  page.hidden = false;
  page.turn!();
  expect(FakeSource.made).toHaveLength(2);
  leave();
  expect(FakeSource.made[1]!.closed).toBe(true);
});
