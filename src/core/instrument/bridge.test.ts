import { Bridge } from "./bridge";

const AT = Date.parse("2026-03-02T10:00:00.000Z");

test("a meter's display becomes a line of the protocol, counted up", () => {
  const bridge = new Bridge();
  expect(bridge.read("318.2 V DC", AT)).toEqual({
    do: "pass",
    line: `meter n=0 at=${AT} kind=dcv value=318.2 digit=0.1 range=1000 auto`,
  });
  expect(bridge.read("OL MΩ", AT + 250)).toEqual({
    do: "pass",
    line: `meter n=1 at=${AT + 250} kind=ohm over digit=1000000 range=1000000 auto`,
  });
});

test("a line of the protocol passes as it is; a broken one is refused", () => {
  const line = "mains n=7 at=1764070000400 volts=230.4 amps=0.52";
  expect(new Bridge().read(` ${line} `, AT)).toEqual({ do: "pass", line });
  expect(new Bridge().read("mains n=7", AT)).toMatchObject({ do: "refuse", why: expect.stringContaining("volts=?") as string });
});

test("a point before the display makes it a reading for the tape", () => {
  expect(new Bridge().read("V2.p 238.1 V", AT)).toEqual({
    do: "log",
    reading: { point: "V2.p", kind: "dcv", value: 238.1, at: "2026-03-02T10:00:00.000Z" },
  });
  expect(new Bridge().read("b1:0 118.3 kΩ", AT)).toMatchObject({ do: "log", reading: { point: "b1:0", kind: "ohm", value: 118300 } });
});

test.each([
  ["", /no display/],
  ["318.2", /without its unit/],
  ["V2.p 318.2", /without its unit/],
  ["V2.p OL V", /overload/],
  ["V2.p 99999 V", /no tube amplifier has that/],
  ["hello there", /no display/],
])("%j is refused", (text, why) => {
  const act = new Bridge().read(text, AT);
  expect(act.do).toBe("refuse");
  if (act.do === "refuse") expect(act.why).toMatch(why);
});
