import { expect, test } from "@jest/globals";
import { urlOf } from "../destination/url-of.ts";
import { byHost } from "./by-host.ts";

test("each host is judged once, whatever the verdict", () => {
  const asked: string[] = [];
  const judge = byHost((host) => {
    asked.push(host);
    return host === "tides.example" ? undefined : host.length;
  });
  expect(["tides.example", "a.test", "tides.example", "a.test"].map(judge)).toEqual([
    undefined,
    6,
    undefined,
    6,
  ]);
  expect(asked).toEqual(["tides.example", "a.test"]);
});

test("what is remembered has an end", () => {
  let asked = 0;
  const judge = byHost(() => ++asked);
  for (let i = 0; i < 20_001; i++) judge(`h${i}.test`);
  expect(judge("h20000.test")).toBe(20_001);
  expect(judge("h0.test")).toBe(20_002);
});

test("an address is read once for each destination", () => {
  const destination = { kind: "web" as const, address: "https://tides.example/a?b#c" };
  expect(urlOf(destination)).toBe(urlOf(destination));
  expect(urlOf(destination).hostname).toBe("tides.example");
  expect(urlOf({ ...destination })).not.toBe(urlOf(destination));
});
