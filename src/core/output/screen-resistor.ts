/** A screen resistor from values that exist: screen and plate watts at idle and at clip, and the power that it costs. */

import { alter } from "../circuit/alter";
import type { Circuit } from "../circuit/circuit";
import { decade } from "../quantity/series";
import { ratingFor, STANDARD_WATTS } from "../quantity/ratings";
import * as texts from "../texts/output";
import { TONE_HERTZ, onePeriod, playAtClip, toneAmp } from "./tone";
import { solveIdle } from "./idle";
import type { OutputStage } from "./output-stage";

export interface ScreenChoice {
  ohms: number;
  /** Watts of one tube: its screen and plate at idle and driven to clip, and parts of their ratings for the worst. */
  idleScreen: number;
  clipScreen: number;
  idlePlate: number;
  clipPlate: number;
  ofScreenRating?: number;
  ofPlateRating?: number;
  /** Watts in the resistor at clip, and the rating to fit. */
  watts: number;
  fit: number;
  /** Power at clip. */
  power: number;
  present: boolean;
}

/**
 * Values of E6 around the present one that keep plates and screens within their ratings at clip, most power first; the present one is
 * always among them, whatever it does.
 * @throws RangeError for a stage whose screens have no resistors of their own.
 */
export function chooseScreenResistor(
  circuit: Circuit,
  stage: OutputStage,
  { mains, limit = 1 }: { mains?: number; limit?: number } = {},
  progress?: (part: number) => boolean | void,
): { parts: string[]; choices: ScreenChoice[]; refused: number } {
  const own = stage.tubes.flatMap((t) => (t.screenResistor ? [t.screenResistor] : []));
  if (own.length < stage.tubes.length || own.length === 0) throw new RangeError(texts.noScreenResistors());
  const present = own[0]!.ohms;
  const values = [1, 2, 3].flatMap((p) => decade("E6").map((m) => Number(`${m}e${p}`))).filter((v) => v > present / 5 && v < present * 5);
  const choices: (ScreenChoice & { peak: number })[] = [];
  let refused = 0;
  const all = [...new Set([...values, present])].sort((a, b) => a - b);
  for (const [i, ohms] of all.entries()) {
    if (progress?.(i / all.length) === false) break;
    const choice: ScreenChoice & { peak: number } = screenChoice(
      circuit,
      stage,
      own.map((r) => r.name),
      ohms,
      ohms === present,
      mains,
      choices.at(-1)?.peak,
    );
    if (!choice.present && ((choice.ofScreenRating ?? 0) > limit || (choice.ofPlateRating ?? 0) > limit)) refused++;
    else choices.push(choice);
  }
  return { parts: own.map((r) => r.name), choices: choices.sort((a, b) => b.power - a.power), refused };
}

function screenChoice(
  circuit: Circuit,
  stage: OutputStage,
  parts: readonly string[],
  ohms: number,
  present: boolean,
  mains?: number,
  start?: number,
): ScreenChoice & { peak: number } {
  const made = alter(
    circuit,
    parts.map((name) => `${name}=${ohms}`),
  );
  const { idle } = solveIdle(made, mains);
  const amp = toneAmp(made, stage, mains);
  const clip = playAtClip(amp, start ? { start } : {});
  const at = amp.op.network.index;
  const node = (n: string) => (n === "0" ? -1 : at.get(n)!);
  // Each tube's plate, screen, cathode and the node before its screen resistor over one period at clip.
  const keep = stage.tubes.flatMap((t) => [node(t.plate), node(t.screen!), node(t.cathode), node(t.screenResistor!.from), node(t.grid)]);
  const known = [...new Set(keep.filter((k) => k >= 0))];
  const courses = onePeriod(amp, clip.peak, known, TONE_HERTZ, 6);
  const course = (k: number) => (k < 0 ? undefined : courses[known.indexOf(k)]);
  const device = (name: string) => amp.op.network.tubes.find((t) => t.element.name === name)!.device;
  const i = new Float64Array(4);
  const g = new Float64Array(16);
  const per = stage.tubes.map((t, n) => {
    const [p, s, k, from, grid] = keep.slice(5 * n, 5 * n + 5).map(course);
    let [plate, screen, resistor] = [0, 0, 0];
    const samples = p!.length;
    for (let x = 0; x < samples; x++) {
      const cathode = k?.[x] ?? 0;
      device(t.name).evaluate(Float64Array.of(p![x]!, s![x]!, grid![x]!, cathode), i, g);
      plate += (i[0]! * (p![x]! - cathode)) / samples;
      screen += (i[1]! * (s![x]! - cathode)) / samples;
      resistor += (from![x]! - s![x]!) ** 2 / ohms / samples;
    }
    const own = idle.tubes.find((x) => x.name === t.name)!;
    return { plate, screen, resistor, own, ratings: t.type.ratings };
  });
  const most = (f: (x: (typeof per)[number]) => number) => Math.max(...per.map(f));
  const { plateWatts, screenWatts } = per[0]!.ratings ?? {};
  const [clipScreen, idleScreen, clipPlate, idlePlate] = [
    most((x) => x.screen),
    most((x) => x.own.screenWatts),
    most((x) => x.plate),
    most((x) => x.own.plateWatts),
  ];
  const watts = most((x) => x.resistor);
  return {
    ohms,
    idleScreen,
    clipScreen,
    idlePlate,
    clipPlate,
    ...(screenWatts ? { ofScreenRating: Math.max(idleScreen, clipScreen) / screenWatts } : {}),
    ...(plateWatts ? { ofPlateRating: Math.max(idlePlate, clipPlate) / plateWatts } : {}),
    watts,
    fit: ratingFor(Math.max(1, 2 * watts), STANDARD_WATTS) ?? 2 * watts,
    power: clip.watts,
    peak: clip.peak,
    present,
  };
}
