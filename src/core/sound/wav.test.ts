import { decodeWav, readWav, readWavHead, WavError, writeWav } from "./wav";
import { soundsOf } from "./sounds";

const RATE = 8000;
const tone = (seconds: number, size = 0.5) =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) => size * Math.sin((2 * Math.PI * 50 * i) / RATE));

test.each([
  [8, false, 1 / 100],
  [16, false, 1 / 30_000],
  [24, false, 1 / 8e6],
  [32, false, 1e-7],
  [32, true, 1e-7],
] as const)("written and read again: %i bits, floating point %s", (bits, float, error) => {
  const x = tone(0.5);
  const back = readWav(writeWav([x, tone(0.5, 0.25)], RATE, bits, float));
  expect(back).toMatchObject({ rate: RATE, bits, float, notes: [] });
  expect(back.channels).toHaveLength(2);
  back.channels[0]!.forEach((v, i) => expect(Math.abs(v - x[i]!)).toBeLessThan(error));
});

test("floating point of 64 bits, and the extensible form", () => {
  const plain = writeWav([tone(0.1)], RATE, 16);
  // The same samples behind a format chunk of 40 bytes that says its kind in an identifier.
  const wide = new Uint8Array(plain.length + 24);
  wide.set(plain.subarray(0, 36));
  wide.set(plain.subarray(36), 60);
  const view = new DataView(wide.buffer);
  view.setUint32(16, 40, true);
  view.setUint16(20, 0xfffe, true);
  view.setUint16(44, 1, true);
  expect(readWav(wide).channels[0]).toEqual(readWav(plain).channels[0]);

  const doubles = new Uint8Array(44 + 16);
  doubles.set(plain.subarray(0, 44));
  const d = new DataView(doubles.buffer);
  d.setUint16(20, 3, true);
  d.setUint16(32, 8, true);
  d.setUint16(34, 64, true);
  d.setUint32(40, 16, true);
  d.setFloat64(44, 0.25, true);
  d.setFloat64(52, NaN, true);
  const read = readWav(doubles);
  expect([...read.channels[0]!]).toEqual([0.25, 0]);
  expect(read.notes.join()).toContain("no numbers");
});

test("cut short, or never closed: what is there is read and said", () => {
  const whole = writeWav([tone(2)], RATE, 16);
  const cut = readWav(whole.subarray(0, 44 + RATE * 2));
  expect(cut.channels[0]).toHaveLength(RATE);
  expect(cut.notes.join()).toContain("cut short: 1.0 s of 2.0 s");
  const open = whole.slice();
  new DataView(open.buffer).setUint32(40, 0, true);
  expect(readWav(open).channels[0]).toHaveLength(2 * RATE);
});

test("of a file of 2 GB the first ten minutes are taken, from its head alone", () => {
  const head = writeWav([tone(0.1)], 48_000, 16)
    .subarray(0, 44)
    .slice();
  const size = 2_000_000_044;
  const view = new DataView(head.buffer);
  view.setUint32(40, size - 44, true);
  const shape = readWavHead(head, size);
  expect(shape.bytes).toBe(600 * 48_000 * 2);
  expect(shape.notes.join()).toContain("the first 10 min");
  expect(decodeWav({ ...shape }, new Uint8Array(200)).channels[0]).toHaveLength(100);
});

test.each([
  ["empty", new Uint8Array(0), "the file is empty"],
  ["an MP3", new TextEncoder().encode("ID3\u0004 and the rest of it"), "an MP3"],
  ["text", new TextEncoder().encode("not a recording at all"), 'starts with "not "'],
  ["only a head", writeWav([tone(0.1)], RATE).subarray(0, 36), "it ends after its head"],
  ["no samples", writeWav([new Float32Array(0)], RATE), "no samples in it"],
])("%s is refused with what was found", (_, bytes, says) => {
  expect(() => readWav(bytes)).toThrow(WavError);
  expect(() => readWav(bytes)).toThrow(says);
});

test("compressed, odd bits and too slow a rate are refused by name", () => {
  const made = (change: (view: DataView) => void) => {
    const bytes = writeWav([tone(0.1)], RATE).slice();
    change(new DataView(bytes.buffer));
    return bytes;
  };
  expect(() => readWav(made((v) => v.setUint16(20, 0x55, true)))).toThrow("compressed as MP3");
  expect(() => readWav(made((v) => v.setUint16(20, 7, true)))).toThrow("µ-law");
  expect(() => readWav(made((v) => v.setUint16(34, 12, true)))).toThrow("12 bits a sample");
  expect(() => readWav(made((v) => v.setUint32(24, 100, true)))).toThrow("100 samples a second");
});

const as = (x: Float32Array) => ({ rate: RATE, channels: [x], bits: 16, float: false, notes: [] });

test("clipped, silent and short recordings say so and are still looked at", () => {
  const clipped = soundsOf(as(tone(2, 1.6).map((v) => Math.max(-1, Math.min(1, v)))), 50);
  expect(clipped.notes.join()).toContain("clipped");
  expect(clipped.named[0]!.kind).toMatch(/hum-mains|buzz/);
  const silent = soundsOf(as(new Float32Array(2 * RATE)), 50);
  expect(silent.named).toEqual([{ kind: "clean", confidence: 0.3 }]);
  expect(silent.notes.join()).toContain("silent");
  const second = soundsOf(as(tone(1)), 50);
  expect(second.named[0]!.kind).toBe("hum-mains");
  expect(second.notes.join()).toContain("only 1.0 s long");
  expect(() => soundsOf(as(tone(0.05)), 50)).toThrow("a second or more is wanted");
});
