import { describe, expect, test } from "@jest/globals";
import { askedAddress } from "../destination/kinds/web.ts";
import { nextStep } from "./follow.ts";
import { explainOutcome, type Hop, type Outcome } from "./outcome.ts";

type Reply = Partial<Pick<Hop, "status" | "location" | "failure" | "type" | "leadsOn">>;

/** Asks as the server does, but of a table: `METHOD address` to what it answers. */
function reach(address: string, replies: Record<string, Reply>): Outcome {
  const hops: Hop[] = [];
  for (let i = 0; i < 100; i++) {
    const step = nextStep(address, hops);
    if ("stop" in step) return step.stop;
    const reply = replies[`${step.ask.method} ${step.ask.address}`] ??
      replies["otherwise"] ?? { status: 404 };
    hops.push({
      status: null,
      location: null,
      type: "text/plain",
      failure: null,
      ms: 1,
      ...step.ask,
      ...reply,
    });
  }
  throw new Error("It never stopped.");
}

const page = "https://tides.example/today";

describe("one answer", () => {
  // RFC 9110 section 15 (from memory).
  test.each([
    [200, "sound", "ok"],
    [204, "sound", "ok"],
    [404, "broken", "not-found"],
    [410, "broken", "gone"],
    [401, "guarded", "guarded"],
    [403, "guarded", "guarded"],
    [407, "guarded", "guarded"],
    [429, "unsure", "status"],
    [500, "unsure", "status"],
    [503, "unsure", "status"],
    [304, "unsure", "status"],
  ] as const)("%i is %s", (status, state, code) => {
    expect(reach(page, { otherwise: { status } })).toMatchObject({ state, code, movedTo: null });
  });

  test.each([
    ["unknown-name", "broken"],
    ["not-public", "broken"],
    ["tls", "broken"],
    ["tls-none", "broken"],
    ["tls-chain", "unsure"],
    ["tls-handshake", "unsure"],
    ["tls-expired", "broken"],
    ["tls-name", "broken"],
    ["tls-self-signed", "broken"],
    ["name-server", "unsure"],
    ["timeout", "unsure"],
    ["dropped", "unsure"],
    ["refused", "unsure"],
  ] as const)("the failure %s is %s", (code, state) => {
    expect(reach(page, { otherwise: { failure: { code } as never } })).toMatchObject({ state, code });
  });
});

test("a refused HEAD says nothing, so GET is asked", () => {
  // RFC 9110 section 15.5.6 (from memory): 405 is about the method.
  for (const status of [405, 501, 403, 404, 500]) {
    const outcome = reach(page, { [`HEAD ${page}`]: { status }, [`GET ${page}`]: { status: 200 } });
    expect(outcome).toMatchObject({ state: "sound", code: "ok" });
    expect(outcome.hops.map((hop) => hop.method)).toEqual(["HEAD", "GET"]);
  }
});

test("a HEAD that promises a page, or does not tell what, says nothing of what the page says, so GET is asked", () => {
  for (const type of ["text/html", "application/xhtml+xml", null])
    expect(reach(page, { otherwise: { status: 200, type } }).hops.map((hop) => hop.method)).toEqual([
      "HEAD",
      "GET",
    ]);
  expect(reach(page, { otherwise: { status: 200, type: "application/pdf" } }).hops).toHaveLength(1);
});

test("a HEAD that is dropped or not answered is asked again as GET, one that found no connection is not", () => {
  for (const failure of [{ code: "dropped" }, { code: "timeout", connected: true }] as const) {
    const silent = reach(page, { [`HEAD ${page}`]: { failure }, [`GET ${page}`]: { status: 200 } });
    expect(silent.state).toBe("sound");
  }
  expect(reach(page, { otherwise: { failure: { code: "timeout" } } }).hops).toHaveLength(1);
});

