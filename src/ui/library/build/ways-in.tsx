"use client";
/** What is on your bench? Three ways in: the tubes, the nearest amp of the library, a file. */

import { useState } from "react";
import Link from "next/link";
import { complementWords, likeness, readComplement } from "@/core/circuit/nearest";
import { words } from "@/core/language/language";
import { CIRCUIT_FILES, FileField } from "../../forms/file-field";
import { loadCircuit } from "../file/load-circuit";
import type { ModelHead } from "../library-port";
import { LineUpForm } from "./line-up-form";

export interface NearModel extends ModelHead {
  tubes: string[];
}

interface WaysInProps {
  models: readonly NearModel[];
  mains: { volts: number; hertz: number };
  /** Read off the sockets already. */
  tubes?: string;
  /** From the tubes: values are typed next. */
  made(text: string): void;
  /** A file as it was loaded, or pasted. */
  loaded(text: string): void;
}

const SHOWN = 4;

export function WaysIn({ models, mains, tubes: given = "", made, loaded }: WaysInProps) {
  const [tubes, setTubes] = useState(given);
  const { types } = readComplement(tubes);
  const ranked = [...models].sort((a, b) => likeness(b.tubes, types) - likeness(a.tubes, types)).slice(0, SHOWN);
  return (
    <div className="space-y-6">
      <LineUpForm mains={mains} tubes={given} made={made} typing={setTubes} />
      <div className="grid gap-6 border-t border-base-300 pt-4 md:grid-cols-2">
        <section aria-label="From an amp of the library">
          <h2 className="text-lg font-bold">Or begin with an amp that is like it</h2>
          {models.length === 0 && <p className="soft">There is no model in the library yet.</p>}
          <ul>
            {ranked.map((m) => (
              <li key={m.id}>
                <Link
                  href={`/library/new?from=${m.id}`}
                  className="flex min-h-11 items-center gap-3 underline decoration-dotted underline-offset-4"
                >
                  <strong className="whitespace-nowrap">
                    {m.maker} {m.name}
                  </strong>
                  <span className="soft text-sm">
                    {complementWords(m.tubes)}
                    {types.length > 0 && `, ${Math.round(likeness(m.tubes, types) * 100)} % alike`}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
        <section aria-label="From a file">
          <h2 className="text-lg font-bold">Or from a circuit file</h2>
          <p className="soft mb-2">
            {words("One of Scutum’s, or a general SPICE netlist: which of its subcircuits is which tube is asked.")}
          </p>
          <div className="flex flex-wrap gap-2">
            <FileField
              label="Load a file…"
              name="Circuit file"
              className="btn h-11"
              accept={CIRCUIT_FILES}
              take={async (file) => loaded(await loadCircuit(file))}
            />
            <button className="btn h-11" onClick={() => loaded("New amplifier\n")}>
              Type one
            </button>
          </div>
        </section>
      </div>
    </div>
  );
}
