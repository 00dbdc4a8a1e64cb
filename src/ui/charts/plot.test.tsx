/** @jest-environment jsdom */
import { render } from "@testing-library/react";
import { scaleLinear, scaleLog } from "d3-scale";
import { setLanguage } from "@/core/language/language";
import { Band, Line, XAxis, YAxis } from "./plot";
import { SpectrumChart } from "./spectrum-chart";

afterEach(() => setLanguage());
const draw = (chart: React.ReactNode) => render(<svg>{chart}</svg>).container;
/** Each tick: what it says and where it stands. */
const ticks = (drawn: Element) =>
  [...drawn.querySelectorAll(".tick")].map((t) => {
    const [, x, y] = /translate\(([-\d.]+),([-\d.]+)\)/.exec(t.getAttribute("transform")!)!;
    return { says: t.textContent, x: Number(x), y: Number(y) };
  });

test("a tick stands where its value lies on the scale, within half a pixel", () => {
  const drawn = draw(<XAxis y={100} scale={scaleLinear([0, 400], [50, 450])} ticks={[0, 100, 350]} />);
  expect(ticks(drawn).map((t) => t.says)).toEqual(["0", "100", "350"]);
  for (const [i, x] of [50, 150, 400].entries()) expect(Math.abs(ticks(drawn)[i]!.x - x)).toBeLessThanOrEqual(0.5);
});

test("on a logarithmic scale a decade is the same length everywhere", () => {
  const [a, b, c] = ticks(draw(<XAxis y={0} scale={scaleLog([10, 1000], [0, 200])} ticks={[10, 100, 1000]} />));
  expect(Math.abs(b!.x - a!.x - (c!.x - b!.x))).toBeLessThanOrEqual(1);
});

test("figures take the shop's decimal sign, or the words that they are given", () => {
  setLanguage({ tube: "tube", mains: "mains", decimal: "," });
  const scale = scaleLinear([0, 1], [100, 0]);
  expect(ticks(draw(<YAxis x={0} width={100} scale={scale} ticks={[0, 0.5]} />)).map((t) => t.says)).toEqual(["0", "0,5"]);
  const volts = draw(<YAxis x={0} width={100} scale={scale} ticks={[1]} format={(v) => `${v} V`} />);
  expect(ticks(volts)[0]!.says).toBe("1 V");
});

test("lines and bands go through their points", () => {
  const drawn = draw(
    <>
      <Line
        points={[
          [0, 10],
          [5, 20],
        ]}
      />
      <Band
        points={[
          { x: 0, low: 8, high: 12 },
          { x: 5, low: 18, high: 22 },
        ]}
      />
      <Line points={[]} />
    </>,
  );
  const [line, band, nothing] = [...drawn.querySelectorAll("path")].map((p) => p.getAttribute("d"));
  expect(line).toBe("M0,10L5,20");
  expect(band).toBe("M0,12L5,22L5,18L0,8Z");
  expect(nothing).toBe("");
});

test("the spectrum names the mains family and says both curves", () => {
  const flat = Array.from({ length: 160 }, () => -90);
  const { container } = render(
    <SpectrumChart
      mains={50}
      curves={[
        { name: "after", curve: flat },
        { name: "before", curve: flat.map((v) => v + 20) },
      ]}
    />,
  );
  expect(container.querySelector("[role=img]")!.getAttribute("aria-label")).toContain("after and before");
  expect(container.textContent).toContain("2f");
});
