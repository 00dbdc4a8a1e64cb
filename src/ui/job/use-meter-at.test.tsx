/** @jest-environment jsdom */
import { act, fireEvent, render } from "@testing-library/react";
import { useState } from "react";
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
  const { steady, shows, toTake } = useMeterAt(point, "dcv", undefined);
  const [taken, take] = useState<string>();
  return (
    <>
      <p data-steady={steady}>
        {point} {steady ? shows : "nothing"}
      </p>
      <button onClick={() => take(toTake()?.value?.toFixed(1) ?? "nothing")}>Take {taken}</button>
    </>
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
    take: () => {
      const button = drawn.container.querySelector("button")!;
      fireEvent.click(button);
      return button.textContent;
    },
  };
}

test("what is held at one point is never offered at the next, not even before its first line", async () => {
  const { shows, move, text, steady } = await at("B1");
  await shows(119.2, 12);
  expect([text(), steady()]).toEqual(["B1 119.2 V", true]);
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
  expect([text(), steady()]).toEqual(["V2.k 6.8 V", true]);
  expect(asked.map((line) => /point=(\S+)/.exec(line)?.[1])).toEqual(["B1", "V2.k"]);
});

test("a key pressed on a steady display takes it, though it moved within the second; later it takes nothing", async () => {
  const clock = jest.spyOn(Date, "now").mockReturnValue(1_764_070_000_000);
  const { shows, steady, take, move } = await at("B1");
  expect(take()).toBe("Take nothing");
  await shows(119.2, 12);
  expect(take()).toBe("Take 119.2");
  await shows(121.9, 1);
  clock.mockReturnValue(1_764_070_000_900);
  expect([steady(), take()]).toEqual([false, "Take 119.2"]);
  clock.mockReturnValue(1_764_070_001_100);
  expect(take()).toBe("Take nothing");
  await shows(119.2, 12);
  move("V2.k");
  expect(take()).toBe("Take nothing");
  clock.mockRestore();
});
