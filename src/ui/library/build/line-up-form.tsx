"use client";
/** The way in by the tubes: the line-up as read off the sockets, the usual chain for it, its alternatives by one key each. */

import { useMemo, useRef, useState } from "react";
import { assemble, type Planned } from "@/core/blocks/assemble";
import { readLineUp } from "@/core/blocks/line-up";
import { propose, type Answers, type Choice } from "@/core/blocks/propose";
import { figure, words } from "@/core/language/language";
import { answerName, choiceName, kindName } from "@/core/texts/block-names";
import { Field } from "../../forms/section";

/** The chain without the heaters; equal ones in a row are one with their number. */
function shown(chain: readonly Planned[]): { plan: Planned; times: number }[] {
  const out: { plan: Planned; times: number }[] = [];
  for (const plan of chain) {
    const last = out.at(-1);
    if (plan.kind === "heaters") continue;
    if (last && last.plan.kind === plan.kind && !plan.tubes?.length && last.plan.channel === plan.channel) last.times += 1;
    else out.push({ plan, times: 1 });
  }
  return out;
}

interface LineUpFormProps {
  /** The shop's mains. */
  mains: { volts: number; hertz: number };
  /** Told the circuit file that was put together. */
  made(text: string): void;
  /** Told what is typed of the tubes. */
  typing(text: string): void;
  tubes?: string;
}

export function LineUpForm({ mains, made, typing, tubes = "" }: LineUpFormProps) {
  const [typed, setTyped] = useState(tubes);
  const [maker, setMaker] = useState("");
  const [model, setModel] = useState("");
  const [volts, setVolts] = useState("");
  const [answers, setAnswers] = useState<Answers>({});
  const choices = useRef<HTMLDivElement>(null);
  const lineUp = useMemo(() => readLineUp(typed), [typed]);
  const sound = lineUp.problems.length === 0 && lineUp.tubes.length > 0;
  const proposal = useMemo(() => (sound ? propose(lineUp, answers) : undefined), [sound, lineUp, answers]);
  const usualVolts = proposal?.mains ?? mains.volts;
  const read = volts.trim() === "" ? usualVolts : Number(volts.replace(",", "."));
  const badVolts = !(read >= 90 && read <= 260);

  const put = () => {
    if (!proposal || badVolts) return;
    const hertz = proposal.hertz ?? mains.hertz;
    made(
      assemble(
        { maker: maker.trim() || "Unknown", model: model.trim() || lineUp.tubes.map((t) => t.type.type).join(" "), mains: read, hertz },
        proposal.chain,
      ),
    );
  };
  const next = (choice: Choice) => {
    const at = choice.answers.indexOf(choice.chosen);
    setAnswers({ ...answers, [choice.name]: choice.answers[(at + 1) % choice.answers.length] });
  };
  function onChoiceKey(e: React.KeyboardEvent) {
    if (e.ctrlKey || e.altKey || e.metaKey) return;
    const choice = proposal?.choices.find((c) => c.key === e.key.toLowerCase() && c.answers.length > 1);
    if (choice) next(choice);
    else if (e.key === "Enter" && e.target === choices.current) put();
    else return;
    e.preventDefault();
  }

  return (
    <form
      className="space-y-4"
      onSubmit={(e) => {
        e.preventDefault();
        put();
      }}
    >
      <label className="block">
        <span className="text-lg">
          <strong>{words("Which tubes are in it?")}</strong> {words("As they are read off the sockets, from the input to the rectifier.")}
        </span>
        <input
          className="input mt-2 h-14 w-full text-2xl"
          autoFocus
          spellCheck={false}
          placeholder="12AX7 12AX7 6V6 6V6 5Y3"
          value={typed}
          aria-invalid={lineUp.problems.length > 0}
          aria-describedby="line-up-read"
          onChange={(e) => {
            setTyped(e.target.value);
            typing(e.target.value);
          }}
        />
      </label>
      <div id="line-up-read" aria-live="polite">
        {lineUp.problems.map((p) => (
          <p key={p} className="text-error">
            ■ {p}
          </p>
        ))}
        {lineUp.tubes.length > 0 && <p className="soft">{lineUp.tubes.map((t) => `${t.name} ${t.type.type}`).join(" · ")}</p>}
      </div>
      {proposal && (
        <>
          <section aria-label="Proposed chain">
            <h2 className="font-bold">The usual chain for them</h2>
            <ol className="mt-1 flex flex-wrap items-center gap-y-2">
              {shown(proposal.chain).map(({ plan: p, times }, i) => (
                <li key={i} className="flex items-center">
                  {i > 0 && (
                    <span aria-hidden className="soft px-1">
                      ›
                    </span>
                  )}
                  <span className="rounded border border-base-300 bg-base-200 px-2 py-1 text-sm">
                    {kindName(p.kind)}
                    {(p.tubes?.length ?? 0) > 0 && <strong> {p.tubes!.map((t) => t.name).join(" ")}</strong>}
                    {times > 1 && ` × ${times}`}
                    {p.channel && <span className="soft"> {p.channel}</span>}
                  </span>
                </li>
              ))}
            </ol>
          </section>
          <div className="flex flex-wrap items-end gap-3">
            <button className="btn btn-primary h-12 text-lg" disabled={badVolts}>
              Put it together
            </button>
            <Field label="Maker">
              <input className="input w-44" value={maker} onChange={(e) => setMaker(e.target.value)} />
            </Field>
            <Field label="Model">
              <input className="input w-44" value={model} onChange={(e) => setModel(e.target.value)} />
            </Field>
            <Field label={words("Mains, V")} error={badVolts ? `90 to 260 V are accepted; read ${volts}` : undefined}>
              <input
                className="input w-24 text-right"
                inputMode="decimal"
                placeholder={figure(usualVolts)}
                value={volts}
                aria-invalid={badVolts}
                onChange={(e) => setVolts(e.target.value)}
              />
            </Field>
            <span className="soft text-sm">Values come next: typed on the drawing, usual ones until then.</span>
          </div>
          <div
            ref={choices}
            role="group"
            tabIndex={0}
            aria-label="What else it could be: press the letter in front for the next answer, Enter to put it together"
            onKeyDown={onChoiceKey}
            className="rounded border border-base-300 p-3"
          >
            <table className="w-full">
              <tbody>
                {proposal.choices.map((c) => (
                  <tr key={c.name}>
                    <td className="w-8 py-0.5">{c.answers.length > 1 && <kbd className="kbd">{c.key}</kbd>}</td>
                    <th scope="row" className="w-44 pr-3 text-left font-normal">
                      {choiceName(c.name)}
                    </th>
                    <td className="py-0.5">
                      {c.answers.map((a) => (
                        <button
                          key={a}
                          type="button"
                          tabIndex={-1}
                          aria-pressed={a === c.chosen}
                          className={`mr-1 min-h-9 rounded px-2 ${a === c.chosen ? "bg-secondary font-bold" : "soft underline decoration-dotted underline-offset-4"}`}
                          onClick={() => setAnswers({ ...answers, [c.name]: a })}
                        >
                          {answerName(a)}
                        </button>
                      ))}
                    </td>
                    <td className="soft py-0.5 text-sm">{c.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
    </form>
  );
}
