"use client";
/** Cathode and screen resistors from values that exist, over every position of the mode switches and the mains a tenth either way. */

import { figure, words } from "@/core/language/language";
import { useState } from "react";
import type { ModeFigures, ResistorChoice } from "@/core/output/cathode-resistor";
import type { CathodeAnswer, ScreensAnswer } from "@/core/ports/output-port";
import { formatQuantity, formatVolts } from "@/core/quantity/format";
import { Field, Section } from "../../forms/section";
import { WideTable } from "../../forms/wide-table";
import { TryPart } from "../../frame/try-part";
import { useJob } from "../../job/job-context";
import { useAnswer } from "../../job/use-answer";
import { keyOf, percent, useStage } from "./use-stage";

export function Resistors() {
  const { stage } = useStage();
  return (
    <div className="space-y-4">
      {stage.bias === "fixed" ? (
        <p>{words("This stage is biased by its supply: its cathode resistors, where it has any, are there to read the current by.")}</p>
      ) : (
        <Cathode />
      )}
      <Screens />
    </div>
  );
}

const AIMS = [0.6, 0.7, 0.8, 0.9, 1, 1.1];
const ohms = (x: number) => formatQuantity(x, "Ω", 3);

/** "220 Ω + 33 Ω", "470 Ω ∥ 470 Ω", "270 Ω". */
export const madeWords = ({ a, b, together }: ResistorChoice["made"]): string =>
  b === undefined ? ohms(a) : `${ohms(a)} ${together === "series" ? "+" : "∥"} ${ohms(b)}`;

function Cathode() {
  const { output } = useJob();
  const { netlist, ask } = useStage();
  const [aim, setAim] = useState(0.9);
  const [limit, setLimit] = useState(1);
  const key = output && keyOf("cathode", netlist, ask, aim, limit);
  const { answer, failed, progress } = useAnswer<CathodeAnswer>(key, (told) =>
    output!.cathodeResistor(netlist, { ...ask, aim, limit }, told),
  );
  const best = answer?.choices[0];
  return (
    <Section title="Cathode resistor">
      <div className="flex flex-wrap items-end gap-3">
        <Field label="Plate watts today, of the rating">
          <select className="select w-36" value={aim} onChange={(e) => setAim(Number(e.target.value))}>
            {AIMS.map((a) => (
              <option key={a} value={a}>
                {percent(a)}
              </option>
            ))}
          </select>
        </Field>
        <Field label={words("Never above, mains a tenth up")}>
          <select className="select w-36" value={limit} onChange={(e) => setLimit(Number(e.target.value))}>
            {[0.9, 1, 1.1, 1.2].map((a) => (
              <option key={a} value={a}>
                {percent(a)}
              </option>
            ))}
          </select>
        </Field>
        <p className="soft max-w-md text-sm">
          {words(
            "Some run cathode-biased stages over the rating for the sound: the tubes then last months where they would last years. Under it they last.",
          )}
        </p>
      </div>
      {failed && (
        <p role="alert" className="mt-2 text-error">
          {failed}
        </p>
      )}
      {!answer && !failed && <progress className="progress mt-2 w-72" value={progress ?? 0} max={1} aria-label="Trying the values" />}
      {answer && (
        <>
          <p className="my-3 text-2xl font-bold" data-testid="resistor-says">
            {best
              ? `${answer.part}: ${madeWords(best.made)}, ${formatQuantity(best.rating, "W", 2)}${best.made.b === undefined ? "" : " each"}.`
              : `No value that exists keeps every mode under ${percent(limit)}.`}
          </p>
          <WideTable label="Cathode resistors over the modes" className="table table-sm">
            <thead>
              <tr>
                <th>{answer.part}</th>
                <th>Fit</th>
                {answer.modes.map((m) => (
                  <th key={m.name} className="text-right">
                    {m.name}
                  </th>
                ))}
                <th />
              </tr>
            </thead>
            <tbody>
              <Row name="as it is" figures={answer.now} modes={answer.modes.map((m) => m.name)} limit={limit} />
              {answer.choices.map((c) => (
                <Row
                  key={c.ohms}
                  name={madeWords(c.made)}
                  fit={`${formatQuantity(c.rating, "W", 2)}${c.made.b === undefined ? "" : " each"}`}
                  figures={c.figures}
                  modes={answer.modes.map((m) => m.name)}
                  limit={limit}
                >
                  <TryPart
                    label="Try it"
                    trial={() => ({
                      position: answer.part,
                      newPart: `${madeWords(c.made)}, ${formatQuantity(c.rating, "W", 2)}`,
                      set: [`${answer.part}=${Number(c.ohms.toPrecision(4))}`],
                      hypothesis: `${percent(c.ofRating)} of the plate rating in the hottest mode`,
                      before: `${percent(Math.max(...answer.now.filter((f) => f.share === 1).map((f) => f.ofRating)))} of the plate rating`,
                    })}
                  />
                </Row>
              ))}
            </tbody>
          </WideTable>
          <p className="soft mt-1 text-sm">
            {answer.refused} values were left out because a mode passes the limit. Watts to fit are twice the worst that the resistor bears.
            Nearest to {percent(aim)} first, one resistor before two.
          </p>
        </>
      )}
    </Section>
  );
}