describe("pages that lead on by themselves", () => {
  const now = "https://tides.example/now";
  const on = (leadsOn: string): Reply => ({ status: 200, type: "text/html", leadsOn });

  test("are followed, and no reason to take another address over", () => {
    const outcome = reach(page, {
      [`HEAD ${page}`]: { status: 200, type: "text/html" },
      [`GET ${page}`]: on(now),
      [`HEAD ${now}`]: { status: 200 },
    });
    expect(outcome).toMatchObject({ state: "sound", code: "redirected", movedTo: null });
    expect(explainOutcome(outcome)).toMatch(/leads on/);
  });

  test("are as what they lead to is", () => {
    const to = (end: Reply): Outcome =>
      reach(page, { [`HEAD ${page}`]: { status: 405 }, [`GET ${page}`]: on(now), otherwise: end });
    expect(to({ status: 404 })).toMatchObject({ state: "broken", code: "not-found" });
    expect(to({ status: 401 })).toMatchObject({ state: "guarded" });
    expect(to({ failure: { code: "unknown-name" } })).toMatchObject({ state: "broken" });
  });

  test("that lead to each other, or without end, end", () => {
    const back = reach(page, {
      [`HEAD ${page}`]: { status: 405 },
      [`GET ${page}`]: on(now),
      [`HEAD ${now}`]: { status: 405 },
      [`GET ${now}`]: on(page),
    });
    expect(back).toMatchObject({ state: "sound", code: "redirected" });
    const replies: Record<string, Reply> = {};
    for (let i = 0; i < 50; i++) {
      replies[`HEAD ${now}/${i}`] = { status: 405 };
      replies[`GET ${now}/${i}`] = on(`${now}/${i + 1}`);
    }
    expect(reach(`${now}/0`, replies)).toMatchObject({ state: "sound", code: "redirected" });
  });

  test("leave what a redirect before them says", () => {
    const outcome = reach(page, {
      [`HEAD ${page}`]: { status: 301, location: now },
      [`HEAD ${now}`]: { status: 405 },
      [`GET ${now}`]: on(`${now}/en`),
      otherwise: { status: 200 },
    });
    expect(outcome).toMatchObject({ state: "moved", movedTo: now });
  });

  test("that say that they are missing are missing", () => {
    expect(reach(page, { otherwise: { ...on(now), status: 404 } })).toMatchObject({ state: "broken" });
  });
});

describe("redirects", () => {
  const to = (status: number, location: string): Reply => ({ status, location });

  // RFC 9110 section 15.4 (from memory): 301 and 308 are permanent, 302, 303 and 307 are not.
  test.each([301, 308])("%i is permanent and gives the new address", (status) => {
    const outcome = reach(page, {
      [`HEAD ${page}`]: to(status, "/now"),
      "HEAD https://tides.example/now": { status: 200 },
    });
    expect(outcome).toMatchObject({ state: "moved", movedTo: "https://tides.example/now" });
  });
  test.each([302, 303, 307])("%i is temporary and gives none", (status) => {
    const outcome = reach(page, {
      [`HEAD ${page}`]: to(status, "/now"),
      "HEAD https://tides.example/now": { status: 200 },
    });
    expect(outcome).toMatchObject({ state: "sound", code: "redirected", movedTo: null });
  });

  test("only the permanent hops before the first temporary one are taken over", () => {
    const outcome = reach(page, {
      [`HEAD ${page}`]: to(301, "/a"),
      "HEAD https://tides.example/a": to(302, "/b"),
      "HEAD https://tides.example/b": to(301, "/c"),
      "HEAD https://tides.example/c": { status: 200 },
    });
    expect(outcome).toMatchObject({ state: "moved", movedTo: "https://tides.example/a" });
  });

  test("the fragment stays, unless the redirect has its own", () => {
    // RFC 9110 section 10.2.2 (from memory).
    const replies = (location: string) => ({
      [`HEAD ${page}`]: to(301, location),
      otherwise: { status: 200 },
    });
    expect(reach(`${page}#low`, replies("/now")).movedTo).toBe("https://tides.example/now#low");
    expect(reach(`${page}#low`, replies("/now#high")).movedTo).toBe("https://tides.example/now#high");
  });

  test("ten are followed, eleven are too many", () => {
    const chain = (length: number): Record<string, Reply> => {
      const replies: Record<string, Reply> = {};
      for (let i = 0; i < length; i++) replies[`HEAD https://tides.example/${i}`] = to(302, `/${i + 1}`);
      return { ...replies, [`HEAD https://tides.example/${length}`]: { status: 200 } };
    };
    expect(reach("https://tides.example/0", chain(10)).state).toBe("sound");
    expect(reach("https://tides.example/0", chain(11))).toMatchObject({
      state: "broken",
      code: "too-many-redirects",
    });
  });

  test("a circle, a script and a moved page that is gone are broken", () => {
    const circle = { [`HEAD ${page}`]: to(302, "/b"), "HEAD https://tides.example/b": to(302, page) };
    const asRead = { [`GET ${page}`]: to(302, "/b"), "GET https://tides.example/b": to(302, page) };
    expect(reach(page, { ...circle, ...asRead })).toMatchObject({ state: "broken", code: "loop" });
    expect(reach(page, { ...circle, [`GET ${page}`]: { status: 200 } }).state).toBe("sound");
    expect(reach(page, { otherwise: to(302, "javascript:alert(1)") })).toMatchObject({
      code: "bad-redirect",
    });
    expect(reach(page, { [`HEAD ${page}`]: to(301, "/gone"), otherwise: { status: 410 } })).toMatchObject({
      state: "broken",
      code: "gone",
    });
  });
});

