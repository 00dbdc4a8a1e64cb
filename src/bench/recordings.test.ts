import { SOUND_KINDS, type SoundKind } from "@/core/tape/events/words";
import { soundsOf } from "@/core/sound/sounds";
import { readWav, writeWav } from "@/core/sound/wav";
import { uniformDraws } from "@/core/numeric/random";
import { listen, type MicrophoneOptions } from "./recordings";

/** One recording of each kind under circumstances drawn at random, through a WAV file and back. */
function drawn(kind: SoundKind, seed: number) {
  const u = uniformDraws(seed);
  const pick = <T>(of: readonly T[]) => of[Math.floor(u() * of.length)]!;
  const rate = pick([8000, 11025, 16000, 22050, 44100, 48000, 96000]);
  const bits = pick([8, 16, 16, 24, 32] as const);
  const mains = pick([49.8, 50, 50.2, 59.8, 60, 60.2]);
  // Eight bits have a noise of their own; softer than this it is louder than the sound.
  const level = bits === 8 ? pick([-10, -20]) : pick([-10, -25, -40]);
  const at = { squeal: Math.min(0.4 * rate, 300 * 2 ** (4.5 * u())), motorboating: 1.5 + 9 * u(), crackle: 3 + 14 * u() }[kind as string];
  const options: MicrophoneOptions = {
    rate,
    mains,
    seed,
    seconds: pick([2, 3]),
    room: level - 25 - 10 * u(),
    music: u() < 0.5 ? level - 12 - 12 * u() : undefined,
  };
  const x = listen([{ kind, level, at }], options);
  const peak = x.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
  if (peak > 0.98) for (let i = 0; i < x.length; i++) x[i]! *= 0.98 / peak;
  const nominal = u() < 0.5 ? undefined : mains < 55 ? 50 : 60;
  // Music that leaks in where nothing else is heard is named as what it is.
  const wanted: string[] = kind === "clean" && options.music !== undefined ? ["clean", "speech or music"] : [kind];
  return {
    sounds: soundsOf(readWav(writeWav([x], rate, bits)), nominal),
    mains,
    wanted,
    says: `${rate}/${bits}, ${mains} Hz, ${level} dB`,
  };
}

const EACH = 8;

test("every kind of sound is named first in at least 95 of 100 recordings, mains of 50 and 60 Hz, 8 to 96 kHz, 8 to 32 bits", () => {
  const missed: string[] = [];
  for (const [k, kind] of SOUND_KINDS.entries())
    for (let i = 0; i < EACH; i++) {
      const { sounds, mains, wanted, says } = drawn(kind, 1000 * k + i + 1);
      if (!wanted.includes(sounds.named[0]!.kind)) missed.push(`${kind} (${says}): ${sounds.named.map((n) => n.kind).join(", ")}`);
      if (kind === "hum-mains") {
        expect(Math.abs(sounds.mains.hertz - mains)).toBeLessThan(0.25);
        expect(sounds.named.map((n) => n.kind)).not.toContain("hum-double");
      }
      if (kind === "hum-double") {
        expect(Math.abs(sounds.mains.hertz - mains)).toBeLessThan(0.25);
        expect(sounds.named.map((n) => n.kind)).not.toContain("hum-mains");
      }
    }
  expect(missed.length / (EACH * SOUND_KINDS.length) <= 0.05 ? [] : missed).toEqual([]);
});

test("figures: level of a line, frequency of a squeal, beats and clicks a second", () => {
  const options = { rate: 48_000, seconds: 4, mains: 50, seed: 5, room: -70 };
  const hum = soundsOf({
    rate: 48_000,
    channels: [listen([{ kind: "hum-mains", level: -20 }], options)],
    bits: 24,
    float: false,
    notes: [],
  });
  expect(hum.mains.f1dB).toBeGreaterThan(-20.6);
  expect(hum.mains.f1dB).toBeLessThan(-19.8);
  const heard = (kind: SoundKind, at: number) =>
    soundsOf({ rate: 48_000, channels: [listen([{ kind, level: -20, at }], options)], bits: 24, float: false, notes: [] });
  expect(heard("squeal", 3217).tones[0]!.hertz).toBeCloseTo(3217, 0);
  expect(heard("motorboating", 3.4).subAudioHz).toBeCloseTo(3.4, 1);
  const rate = heard("crackle", 8).crackleRate!;
  expect(rate).toBeGreaterThan(4);
  expect(rate).toBeLessThan(12);
});

test("two sounds at once are both named", () => {
  const options = { rate: 44_100, seconds: 5, mains: 60, seed: 9, room: -65 };
  const x = listen(
    [
      { kind: "hum-double", level: -25 },
      { kind: "squeal", level: -25, at: 1830 },
    ],
    options,
  );
  const kinds = soundsOf({ rate: 44_100, channels: [x], bits: 16, float: false, notes: [] }).named.map((n) => n.kind);
  expect(kinds).toEqual(expect.arrayContaining(["hum-double", "squeal"]));
});

test("a player next door is told from a fault; a parasitic is told by its bursts on the peaks", () => {
  const options = { rate: 44_100, seconds: 6, mains: 50, seed: 3, room: -70 };
  const of = (kind: "radio" | "parasitic") =>
    soundsOf({ rate: 44_100, channels: [listen([{ kind, level: -20 }], options)], bits: 16, float: false, notes: [] });
  expect(of("radio").programme).toBeGreaterThan(0.6);
  expect(of("radio").notes.join()).toContain("speech or music");
  expect(of("parasitic").burstsOnPeaks).toBeGreaterThan(0.6);
  expect(of("radio").burstsOnPeaks).toBeLessThan(0.4);
});
