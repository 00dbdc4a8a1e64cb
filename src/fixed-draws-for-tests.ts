/**
 * Properties are tried with the same draws in every run: a change is judged by itself and not by luck.
 * `FC_SEED=$RANDOM npm run unit -- property` tries others; what it finds becomes an example of the test.
 */

import fc from "fast-check";

fc.configureGlobal({ seed: Number(process.env.FC_SEED ?? 20_261_126) });
