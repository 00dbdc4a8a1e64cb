import { heardIn, louderBy, millivoltsOf, recordingLine } from "./recording-line";

const sounds = {
  seconds: 5.04,
  named: [{ kind: "hum-double" as const, confidence: 0.987 }],
  mains: { hertz: 50, f1dB: -60.04, f2dB: -20.16, oddCombdB: -80, evenCombdB: -40 },
  hissdB: -80.26,
  totaldB: -20.04,
  curve: [-80, -20],
};
const line = (totaldB: number, fullScaleMillivolts?: number) =>
  recordingLine(
    { ...sounds, totaldB },
    { hash: "a".repeat(64), name: "x.wav", when: "before", ...(fullScaleMillivolts ? { fullScaleMillivolts } : {}) },
  );

test("rounded as it is kept, in words", () => {
  expect(line(-20.04)).toMatchObject({
    seconds: 5,
    sounds: [{ kind: "hum-double", confidence: 0.99 }],
    f1dB: -60,
    f2dB: -20.2,
    hissdB: -80.3,
    totaldB: -20,
  });
  expect(heardIn(line(-20))).toBe("hum at twice the mains frequency");
});

test("two recordings at other settings of the recorder are compared at the speaker", () => {
  expect(louderBy(line(-20), line(-50))).toBeCloseTo(-30, 9);
  // Turned up tenfold for the second: 0 dB is a tenth of the millivolts, so it is 20 dB quieter still.
  expect(louderBy(line(-20, 2000), line(-50, 200))).toBeCloseTo(-50, 9);
  expect(louderBy(line(-20, 2000), line(-50))).toBeCloseTo(-30, 9);
});

test("20 dB under full scale is a tenth of its millivolts", () => {
  expect(millivoltsOf(0, 1414)).toBe(1414);
  expect(millivoltsOf(-20, 1414)).toBeCloseTo(141.4, 6);
});