function Row({
  name,
  fit,
  figures,
  modes,
  limit,
  children,
}: {
  name: string;
  fit?: string;
  figures: ModeFigures[];
  modes: string[];
  limit: number;
  children?: React.ReactNode;
}) {
  return (
    <tr>
      <td className="font-bold whitespace-nowrap">{name}</td>
      <td className="whitespace-nowrap">{fit ?? "–"}</td>
      {modes.map((m) => {
        const at = (share: number) => figures.find((f) => f.mode === m && f.share === share)!;
        const [down, today, up] = [at(0.9), at(1), at(1.1)];
        return (
          <td key={m} className="text-right whitespace-nowrap tabular-nums">
            <strong>
              {today.ofRating > limit ? "▲ " : ""}
              {percent(today.ofRating)}
            </strong>
            <span className="soft block text-xs">
              {words("mains a tenth down")} {percent(down.ofRating)}, up {up.ofRating > limit ? "▲ " : ""}
              {percent(up.ofRating)}
            </span>
            <span className="soft block text-xs">
              {formatQuantity(today.amps, "A", 3)} {words("a tube")}, {formatVolts(today.volts)}, {formatQuantity(today.watts, "W", 2)} in
              it
            </span>
          </td>
        );
      })}
      <td>{children}</td>
    </tr>
  );
}

function Screens() {
  const { output } = useJob();
  const { netlist, ask, stage } = useStage();
  const [wanted, setWanted] = useState(false);
  const own = stage.tubes.every((t) => t.screenResistor);
  const key = output && wanted && own ? keyOf("screens", netlist, ask) : undefined;
  const { answer, failed, progress } = useAnswer<ScreensAnswer>(key, (told) => output!.screenResistor(netlist, { ...ask, limit: 1 }, told));
  if (!own) return null;
  return (
    <Section title="Screen resistors" hint="each value played to clip">
      {!wanted && (
        <button className="btn" onClick={() => setWanted(true)}>
          Compare values that exist
        </button>
      )}
      {failed && <p role="alert">{failed}</p>}
      {wanted && !answer && !failed && (
        <progress className="progress w-72" value={progress ?? 0} max={1} aria-label="Playing each value to clip" />
      )}
      {answer && (
        <WideTable label="Screen resistors" className="table table-sm">
          <thead>
            <tr>
              <th>{answer.parts.join(", ")}</th>
              <th className="text-right">Screen, idle and clip</th>
              <th className="text-right">Plate, idle and clip</th>
              <th className="text-right">Of the ratings</th>
              <th className="text-right">Power at clip</th>
              <th className="text-right">Fit</th>
            </tr>
          </thead>
          <tbody>
            {answer.choices.map((c) => (
              <tr key={c.ohms} className={c.present ? "bg-base-200" : ""}>
                <td className="font-bold">
                  {ohms(c.ohms)} {c.present && <span className="soft font-normal">as it is</span>}
                </td>
                <td className="text-right tabular-nums">
                  {formatQuantity(c.idleScreen, "W", 2)}, {formatQuantity(c.clipScreen, "W", 2)}
                </td>
                <td className="text-right tabular-nums">
                  {formatQuantity(c.idlePlate, "W", 3)}, {formatQuantity(c.clipPlate, "W", 3)}
                </td>
                <td className="text-right tabular-nums">
                  {(c.ofScreenRating ?? 0) > 1 || (c.ofPlateRating ?? 0) > 1 ? "▲ " : ""}
                  {percent(c.ofScreenRating)}, {percent(c.ofPlateRating)}
                </td>
                <td className="text-right font-bold tabular-nums">{formatQuantity(c.power, "W", 3)}</td>
                <td className="text-right tabular-nums">{figure(c.fit)} W</td>
              </tr>
            ))}
          </tbody>
        </WideTable>
      )}
      {answer && answer.refused > 0 && (
        <p className="soft text-sm">{answer.refused} values were left out because a screen or plate passes its rating at clip.</p>
      )}
    </Section>
  );
}
