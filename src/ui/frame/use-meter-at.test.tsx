/** @jest-environment jsdom */
import { act, render } from "@testing-library/react";
import type { InstrumentPort } from "./instrument-port";
import { inJob, power, settle, TestServer } from "../job-for-tests";
import { useMeterAt } from "./use-meter-at";

/** A meter whose lines the test gives, and what was asked of it. */
function meter() {
  const asked: string[] = [];
  let hear: (line: string) => void = () => {};
  let n = 0;
  const port: InstrumentPort = {
    listen: (line) => {
      hear = line;
      return () => {};
    },
    send: async (line) => void asked.push(line),
  };
  const shows = (value: number, times: number) =>
    act(async () => {
      for (let i = 0; i < times; i++) {
        n++;
        hear(`meter n=${n} at=${1_764_070_000_000 + 400 * n} kind=dcv value=${value} digit=0.1 range=1000 auto`);
      }
    });
  return { port, asked, shows };
}

function At({ point }: { point: string }) {
  const { steady, hold } = useMeterAt(point, "dcv", undefined);
  return (
    <p data-steady={steady}>
      {point} {hold.value?.toFixed(1) ?? "nothing"}
    </p>
  );
}

async function at(point: string) {
  const bench = meter();
  const server = new TestServer([power("on")]);
  const drawn = render(inJob(<At point={point} />, { server, instruments: bench.port }));
  await settle();
  return {
    ...bench,
    move: (to: string) => drawn.rerender(inJob(<At point={to} />, { server, instruments: bench.port })),
    text: () => drawn.container.querySelector("p")!.textContent,
    steady: () => drawn.container.querySelector("p")!.dataset.steady === "true",
  };
}

test("what is held at one point is never offered at the next, not even before its first line", async () => {
  const { shows, move, text, steady } = await at("B1");
  await shows(119.2, 12);
  expect([text(), steady()]).toEqual(["B1 119.2", true]);
  move("V2.k");
  expect([text(), steady()]).toEqual(["V2.k nothing", false]);
});

test("the probe that still lies on the point before is not taken; once it has moved the new value is", async () => {
  const { shows, move, text, steady, asked } = await at("B1");
  await shows(119.2, 12);
  move("V2.k");
  await settle();
  await shows(119.2, 12);
  expect(steady()).toBe(false);
  await shows(6.8, 12);
  expect([text(), steady()]).toEqual(["V2.k 6.8", true]);
  expect(asked.map((line) => /point=(\S+)/.exec(line)?.[1])).toEqual(["B1", "V2.k"]);
});
