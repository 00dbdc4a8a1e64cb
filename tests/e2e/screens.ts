/** Every screen that is looked at as a whole, and what is looked for on it. */

import { STATIONS } from "../../src/core/tape/stations";

export interface Screen {
  path: string;
  /** Tabs that are opened there one after the other; without any the page as it comes. */
  parts?: readonly string[];
  /** Passes the accessibility audit in both themes. */
  audit?: true;
  /** Everything can be touched on a phone and on a tablet, and nothing is wider than they are. */
  touch?: true;
  /** All that it says is Scutum's own: valve, line and a decimal comma. */
  words?: "all" | "but figures";
}

/** In the path of a screen: the job in which nobody has typed a word. */
export const OWN_JOB = "OWN_JOB";
/** A job without a circuit, with readings by tube and pin. */
export const BARE_JOB = "BARE_JOB";

const audited = (path: string, ...parts: string[]): Screen => ({ path, ...(parts.length > 0 ? { parts } : {}), audit: true });
const touched = (path: string): Screen => ({ path, audit: true, touch: true });
const read = (station: string, ...parts: string[]): Screen => ({
  path: `/jobs/${OWN_JOB}/${station}`,
  ...(parts.length > 0 ? { parts } : {}),
  words: "all",
});

export const SCREENS: Screen[] = [
  touched("/"),
  { path: "/guide", audit: true, words: "but figures" },
  audited("/guide/walk"),
  { path: "/guide/bring-up", words: "but figures" },
  { path: "/jobs/new", audit: true, touch: true, words: "all" },
  touched("/settings"),
  { path: "/library", audit: true, touch: true, words: "all" },
  audited("/library/2"),
  audited("/library/2", "Settle"),
  { path: "/library/new", audit: true, words: "all" },
  audited("/library/new?from=1"),
  touched("/jobs/1004/intake"),
  touched("/jobs/1004/make-safe"),
  touched("/jobs/1004/look"),
  touched("/jobs/1004/cold-checks"),
  touched("/jobs/1005/bring-up"),
  audited("/jobs/1005/bring-up", "Primary side", "Speaker and load", "Settling run"),
  audited("/jobs/1009/bring-up"),
  audited("/jobs/1009/look"),
  audited("/jobs/1009/cold-checks", "Controls", "Valves", "Leakage"),
  audited("/jobs/1010/cold-checks", "Heaters"),
  touched("/jobs/1010/probe?order=cold"),
  touched("/jobs/1006/probe?order=safe"),
  touched("/jobs/1004/walk"),
  { path: `/jobs/${BARE_JOB}/walk`, audit: true, touch: true, words: "all" },
  touched("/jobs/1004/suspects"),
  touched("/jobs/1004/probe"),
  touched("/jobs/1008/probe"),
  touched("/jobs/1011/signal"),
  touched("/jobs/1012/noise"),
  audited("/jobs/1012/noise", "Where it enters", "Grounds"),
  audited("/jobs/1011/noise", "Conditions"),
  audited("/jobs/1013/noise", "Comes and goes"),
  audited("/jobs/1002/noise", "Where it enters"),
  touched("/jobs/1005/work"),
  audited("/jobs/1017/work", "Capacitors", "Reform", "Substitute", "Kit"),
  touched("/jobs/1005/output-stage"),
  touched("/jobs/1001/prove"),
  touched("/jobs/1001/return"),
  audited("/jobs/1001/report"),
  audited("/jobs/1018/work", "Plan", "Cure", "Approvals", "Quote"),
  audited("/jobs/1001/return", "Bill"),
  audited("/jobs/1018/return", "Hand over"),
  audited("/jobs/1018/paper/quote-47"),
  audited("/jobs/1018/paper/history"),
  ...STATIONS.map(({ id }) => read(id)),
  read("report"),
  read("output-stage", "Bias", "Cathode resistor", "Load line", "Waveform", "Blocking", "Valves", "Supply"),
  read("signal", "Signal walk"),
  read("work", "Capacitors", "Reform", "Substitute", "Kit"),
  read("cold-checks", "Leakage"),
];
