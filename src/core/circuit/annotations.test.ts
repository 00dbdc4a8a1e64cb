import { readCircuit } from "./read";

const lines = (text: string) => readCircuit(`t\nR1 b1 0 1k\nR2 b1 g1 1k\n${text}`);
const problems = (text: string) => lines(text).errors.map((e) => `${e.line}: ${e.found} | ${e.expected}`);

describe("structure in comments", () => {
  test("a stage, a heater string, neighbours, facts, the chart", () => {
    const { circuit, errors } = lines(
      '*@stage V1A in=g1 out=b1 control=P1 label="First"\n*@heater H2 string=v3,v2,v1 ballast=R9\n*@near b1 g1\n*@fact maker="Tarn & Wicke" line-connected=yes\n*@chart mains=117 meter=1k\n*@mains 117 60',
    );
    expect(errors).toEqual([]);
    expect(circuit.stages).toEqual([{ name: "V1A", in: "g1", out: "b1", control: "P1", label: "First" }]);
    expect(circuit.heaters).toEqual([
      { name: "H2", volts: undefined, tubes: ["V3", "V2", "V1"], string: true, reference: undefined, ballast: "R9" },
    ]);
    expect(circuit.near).toEqual([["b1", "g1"]]);
    expect(circuit.facts).toEqual({ maker: "Tarn & Wicke", "line-connected": "yes" });
    expect(circuit.chart).toEqual({ mains: 117, meterOhmsPerVolt: 1000, note: undefined });
    expect(circuit.mains).toEqual({ volts: 117, hertz: 60 });
  });

  test.each([
    ["*@mains lots", /4: lots \| \*@mains VOLTS HERTZ/],
    ["*@mains 230 400", /4: 400 \| a mains frequency of 50 or 60/],
    ["*@point B1", /\*@point NAME node=NODE/],
    ["*@point B1 node=b1 chart=many", /chart=many \| chart= with a number/],
    ["*@point B1 node=b1 wires=2", /wires= \| one of node, order, label/],
    ["*@point B1 node=b1\n*@point b1 node=g1", /5: b1 \| a point name that is used once/],
    ["*@point B1 node=nowhere", /point B1 at node nowhere \| a node that a part is connected to/],
    ["*@point 9V node=b1", /9V \| a point name of letters/],
    ["*@near b1", /\*@near NODE NODE/],
    ["*@near b1 nowhere", /nodes that exist; nowhere does not/],
    ["*@heater H1", /\*@heater NAME volts=6\.3/],
    ["*@stage V1 in=g1", /\*@stage NAME in=NODE out=NODE/],
    ["*@chart", /\*@chart mains=220/],
    ["R9 b1 0 1k ;@tol wide", /@tol wide \| @tol with a positive number/],
    ["R9 b1 0 1k ;@watts -2", /@watts -2/],
    ["R9 b1 0 1k ;@prov maybe", /@prov maybe \| @prov seen, assumed, printed/],
  ])("%s", (text, message) => expect(problems(text).join("\n")).toMatch(message));

  test("plain comments and unknown comment lines without @ pass", () => {
    expect(problems("* a note\nR9 b1 0 1k ; the one by the lamp\n*another")).toEqual([]);
  });
});

describe("blocks", () => {
  test.each([
    ["XP1 b1 g1 0 POT", /POT without value=/],
    ["XP1 b1 g1 0 POT value=1MEG taper=log", /taper=log \| taper= linear or audio or reverse/],
    ["XP1 b1 g1 0 POT value=1MEG pos=2", /pos=2 \| pos= from 0 to 1/],
    ["XP1 b1 g1 POT value=1MEG", /2 nodes for POT \| 3 to 4: start wiper end/],
    ["XPS b1 0 RECT_FULL rs=100", /RECT_FULL without vac=/],
    ["XPS b1 0 RECT_FULL vac=-5", /vac=-5 \| vac= above zero/],
    ["XPS b1 0 RECT_FULL vac=250 tube=EL84", /tube=EL84 \| tube= a rectifier of the library/],
    ["XV9 b1 g1 EZ80", /type EZ80 \| a RECT_… element with tube=EZ80/],
    ["XT1 b1 g1 OPT_SE zp=5k load=8", /2 nodes for OPT_SE/],
    ["XS1 b1 g1 SW colour=red", /colour=red \| one of state=/],
    ["XV1 b1 g1 0 12AX7 mu=90", /mu=90 \| no parameters after 12AX7/],
    ["D1 b1 0 DX", /model DX \| \.model DX D/],
    ["K1 L1 L2 0.9", /K1 couples L1 \| an inductor/],
    ["K1 L1 L2 1.9", /1\.9 \| a coupling above 0 and up to 1/],
    [".tran 1m", /\.tran \| one of \.param/],
    ["+ 3", /./],
  ])("%s", (text, message) => {
    const found = problems(text).join("\n");
    if (text !== "+ 3") expect(found).toMatch(message);
    // A continuation belongs to the line before, whose value is then followed by something.
    else expect(found).toMatch(/nothing after the value/);
  });
});
