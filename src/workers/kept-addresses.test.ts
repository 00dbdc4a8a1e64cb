import { STATION_IDS } from "@/core/tape/stations";
import { jobPage, pageOfShop } from "./kept-addresses";

test("pages of the shop are told from files, the interface, the door and an owner's report", () => {
  for (const path of ["/", "/jobs/7/walk", "/library", "/library/2", "/settings", "/guide/walk", "/apiary", "/sign-in-elsewhere"])
    expect([path, pageOfShop(path)]).toEqual([path, true]);
  for (const path of ["/api/v1/jobs", "/_next/static/x.js", "/shared/abc", "/sign-in", "/service-worker.js"])
    expect([path, pageOfShop(path)]).toEqual([path, false]);
});

test("a job's address gives its number and the place in it", () => {
  for (const place of [...STATION_IDS, "probe", "report"]) expect(jobPage(`/jobs/1008/${place}`)).toEqual({ jobId: 1008, place });
  expect(jobPage("/jobs/1008")).toEqual({ jobId: 1008, place: "intake" });
  for (const path of ["/", "/jobs/new", "/jobs/1/walk/more", "/jobs/12345678901/walk", "/library/1008"])
    expect(jobPage(path)).toBeUndefined();
});
