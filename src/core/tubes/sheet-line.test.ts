import { readTubeType, writeTubeType } from "./type-line";
import { setLanguage } from "../language/language";
import { readSheet, sheetExample } from "./sheet-line";
import { FITTED } from "./fitted";
import { fields } from "../circuit/annotations";

test("a pentode's and a triode's points", () => {
  expect(readSheet("6xx6", "9.8", "250 / 250 / -12.5: 45 + 4.5, 4.1\n\n180/180/−8.5: 29+3")).toEqual({
    data: {
      type: "6XX6",
      mu: 9.8,
      kgrid: 900,
      points: [
        { va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1 },
        { va: 180, vg2: 180, vg: -8.5, ia: 29, ig2: 3, gm: undefined },
      ],
    },
  });
  expect(readSheet("T1", "20", "250 / -8: 9, 2.6")).toMatchObject({ data: { kgrid: 2000, points: [{ va: 250, vg: -8, ia: 9, gm: 2.6 }] } });
});
test("in a shop that writes 12,5 a semicolon stands before gm, and the example says so", () => {
  setLanguage({ tube: "tube", mains: "mains", decimal: "," });
  try {
    expect(readSheet("6XX6", "9,8", "250 / 250 / -12,5: 45 + 4,5; 4,1")).toMatchObject({
      data: { mu: 9.8, points: [{ va: 250, vg2: 250, vg: -12.5, ia: 45, ig2: 4.5, gm: 4.1 }] },
    });
    expect(readSheet("6XX6", "9,8", sheetExample())).toHaveProperty("data");
    expect(readSheet("6XX6", "9,8", "250 / 250 / -12,5: 45 + 4,5, 4,1")).toMatchObject({
      problem: expect.stringContaining(sheetExample()),
    });
  } finally {
    setLanguage();
  }
});
test.each([
  ["", "20", "250 / -8: 9", /type name/],
  ["T1", "zero", "250 / -8: 9", /µ above zero.*read zero/],
  ["T1", "20", "250 at -8: 9", /“250 at -8: 9” is no point/],
  ["T1", "20", "  \n", /At least one point/],
  ["T1", "20", "250 / -8: 9\n250 / 250 / -8: 9", /Either all points/],
])("%p %p %p", (name, mu, text, wanted) => expect(readSheet(name, mu, text)).toMatchObject({ problem: expect.stringMatching(wanted) }));

describe("the line that a file brings along", () => {
  const read = (line: string) => {
    const problems: string[] = [];
    const { words, pairs } = fields(line.replace(/^\*@tube\s+/, ""));
    return { type: readTubeType(words[0], pairs, (found, expected) => problems.push(`${found} | ${expected}`)), problems };
  };
  test.each(["12AX7", "EL84"])("%s: written and read it is the same model", (name) => {
    const model = FITTED[name]!;
    const { type, problems } = read(
      writeTubeType({ type: name, aliases: [], kind: model.kind, pins: [], heater: { volts: 6.3, amps: 0.3 }, model }),
    );
    expect(problems).toEqual([]);
    for (const [key, value] of Object.entries(type!.model!))
      if (typeof value === "number") expect(value / (model as unknown as Record<string, number>)[key]!).toBeCloseTo(1, 5);
  });
  test("what is missing, unknown or below zero is named", () => {
    expect(read("*@tube T9 kind=triode mu=20").problems.join()).toMatch(/T9 without ex=/);
    expect(read("*@tube T9 kind=hexode").problems.join()).toMatch(/kind=triode, pentode or rectifier/);
    const wrong = read("*@tube T9 kind=triode mu=-2 colour=red").problems.join();
    expect(wrong).toMatch(/mu=-2/);
    expect(wrong).toMatch(/colour=/);
  });
});
