/**
 * Who may import whom, from the ground up: the truth about layers and rooms. A permission that nobody uses is taken out of the table,
 * an import that it does not have is refused; both by structure.test.ts. Tests and what only they use may look anywhere.
 */

/** The folders of src/; what lies in none of them (proxy.ts, instrumentation.ts) counts as app. */
export const LAYERS = {
  core: [],
  bench: ["core"],
  server: ["core", "bench"],
  ui: ["core"],
  workers: ["core"],
  app: ["core", "server", "ui", "workers"],
} as const;

/** The rooms of src/core. What each holds is told in docs/architecture.md, in the same order. */
export const CORE_ROOMS = {
  language: [],
  texts: ["language"],
  checks: ["texts"],
  quantity: ["language", "texts"],
  numeric: [],
  tubes: ["language", "texts", "quantity", "numeric"],
  circuit: ["texts", "quantity", "tubes"],
  supply: ["language", "texts", "quantity", "numeric", "tubes", "circuit"],
  shop: ["language", "checks"],
  tape: ["language", "texts", "checks", "quantity", "tubes", "shop"],
  anatomy: ["texts", "quantity", "numeric", "tubes", "circuit", "supply"],
  drawing: ["texts", "circuit", "anatomy"],
  solver: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply"],
  expectation: ["language", "texts", "quantity", "numeric", "circuit", "supply", "tape", "anatomy", "solver"],
  blocks: ["texts", "quantity", "tubes", "circuit", "anatomy", "expectation"],
  settle: ["texts", "quantity", "numeric", "circuit", "anatomy", "solver", "expectation"],
  "by-tube": ["texts", "quantity", "tubes", "supply", "tape", "anatomy", "expectation"],
  walk: ["language", "texts", "quantity", "circuit", "tape", "anatomy", "expectation"],
  cold: ["language", "texts", "quantity", "numeric", "circuit", "supply", "solver", "expectation"],
  diagnosis: ["language", "texts", "circuit", "expectation"],
  "bring-up": ["language", "texts", "quantity", "numeric", "circuit", "supply", "tape", "anatomy", "solver", "expectation", "diagnosis"],
  suspects: ["language", "texts", "quantity", "numeric", "tubes", "circuit", "shop", "tape", "anatomy", "solver", "expectation", "diagnosis"],
  sound: ["language", "texts", "numeric", "tape"],
  noise: ["texts", "numeric", "circuit", "tape", "solver", "diagnosis", "suspects"],
  signal: ["language", "texts", "circuit", "solver", "noise"],
  output: ["language", "texts", "quantity", "tubes", "circuit", "tape", "anatomy", "solver", "noise", "signal"],
  capacitor: [
    ...["language", "texts", "quantity", "numeric", "tubes", "circuit", "supply", "shop", "tape", "anatomy"],
    ...["solver", "expectation", "diagnosis", "signal"],
  ],
  repair: ["texts", "circuit", "tape"],
  money: ["language", "texts", "quantity", "shop", "tape", "repair"],
  intermittent: ["texts", "circuit", "tape"],
  inspection: ["language", "texts", "quantity", "circuit", "tape"],
  safety: ["language", "texts", "quantity", "circuit", "supply", "shop", "tape", "anatomy", "expectation", "bring-up"],
  entry: ["texts", "quantity", "tubes", "circuit", "supply", "tape", "anatomy", "by-tube", "diagnosis", "capacitor", "repair", "safety"],
  instrument: ["texts", "quantity", "tape"],
  job: [
    ...["language", "texts", "quantity", "circuit", "supply", "shop", "tape", "anatomy", "expectation", "walk"],
    ...["bring-up", "capacitor", "repair", "safety"],
  ],
  papers: [
    ...["language", "texts", "quantity", "circuit", "shop", "tape", "anatomy", "drawing", "expectation", "by-tube", "walk"],
    ...["sound", "capacitor", "repair", "money", "intermittent", "inspection", "safety", "job"],
  ],
  allowed: ["texts", "circuit", "shop", "tape", "repair", "money", "safety", "job"],
  memory: ["texts", "circuit", "tape", "suspects", "repair", "money", "job"],
  ports: [
    ...["tubes", "tape", "drawing", "expectation", "settle", "cold", "diagnosis", "bring-up", "suspects", "sound", "noise", "signal"],
    ...["output", "capacitor"],
  ],
  headless: ["quantity", "circuit", "solver", "settle", "suspects", "sound"],
} as const;

/** The rooms of src/ui. */
export const UI_ROOMS = {
  charts: [],
  job: [],
  forms: ["job"],
  board: ["forms"],
  drawing: ["job", "forms"],
  frame: ["job", "forms", "drawing"],
  library: ["job", "forms", "drawing"],
  paper: ["charts", "forms", "drawing"],
  probe: ["job", "forms", "drawing", "frame"],
  stations: ["charts", "job", "forms", "drawing", "frame"],
} as const;

/** The packages that the core may use: small, numeric, or the checks of its payload classes. */
export const CORE_PACKAGES = [
  ...["big.js", "class-transformer", "class-validator", "d3-array", "date-fns", "fft.js"],
  ...["minisearch", "ml-matrix", "papaparse", "reflect-metadata"],
];