test("what leads to itself is a circle unless a cookie was set on the way (RFC 6265)", () => {
  const hop = (method: Hop["method"], address: string, reply: Partial<Hop> = {}): Hop => ({
    ...{ method, address, status: 302, location: page, type: null, failure: null, ms: 1 },
    ...reply,
  });
  const greeting = "https://tides.example/greeting";
  const away = { location: greeting };
  const asked = [hop("HEAD", page, away), hop("GET", greeting, { setsCookies: true })];
  expect(nextStep(page, asked)).toEqual({ ask: { method: "HEAD", address: page } });
  const again = [...asked, hop("HEAD", page, away), hop("GET", greeting), hop("GET", page, away)];
  expect(nextStep(page, again)).toMatchObject({ stop: { state: "broken", code: "loop" } });
  const alone = [hop("HEAD", page, { setsCookies: true })];
  expect(nextStep(page, alone)).toEqual({ ask: { method: "HEAD", address: page } });
});

test("a fragment is never sent", () => {
  expect(askedAddress(`${page}#low-water`)).toBe(page);
});

test("every outcome has a sentence, and its status is in it", () => {
  expect(explainOutcome(reach(page, { otherwise: { status: 503 } }))).toContain("503");
  expect(explainOutcome(reach(page, { otherwise: { failure: { code: "unknown-name" } } }))).toBe(
    "No server has this name.",
  );
});

describe("a redirect that only counts its readers", () => {
  const led = (location: string, from = page) =>
    reach(from, {
      [`HEAD ${from}`]: { status: 301, location },
      [`HEAD ${new URL(location, from).href}`]: { status: 200 },
    });

  test("has not moved; one that leads elsewhere has, without what was added", () => {
    expect(led("/today?utm_source=site")).toMatchObject({
      state: "sound",
      code: "redirected",
      movedTo: null,
    });
    expect(led("/today;jsessionid=1A530637289A03B07199")).toMatchObject({ state: "sound" });
    expect(led("/now?utm_source=site&day=2")).toMatchObject({
      state: "moved",
      movedTo: "https://tides.example/now?day=2",
    });
    // What was there before is the author's own.
    expect(led("/now?utm_source=b", `${page}?utm_source=a`)).toMatchObject({
      movedTo: "https://tides.example/now?utm_source=b",
    });
  });
});
