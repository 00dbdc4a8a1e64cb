/** @jest-environment jsdom */
/** What the shop remembers, one click away: cases behind a suspect, similar old cases, what is normal at a point. */

import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { renderJob, TestServer, WREN } from "../../job-for-tests";
import { Walk } from "../walk";
import { CasesOf, SimilarCases } from "./cases";

jest.mock("../../forms/late", () => ({ late: () => () => null, lateInBrowser: () => () => null, useLateParts: () => {} }));

test("the jobs that a prior was learnt from", async () => {
  const history = {
    ...{ renewed: [], looked: {}, named: {}, series: {} },
    shop: {
      jobs: 2,
      replaced: { C6: 2 },
      cases: { C6: [1001, 1002].map((job) => ({ job, line: 9, says: "C6: leaked" })) },
      like: { jobs: 1, cured: { C6: 1 }, cases: { C6: [{ job: 1001, line: 9, says: "C6: leaked" }] } },
    },
  };
  await renderJob(<CasesOf refs={["C6"]} history={history} />, { server: new TestServer() });
  await userEvent.click(screen.getByText("2 old cases behind it"));
  expect(screen.getAllByRole("link").map((l) => l.getAttribute("href"))).toEqual(["/jobs/1001/work", "/jobs/1002/work"]);
});

test("similar old cases with what cured them and why they are shown; none is said; a lookup that fails says why", async () => {
  const server = new TestServer();
  server.similar = [
    {
      job: 1003,
      amp: "Wren 5",
      complaint: "goes hoarse",
      cured: true,
      cures: ["C6: leaked"],
      proved: true,
      score: 4,
      why: ["same model", "both: distortion"],
    },
    { job: 1004, amp: "Minor", complaint: "hoarse", cured: false, cures: [], proved: false, score: 1, why: ["both: distortion"] },
  ];
  const drawn = await renderJob(<SimilarCases />, { server });
  const region = screen.getByRole("region", { name: "Similar old cases" });
  expect(region).toHaveTextContent("● Cured, shown: C6: leaked");
  expect(region).toHaveTextContent("not cured yet");
  expect(region).toHaveTextContent("same model; both: distortion");
  drawn.unmount();
  const none = await renderJob(<SimilarCases />, { server: new TestServer() });
  expect(screen.getByText(/None in this shop yet/)).toBeVisible();
  none.unmount();
  const broken = new TestServer();
  broken.port.similar = () => Promise.reject(new Error("the server is not reached"));
  await renderJob(<SimilarCases />, { server: broken });
  expect(screen.getByRole("alert")).toHaveTextContent("the server is not reached");
});

test("at a point of the walk, what is normal in this shop, scaled to the mains of now, with its count", async () => {
  const normal = { B1: { low: 1.1, middle: 1.2, high: 1.25, count: 4, jobs: [1001, 1002] } };
  const server = new TestServer([{ type: "mains", payload: { volts: 230 } }]);
  await renderJob(<Walk />, {
    server,
    netlist: WREN,
    shopHistory: { jobs: 4, replaced: {}, normal },
    solver: { expected: () => new Promise(() => {}), notLive: async () => [] },
  });
  expect(screen.getByText(/In this shop: 276 V/)).toHaveTextContent(
    "In this shop: 276 V (253 V to 288 V), from 4 amps of this model: 1001, 1002",
  );
});
