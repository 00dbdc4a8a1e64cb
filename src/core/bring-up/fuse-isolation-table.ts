/** What every cause of a blown fuse would make of every test: solved once for a circuit, a wall and a lamp. */

import { alter, without } from "../circuit/alter";
import { envelopeOf, type Circuit } from "../circuit/circuit";
import { causesOf, testsOf, type Cause, type IsolationTest } from "./fuse-isolation";
import { bucketOf, OHM_OUTCOMES } from "./ohm-outcome";
import { BRIGHT, DARK } from "./corridor";
import { anatomyOf } from "../anatomy/kind-of-amp";
import { lampAmps, madeFor, mainsDraw, type DrawOptions } from "../solver/mains-draw";
import { allowSlips } from "../diagnosis/answer-slips";
import { logistic } from "../numeric/logistic";
import { idealVolts, operatingPoint } from "../solver/operating-point";
import { ohmmeter } from "../solver/ohmmeter";

export interface IsolationOptions {
  wall: number;
  /** Watts of the lamp in series; 0 when a fuse alone is in the line. */
  lamp: number;
  /** Amperes of the fuse. */
  fuse?: number;
  progress?(part: number): void;
}

/** A test answered wrongly, or an amp that does not keep to the model. */
const SLIP = 0.04;
/** Steepness of the eye's judgement of a lamp, and of a fuse, in natural logarithms. */
const EYE = 0.5;
const FUSE_SPREAD = 0.3;
/** A slow fuse blows within the time of a test at about this many times its rating. Source: IEC 60127-2, time-lag gates. */
const BLOWS_AT = 2;

/** Probability of every outcome of every test under every cause; solved once for a circuit, a wall and a lamp. */
export class IsolationTable {
  readonly causes: Cause[];
  readonly tests: IsolationTest[];
  /** By test, then by cause: a chance for each outcome. */
  private readonly chances = new Map<string, number[][]>();
  private readonly sound = new Map<string, number>();
  private readonly draw: DrawOptions;

  constructor(
    readonly circuit: Circuit,
    private readonly options: IsolationOptions,
  ) {
    this.causes = causesOf(circuit);
    this.tests = testsOf(circuit, options.lamp > 0);
    this.draw = { madeFor: madeFor(circuit) };
    this.tests.forEach((test, i) => {
      this.chances.set(
        test.id,
        this.causes.map((cause) => allowSlips(this.chanceOf(test, cause), SLIP)),
      );
      options.progress?.((i + 1) / this.tests.length);
    });
  }

  chance(test: string, cause: number, outcome: string): number {
    const at = this.tests.find((t) => t.id === test)!.outcomes.indexOf(outcome);
    return at < 0 ? 1 : this.chances.get(test)![cause]![at]!;
  }

  /** Ohms of a sound amp at a resistance test. */
  soundOhms(test: string): number | undefined {
    return this.sound.get(test);
  }

  private chanceOf(test: IsolationTest, cause: Cause): number[] {
    if (test.kind === "power") return this.power(test, cause);
    if (test.kind === "halves") return cause.changes.some((c) => c.endsWith("=winding-short")) ? [0.03, 0.97] : [0.97, 0.03];
    if (test.kind === "alone") return test.id === `alone:${cause.id}` ? [0.06, 0.94] : [0.97, 0.03];
    if (test.kind === "bias") return this.bias(test, cause);
    return this.ohms(test, cause);
  }

  private altered(cause: Cause, out: readonly string[]): Circuit {
    // A tube that is out takes its own short along.
    const stays = cause.changes.filter((c) => {
      const part = c.slice(0, c.indexOf("=")).replace(/^X(?=V)/, "");
      return !/=(short:|dead)/.test(c) || !out.includes(envelopeOf(part));
    });
    return without(alter(this.circuit, stays), [...out]);
  }

