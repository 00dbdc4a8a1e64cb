import { dateAmp, readDateCode } from "./dating";

const years = (code: string) => {
  const r = readDateCode("pot", code);
  return "why" in r ? r.why : r.years;
};

describe("date codes", () => {
  test.each<[string, number[]]>([
    ["137-6118", [1961]],
    ["137 6 18", [1936, 1946, 1956, 1966, 1976, 1986, 1996, 2006, 2016, 2026]],
    ["23/61", [1961]],
    ["6123", [1961]],
    ["stamped 1959", [1959]],
    ["1958-1960", [1958, 1959, 1960]],
  ])("%s", (code, expected) => expect(years(code)).toEqual(expected));
  test.each(["137-6199", "hello", "1965-1960", "60/61"])("%s is not read, and says why", (code) =>
    expect(typeof years(code)).toBe("string"),
  );

  test("one-digit years are settled by the other parts", () => {
    const dating = dateAmp([
      { place: "volume pot", code: "137-128" },
      { place: "mains transformer", code: "549-6110" },
      { place: "chassis", code: "1962" },
    ]);
    expect(dating).toMatchObject({ from: 1962, to: 1963 });
    expect(dating.outlier).toBeUndefined();
    expect(dating.sentence).toBe("Made 1962 to 1963: all 3 codes agree.");
  });

  test("the part that does not fit is named", () => {
    const dating = dateAmp([
      { place: "volume pot", code: "137-5921" },
      { place: "output transformer", code: "549-5930" },
      { place: "speaker", code: "220-7814" },
    ]);
    expect(dating.outlier?.place).toBe("speaker");
    expect(dating.sentence).toBe("Made 1959 to 1961, except the speaker (220-7814, 1978): it does not fit and may be a replacement.");
  });

  test("the model's years stand beside the codes", () => {
    expect(dateAmp([{ place: "speaker", code: "220-7814" }], { from: 1957, to: 1963 }).outlier?.place).toBe("speaker");
    expect(dateAmp([{ place: "pot", code: "137-028" }], { from: 1957, to: 1963 })).toMatchObject({ from: 1960, to: 1962 });
  });

  test("codes that no single part reconciles are called contradictory", () => {
    expect(
      dateAmp([
        { place: "a", code: "1950" },
        { place: "b", code: "1960" },
        { place: "c", code: "1970" },
      ]).sentence,
    ).toMatch(/contradict/);
  });
});

describe("four digits", () => {
  const read = (code: string) => readDateCode("chassis", code);
  test("2352 is week 52 of 2023 or week 23 of 1952, and the amp's other dates decide", () => {
    expect(read("2352")).toMatchObject({ years: [1952, 2023] });
    expect(
      dateAmp([
        { place: "chassis", code: "2352" },
        { place: "speaker", code: "1952" },
      ]),
    ).toMatchObject({ from: 1952 });
  });
  test("a week that does not exist is said so", () => {
    expect(read("1260")).toMatchObject({ years: [1960], read: "year '60, week 12 (not year '12, week 60: there is no week 60)" });
    expect(read("4963")).toMatchObject({ years: [1963], read: expect.stringContaining("there is no week 63") as string });
    expect(read("6075")).toEqual({ why: expect.stringContaining("there is no week 75") as string });
  });
  test("next year's codes are read", () => {
    const next = new Date().getFullYear() + 1;
    const yy = String(next % 100).padStart(2, "0");
    expect(read(`05/${yy}`)).toMatchObject({ years: expect.arrayContaining([next]) as number[] });
  });
});
