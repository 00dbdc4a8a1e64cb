/** The bias table as it goes on the tape: as it was found or as it is left, with the rails beside what was predicted of them. */

import { formatQuantity } from "../quantity/format";
import type { EventDraft } from "../tape/events/event";
import type { BiasTaken } from "../tape/events/output-events";
import type { TakenWhen } from "../tape/events/words";
import * as texts from "../texts/output";
import type { BiasRow } from "./bias-table";
import type { Target } from "./targets";

/** As many digits as a meter shows. */
const DIGITS = 4;
const shown = (x: number) => Number(x.toPrecision(DIGITS));

/** @param rows currents in amperes, of the table. @param target what the idle was set to, where it was. */
export function biasTaken({
  stage,
  when,
  rows,
  rails,
  target,
  mains,
}: {
  stage: string;
  when: TakenWhen;
  rows: readonly BiasRow[];
  rails: readonly { point: string; volts: number; predicted?: number }[];
  target?: Pick<Target, "school" | "amps">;
  mains?: number;
}): BiasTaken {
  return {
    stage,
    when,
    rows: rows.map((r) => ({
      tube: r.tube,
      way: r.way,
      plateMilliamps: shown(r.plate * 1e3),
      screenMilliamps: shown(r.screen * 1e3),
      screenBy: r.screenBy,
      ...(r.plateVolts === undefined ? {} : { plateVolts: shown(r.plateVolts) }),
      ...(r.plateWatts === undefined ? {} : { plateWatts: shown(r.plateWatts) }),
      ...(r.ofRating === undefined ? {} : { ofRating: shown(r.ofRating) }),
    })),
    rails: rails.map(({ point, volts, predicted }) => ({
      point,
      volts,
      ...(predicted === undefined ? {} : { predicted: shown(predicted) }),
    })),
    ...(target ? { school: target.school, targetMilliamps: shown(target.amps * 1e3) } : {}),
    ...(mains === undefined ? {} : { mains }),
  };
}

/** An adjuster as it stands now. @param position part of its turn, 0 to 1, where it is known. @param amps plate amperes it was set for. */
export function adjusterTurned(
  stage: string,
  control: string,
  position: number | undefined,
  amps: number | undefined,
): EventDraft<"adjusted"> {
  return {
    type: "adjusted",
    payload: {
      control,
      ...(position === undefined ? {} : { position: Number(position.toFixed(4)) }),
      why: amps === undefined ? "" : texts.idleSetTo(stage, formatQuantity(amps, "A", 3)),
    },
  };
}
