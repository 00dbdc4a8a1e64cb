import { refusalOf } from "./same-site";

const ask = (method: string, headers: Record<string, string>) =>
  refusalOf({ method, headers: new Headers({ host: "127.0.0.1:4720", ...headers }) })?.status;

describe("who may write", () => {
  test.each<[string, string, Record<string, string>, number | undefined]>([
    ["a page of this site", "POST", { origin: "http://127.0.0.1:4720", "sec-fetch-site": "same-origin" }, undefined],
    ["a script, which sends neither", "POST", {}, undefined],
    ["a page of another site", "POST", { origin: "http://elsewhere.invalid" }, 403],
    ["another port of this machine", "PUT", { origin: "http://127.0.0.1:9999" }, 403],
    ["a form of another site", "POST", { "sec-fetch-site": "cross-site" }, 403],
    ["a frame without an origin", "DELETE", { origin: "null" }, 403],
    ["reading from anywhere", "GET", { origin: "http://elsewhere.invalid" }, undefined],
    ["a name that only points here", "GET", { host: "elsewhere.invalid" }, 421],
    ["localhost", "GET", { host: "localhost:1" }, undefined],
  ])("%s", (_, method, headers, status) => expect(ask(method, headers)).toBe(status));

  test("names of the shop's own network can be added", () => {
    process.env.SCUTUM_HOSTS = "bench.lan, other";
    try {
      expect(ask("GET", { host: "bench.lan:4720" })).toBeUndefined();
    } finally {
      delete process.env.SCUTUM_HOSTS;
    }
  });
});