  private power(test: IsolationTest, cause: Cause): number[] {
    const { wall, lamp, fuse } = this.options;
    const shorted = cause.outside === "mains side" || (cause.outside === "heater leads" && !test.secondariesOff);
    const winding = cause.changes.some((c) => c.endsWith("=winding-short"));
    if (test.secondariesOff) {
      const bright = cause.outside === "mains side" || winding;
      return lamp > 0 ? (bright ? [0, 0.05, 0.95] : [0.95, 0.05, 0]) : bright ? [0.05, 0.95] : [0.98, 0.02];
    }
    if (shorted) return lamp > 0 ? [0, 0.04, 0.96] : [0.04, 0.96];
    const amp = this.altered(cause, test.without ?? []);
    const at = (volts: number) => {
      const op = operatingPoint(amp, { mains: volts });
      return op.converged ? mainsDraw(op, this.draw).amps : undefined;
    };
    if (lamp === 0) {
      const amps = at(wall);
      const blows = amps === undefined ? 0.85 : rises(amps / (BLOWS_AT * (fuse ?? 1)), FUSE_SPREAD);
      return [1 - blows, blows];
    }
    // Four turns of the dial, straight between them: where the amp's current meets the lamp's is what both carry.
    const volts = [0.08, 0.25, 0.55, 1].map((p) => p * wall);
    const amps = volts.map((v) => at(v));
    if (amps.some((x) => x === undefined)) return [0.05, 0.15, 0.8];
    const glow = meetsLamp(volts, amps as number[], lamp, wall);
    const dark = 1 - rises(glow / DARK, EYE);
    const bright = rises(glow / BRIGHT, EYE);
    return [dark, Math.max(0, 1 - dark - bright), bright];
  }

  private bias(test: IsolationTest, cause: Cause): number[] {
    const amp = this.altered(cause, test.without ?? []);
    const op = operatingPoint(amp, { mains: this.options.wall });
    const nodes = [...anatomyOf(this.circuit).grids.values()].flat();
    const there = op.converged && nodes.every((n) => op.network.index.has(n) && idealVolts(op, n) < -5);
    return there ? [0.97, 0.03] : [0.03, 0.97];
  }

  private ohms(test: IsolationTest, cause: Cause): number[] {
    // A tube out of its socket is measured alone.
    if (test.id.startsWith("shorts:")) {
      const tube = test.id.slice("shorts:".length);
      this.sound.set(test.id, Infinity);
      return cause.id === `tube:${tube}` ? [0.08, 0.02, 0.9, 0] : [0.97, 0.02, 0.01, 0];
    }
    const [a, b] = test.nodes!;
    const read = (changes: readonly string[]) =>
      ohmmeter(without(alter(this.circuit, changes), this.outForOhms()), a, b, { seconds: 0 }).settled;
    let sound = this.sound.get(test.id);
    if (sound === undefined) this.sound.set(test.id, (sound = read([])));
    const mattering = cause.changes.filter((c) => !/=(winding-short|through|dead|short:)/.test(c));
    const ohms = mattering.length === 0 ? sound : read(mattering);
    const k = OHM_OUTCOMES.indexOf(bucketOf(ohms, sound));
    return [0, 1, 2, 3].map((i) => (i === k ? 0.94 : 0.02));
  }

  private outForOhms(): string[] {
    const a = anatomyOf(this.circuit);
    return a.string.length > 0 ? [] : [...a.rectifierTubes, ...a.small, ...a.output];
  }
}

/** Part of its watts that a lamp burns where the amp's current, straight between the points, is also the lamp's. */
function meetsLamp(volts: readonly number[], amps: readonly number[], watts: number, wall: number): number {
  const at = (v: number) => {
    const k = volts.findIndex((x) => x >= v);
    if (k <= 0) return (amps[0]! * v) / volts[0]!;
    const part = (v - volts[k - 1]!) / (volts[k]! - volts[k - 1]!);
    return amps[k - 1]! + part * (amps[k]! - amps[k - 1]!);
  };
  let [low, high] = [0, wall];
  for (let step = 0; step < 40; step++) {
    const middle = (low + high) / 2;
    if (at(middle) > lampAmps({ watts, volts: wall }, wall - middle)) high = middle;
    else low = middle;
  }
  const lampVolts = wall - (low + high) / 2;
  return (lampVolts * lampAmps({ watts, volts: wall }, lampVolts)) / watts;
}

/** 0 to 1 as a ratio passes 1, by a logistic of `spread` natural logarithms. */
function rises(ratio: number, spread: number): number {
  return logistic(Math.log(Math.max(ratio, 1e-9)) / spread);
}
