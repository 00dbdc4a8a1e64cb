import { demoAmp } from "../solver/circuits-for-tests";
import { markAll, putTubeType, setFact, setProvenance } from "./edit-line";
import { complementOf, complementWords, likeness, readComplement } from "./nearest";
import { readCircuit } from "./read";

const text =
  "Title\n*@mains 230 50\nR1 a 0 1k ;@tol 5% @prov seen\nC1 a 0 1u\nXV1 a b c 12AX7 ; a plain comment\nR2 b 0 1k\nR3 c 0 1k\n.end";

test("provenance goes into the line it belongs to, and nowhere else", () => {
  expect(setProvenance(text, 3, "assumed").split("\n")[2]).toBe("R1 a 0 1k ;@tol 5% @prov assumed");
  expect(setProvenance(text, 4, "printed").split("\n")[3]).toBe("C1 a 0 1u ;@prov printed");
  expect(setProvenance(text, 99, "seen")).toBe(text);
});
test("all parts at once; title and structure stay", () => {
  const marked = markAll(text, "assumed");
  expect(marked.split("\n").slice(0, 2)).toEqual(text.split("\n").slice(0, 2));
  expect(readCircuit(marked).circuit.elements.map((e) => e.notes.prov)).toEqual(["assumed", "assumed", "assumed", "assumed", "assumed"]);
});
test("facts are set where they stand, or added", () => {
  const facts = 'T\n*@fact maker=Pell model="Picture House" from=1963\nR1 a 0 1k';
  expect(setFact(facts, "model", "Parlour").split("\n")[1]).toBe('*@fact maker=Pell model="Parlour" from=1963');
  expect(readCircuit(setFact(text, "maker", 'A "B" C')).circuit.facts.maker).toBe("A 'B' C");
});
test("a tube type stands once in a file", () => {
  const once = putTubeType(text, "*@tube 6XX6 kind=triode mu=20");
  expect(once.split("\n")[2]).toMatch(/6XX6/);
  expect(putTubeType(once, "*@tube 6XX6 kind=triode mu=30").match(/6XX6/g)).toHaveLength(1);
});

test("complements: read, written, compared", () => {
  const wren = complementOf(demoAmp("wren-5"));
  expect(wren).toEqual(["12AX7", "EL84", "EZ80"]);
  expect(complementWords(complementOf(demoAmp("lantern-15")))).toBe("3 × 12AX7, 2 × 6V6GT, GZ34");
  expect(readComplement("2 x 6V6, ECC83 5Y3 lamp")).toEqual({ types: ["12AX7", "5Y3GT", "6V6GT", "6V6GT"], unknown: ["lamp"] });
  expect(likeness(wren, readComplement("ecc83 6bq5 ez80").types)).toBe(1);
  expect(likeness(wren, complementOf(demoAmp("halberd-120")))).toBeLessThan(0.3);
});
